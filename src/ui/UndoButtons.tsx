import { Redo2, Undo2 } from 'lucide-react';
import { memo } from 'react';
import type { History } from './history';

type Dispatch = (action: { type: 'undo' | 'redo' }) => void;

const STEPS = { undo: { words: 'Undo', Icon: Undo2 }, redo: { words: 'Redo', Icon: Redo2 } };

/** One way through the steps; drawn again only where it dies or comes alive. */
const Step = memo(function Step(props: { type: 'undo' | 'redo'; isDead: boolean; dispatch: Dispatch }) {
  const { type, isDead, dispatch } = props;
  const { words, Icon } = STEPS[type];
  return (
    <button type="button" className="action" disabled={isDead} onClick={() => dispatch({ type })}>
      <Icon size={16} aria-hidden="true" /> {words}
    </button>
  );
});

/** Undo and redo, each dead where there is nothing to take back or to bring back. */
export function UndoButtons({ history, dispatch }: { history: History<unknown>; dispatch: Dispatch }) {
  return (
    <>
      <Step type="undo" isDead={history.past.length === 0} dispatch={dispatch} />
      <Step type="redo" isDead={history.future.length === 0} dispatch={dispatch} />
    </>
  );
}
