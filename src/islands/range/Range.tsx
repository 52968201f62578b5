import Papa from 'papaparse';
import { useDeferredValue, useMemo, useState } from 'react';
import { EVERYTHING, groupName, lookedAt, rangeTable } from '../../core/range/arrange';
import type { RangeData, RangeLook, RangeRow } from '../../core/records/range';
import { download } from '../../ui/download';
import { guarded } from '../../ui/Guarded';
import { RecordTable } from '../../ui/RecordTable';
import { Actions } from './Actions';
import { Begin } from './Begin';
import { rangeColumns } from './columns';
import { useRange, type Range } from './data';
import { HeadroomMap } from './HeadroomMap';
import { Look } from './Look';
import rangeStyles from './range.module.css';

/** Beyond so many rows the table scrolls by itself and draws only those in sight. */
const MANY = 60;
const ROW_PX = 58;

interface Props {
  first: RangeData;
  today: string;
}

function Nothing({ count, look }: { count: number; look: RangeLook }) {
  if (count === 0) return <Begin />;
  if (look.show === 'away' && look.find === '') return <p className="mt-4">Nothing is put away.</p>;
  return <p className="mt-4">No bar answers to that.</p>;
}

function Count({ range, shown }: { range: Range; shown: readonly RangeRow[] }) {
  const { count, pending, rows } = range;
  const isWhole = rows.length >= count;
  const writeCsv = () =>
    download(
      new Blob([Papa.unparse(rangeTable(shown, range.needsOf, range.startBy), { escapeFormulae: true })], {
        type: 'text/csv',
      }),
      'range.csv',
    );
  return (
    <p className="flex flex-wrap items-baseline gap-x-4 py-1 text-soft" aria-live="polite">
      <span>
        {shown.length} of {count} {count === 1 ? 'bar' : 'bars'}
        {!isWhole && ', the others are coming'}
        {pending > 0 && `, ${pending} being reckoned`}
      </span>
      <button type="button" className="action py-0" disabled={shown.length === 0} onClick={writeCsv}>
        As CSV
      </button>
    </p>
  );
}

function RangeIsland({ first, today }: Props) {
  const range = useRange(first, today);
  const [look, setLook] = useState<RangeLook>(EVERYTHING);
  const [only, setOnly] = useState<ReadonlySet<string> | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [keys, setKeys] = useState<ReadonlySet<string>>(new Set());
  const wanted = useDeferredValue(look);
  const found = useMemo(() => lookedAt(range.rows, wanted, range.needsOf), [range, wanted]);
  const shown = useMemo(() => (only ? found.filter(({ id }) => only.has(id)) : found), [found, only]);
  const columns = useMemo(() => rangeColumns({ ...range, today }), [range, today]);
  const picked = useMemo(() => range.rows.filter(({ id }) => keys.has(id)), [range.rows, keys]);
  const { group } = wanted;
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-3">
        <Look
          look={look}
          onLook={(next) => {
            setOnly(null);
            setLook(next);
          }}
        />
        <HeadroomMap rows={found} onPick={setOnly} />
      </div>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <Count range={range} shown={shown} />
        {only && (
          <button type="button" className="action py-0" onClick={() => setOnly(null)}>
            Show all bars
          </button>
        )}
      </div>
      {shown.length === 0 ? (
        <Nothing count={range.count} look={look} />
      ) : (
        <RecordTable
          label="Bars"
          rows={shown}
          columns={columns}
          keyOf={({ id }) => id}
          window={shown.length > MANY ? rangeStyles.rangeWindow : undefined}
          chosen={chosen}
          onChoose={({ id }) => setChosen(id)}
          groupOf={group === 'none' ? undefined : (row) => groupName(row, group)}
          picks={{ keys, onPick: setKeys }}
          rowPx={ROW_PX}
        />
      )}
      <Actions picked={picked} today={today} />
    </>
  );
}

export const RangeDesk = guarded('The range', RangeIsland);
