import { Columns2, Printer, Tag } from 'lucide-react';
import type { Formula } from '../../core/formula/types';
import type { History } from '../../ui/history';
import { UndoButtons } from '../../ui/UndoButtons';
import { useTable } from './context';

interface ToolsProps {
  history: History<Formula>;
  dispatch: (action: { type: 'undo' | 'redo' }) => void;
}

/** Undo, and the bar's other screens. */
export function Tools({ history, dispatch }: ToolsProps) {
  const { data } = useTable();
  const { id } = data.product;
  return (
    <>
      <UndoButtons history={history} dispatch={dispatch} />
      <a className="action" href={`/compare?left=${encodeURIComponent(id)}`}>
        <Columns2 size={16} aria-hidden="true" /> Compare
      </a>
      <a className="action" href={`/wrap/${encodeURIComponent(id)}`}>
        <Tag size={16} aria-hidden="true" /> Wrap
      </a>
      <a className="action" href={`/bars/${encodeURIComponent(id)}/sheet`}>
        <Printer size={16} aria-hidden="true" /> Sheet
      </a>
    </>
  );
}
