import { Redo2, Undo2 } from 'lucide-react';
import type { History } from './history';

interface Props {
  history: History<unknown>;
  dispatch: (action: { type: 'undo' | 'redo' }) => void;
}

/** Undo and redo, each dead where there is nothing to take back or to bring back. */
export function UndoButtons({ history, dispatch }: Props) {
  return (
    <>
      <button
        type="button"
        className="action"
        disabled={history.past.length === 0}
        onClick={() => dispatch({ type: 'undo' })}
      >
        <Undo2 size={16} aria-hidden="true" /> Undo
      </button>
      <button
        type="button"
        className="action"
        disabled={history.future.length === 0}
        onClick={() => dispatch({ type: 'redo' })}
      >
        <Redo2 size={16} aria-hidden="true" /> Redo
      </button>
    </>
  );
}
