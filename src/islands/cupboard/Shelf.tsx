import type { CupboardRow } from '../../core/records/cupboard';
import { RecordTable, type Column } from '../../ui/RecordTable';
import { ONE_OF_KIND_WORDS, stock } from '../../ui/words';

interface Props {
  rows: readonly CupboardRow[];
  chosen: string | null;
  onChoose: (id: string) => void;
}

const kindOf = ({ kind }: CupboardRow) => (kind === 'mix' ? 'Mix' : ONE_OF_KIND_WORDS[kind]);
const fromOf = ({ supplier }: CupboardRow) => supplier ?? 'own';

const COLUMNS: readonly Column<CupboardRow>[] = [
  { id: 'name', header: 'Name', cell: ({ name }) => name, sort: ({ name }) => name },
  { id: 'kind', header: 'Kind', cell: kindOf, sort: kindOf, className: 'text-soft max-md:hidden' },
  { id: 'from', header: 'From', cell: fromOf, sort: fromOf, className: 'text-soft max-md:hidden' },
  {
    id: 'stock',
    header: 'In stock',
    cell: ({ stockG }) => (stockG === undefined ? '' : stock(stockG)),
    sort: ({ stockG }) => stockG ?? 0,
    isNumber: true,
  },
  {
    id: 'bars',
    header: 'Bars',
    cell: ({ usedIn }) => usedIn || '',
    sort: ({ usedIn }) => usedIn,
    isNumber: true,
    className: 'max-md:hidden',
  },
  {
    id: 'signs',
    header: 'To mind',
    cell: ({ signs }) =>
      signs && <span className={signs.isGrave ? 'font-medium' : 'text-soft'}>{signs.words.join(', ')}</span>,
    sort: ({ signs }) => -(signs?.words.length ?? 0),
  },
];

/** Materials in rows, sorted by their heads and stepped through by the arrows. */
export function Shelf({ rows, chosen, onChoose }: Props) {
  if (rows.length === 0) return <p className="py-2 text-soft">Nothing by that name in the cupboard.</p>;
  return (
    <RecordTable
      label="Materials in the cupboard"
      rows={rows}
      columns={COLUMNS}
      keyOf={({ id }) => id}
      window="shelf"
      chosen={chosen}
      onChoose={({ id }) => onChoose(id)}
    />
  );
}
