import { useMemo } from 'react';
import type { CupboardEntry } from '../../core/records/cupboard';
import { RecordTable, type Column } from '../../ui/RecordTable';
import { ONE_OF_KIND_WORDS, stock } from '../../ui/words';
import { signsOf, stockOf, type Minding } from './standing';

interface Props {
  entries: readonly CupboardEntry[];
  minding: Minding;
  chosen: string | null;
  onChoose: (id: string) => void;
}

const kindOf = ({ mix, material }: CupboardEntry) => (mix ? 'Mix' : ONE_OF_KIND_WORDS[material.kind]);

function shelfColumns(minding: Minding): Column<CupboardEntry>[] {
  return [
    {
      id: 'name',
      header: 'Name',
      cell: ({ material }) => material.name,
      sort: ({ material }) => material.name,
    },
    { id: 'kind', header: 'Kind', cell: kindOf, sort: kindOf, className: 'text-soft max-md:hidden' },
    {
      id: 'from',
      header: 'From',
      cell: ({ supplier }) => supplier ?? 'own',
      sort: ({ supplier }) => supplier ?? 'own',
      className: 'text-soft max-md:hidden',
    },
    {
      id: 'stock',
      header: 'In stock',
      cell: ({ lots }) => (lots.length > 0 ? stock(stockOf(lots)) : ''),
      sort: ({ lots }) => stockOf(lots),
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
      cell: (entry) => {
        const signs = signsOf(entry, minding);
        const weight = signs.some(({ grave }) => grave) ? 'font-medium' : 'text-soft';
        return <span className={weight}>{signs.map(({ short }) => short).join(', ')}</span>;
      },
      sort: (entry) => -signsOf(entry, minding).length,
    },
  ];
}

/** Materials in rows, sorted by their heads and stepped through by the arrows. */
export function Shelf({ entries, minding, chosen, onChoose }: Props) {
  const columns = useMemo(() => shelfColumns(minding), [minding]);
  if (entries.length === 0) return <p className="py-2 text-soft">Nothing by that name in the cupboard.</p>;
  return (
    <RecordTable
      label="Materials in the cupboard"
      rows={entries}
      columns={columns}
      keyOf={({ material }) => material.id}
      window="shelf"
      chosen={chosen}
      onChoose={({ material }) => onChoose(material.id)}
    />
  );
}
