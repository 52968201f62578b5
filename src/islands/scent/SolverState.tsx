import type { BlendReply } from '../../workers/blend-worker';

interface Props {
  busy: boolean;
  /** Why the solver was not asked at all. */
  fault: string | null;
  reply: BlendReply | null;
  /** What is asked with one press. */
  words: string;
  isHeld: boolean;
  onFind: () => void;
  onStop: () => void;
}

/** Asking the solver, stopping it, and why there is no answer. */
export function SolverState({ busy, fault, reply, words, isHeld, onFind, onStop }: Props) {
  return (
    <>
      <div className="my-2 flex gap-3">
        <button type="button" className="action" disabled={isHeld || busy} onClick={onFind}>
          {words}
        </button>
        {busy && (
          <button type="button" className="action" onClick={onStop}>
            Stop
          </button>
        )}
      </div>
      {busy && <p role="status">Solving…</p>}
      {fault && (
        <p role="alert" className="text-madder">
          {fault}
        </p>
      )}
      {reply && !reply.ok && (
        <p role="alert" className="text-madder">
          No answer: {reply.message}. Try again.
        </p>
      )}
    </>
  );
}
