import { Columns2, Printer, Soup, Tag } from 'lucide-react';
import { memo } from 'react';
import type { Formula } from '../../core/formula/types';
import type { History } from '../../ui/history';
import { UndoButtons } from '../../ui/UndoButtons';
import { useTable } from './context';

interface ToolsProps {
  history: History<Formula>;
  dispatch: (action: { type: 'undo' | 'redo' }) => void;
}

/** The bar's other screens. */
const Links = memo(function Links({ id }: { id: string }) {
  return (
    <>
      <a className="action" href={`/pour?product=${encodeURIComponent(id)}`}>
        <Soup size={16} aria-hidden="true" /> Pour
      </a>
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
});

/** Undo, and the bar's other screens. */
export function Tools({ history, dispatch }: ToolsProps) {
  return (
    <>
      <UndoButtons history={history} dispatch={dispatch} />
      <Links id={useTable().data.product.id} />
    </>
  );
}
