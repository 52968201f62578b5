import { useState } from 'react';
import { TURNED } from '../core/curing/rack';
import type { Hand, HandAct } from '../core/hands/hand';
import { address, send, type Answer } from './api';
import handsStyles from './Hands.module.css';
import { useKeeping } from './keeping';
import { writeOne } from './writing';

const ACT_WORDS: Record<HandAct['kind'], string> = {
  reissue: 'Issue it anew',
  turned: 'They are turned',
};

function perform(act: HandAct): Promise<Answer<unknown>> {
  switch (act.kind) {
    case 'reissue':
      return send('POST', address('tasks', act.task, 'reissue'));
    case 'turned':
      return writeOne(act.batch, 'checked', { check: TURNED, outcome: 'good' });
  }
}

interface ActProps {
  hand: Hand;
  act: HandAct;
  onDone: () => void;
  className?: string;
}

/** Does it where it stands; what stands in the way is told. */
export function Act({ hand, act, onDone, className = 'text-ultra underline' }: ActProps) {
  const { busy, faults, keep } = useKeeping();
  const go = async () => {
    if (await keep(() => perform(act))) onDone();
  };
  return (
    <>
      <button
        type="button"
        className={className}
        aria-label={`${ACT_WORDS[act.kind]}: ${hand.what}`}
        disabled={busy}
        onClick={() => void go()}
      >
        {ACT_WORDS[act.kind]}
      </button>
      {faults.map(({ message }) => (
        <span key={message} role="alert" className="text-madder">
          {message}
        </span>
      ))}
    </>
  );
}

/** One thing that needs a hand: a door to where it is done, or done by one press. */
function HandRow({ hand, beside }: { hand: Hand; beside: string }) {
  const [isDone, setDone] = useState(false);
  const { why, urgency, where, act } = hand;
  const what = hand.what.startsWith(beside) ? hand.what.slice(beside.length).trim() : hand.what;
  if (isDone) return <p className="text-soft">{why} Done.</p>;
  return (
    <p className={`${handsStyles.hand} ${urgency === 'grave' ? handsStyles.grave : ''}`}>
      <a className="text-ultra underline-offset-2 hover:underline" href={where}>
        {what && <strong className="font-medium">{what}: </strong>}
        {why}
      </a>{' '}
      {act && <Act hand={hand} act={act} onDone={() => setDone(true)} />}
    </p>
  );
}

interface Props {
  hands: readonly Hand[];
  /** So many stand open; the others are a press away. */
  atOnce?: number;
  /** What stands beside it already and is not said again. */
  beside?: string;
}

/** What needs a hand, grave first. */
export function Hands({ hands, atOnce = 1, beside = '' }: Props) {
  if (hands.length === 0) return null;
  const more = hands.slice(atOnce);
  return (
    <div className="leading-tight">
      {hands.slice(0, atOnce).map((hand) => (
        <HandRow key={hand.id} hand={hand} beside={beside} />
      ))}
      {more.length > 0 && (
        <details>
          <summary className="min-h-6 cursor-pointer leading-6 text-soft">and {more.length} more</summary>
          {more.map((hand) => (
            <HandRow key={hand.id} hand={hand} beside={beside} />
          ))}
        </details>
      )}
    </div>
  );
}
