import type { BatchSummary } from '../../core/records/batch';
import { guarded } from '../../ui/Guarded';
import { RecordTable, type Column } from '../../ui/RecordTable';
import { dayAt } from '../../ui/words';
import { stateWords } from '../../ui/batch-words';

const placeOf = ({ id, state }: BatchSummary) => (state === 'pouring' ? `/pour/${id}` : `/pour/${id}/record`);

/** Where hands at the bench go on with a batch: to the pot, the cut, or the scale. */
function benchPlaceOf({ id, state }: BatchSummary): string {
  if (state === 'pouring') return `/pour/${id}`;
  return state === 'poured' ? `/rack/${id}/cut` : `/rack/${id}/weigh`;
}

const columns = (place: (row: BatchSummary) => string): readonly Column<BatchSummary>[] => [
  {
    id: 'code',
    header: 'Batch',
    cell: (row) => (
      <a className="text-ultra underline" href={place(row)}>
        {row.code}
      </a>
    ),
    sort: ({ code }) => code,
  },
  {
    id: 'bar',
    header: 'Bar',
    cell: ({ productName }) => productName,
    sort: ({ productName }) => productName,
  },
  {
    id: 'day',
    header: 'Begun',
    cell: ({ startedAt }) => dayAt(startedAt),
    sort: ({ startedAt }) => startedAt,
  },
  { id: 'state', header: 'Stands', cell: stateWords, sort: stateWords },
  {
    id: 'bars',
    header: 'Bars left',
    cell: ({ bars, cutAt }) => (cutAt === null ? '' : `${bars.left} of ${bars.good}`),
    sort: ({ bars }) => bars.left,
    isNumber: true,
  },
  {
    id: 'by',
    header: 'Poured by',
    cell: ({ startedBy }) => startedBy ?? '',
    sort: ({ startedBy }) => startedBy ?? '',
    className: 'text-soft max-md:hidden',
  },
];

const COLUMNS = columns(placeOf);
const BENCH_COLUMNS = columns(benchPlaceOf);

interface Props {
  batches: readonly BatchSummary[];
  isBenchDevice: boolean;
  /** All that was asked for; a part of a longer list stands in its own order alone. */
  isWhole: boolean;
  /** Nothing was looked for. */
  isAll: boolean;
}

function BatchListIsland({ batches, isBenchDevice, isWhole, isAll }: Props) {
  const columns = isBenchDevice ? BENCH_COLUMNS : COLUMNS;
  const shown = isWhole ? columns : columns.map(({ sort: _all, ...column }) => column);
  if (batches.length === 0 && !isAll) return <p className="text-soft">No batch is found so.</p>;
  if (batches.length === 0)
    return (
      <p className="text-soft">
        Nothing is poured yet. Choose a bar and a size: the run sheet then goes with you to the scale, one
        step at a time.
      </p>
    );
  return <RecordTable label="Batches" rows={batches} columns={shown} keyOf={({ id }) => id} />;
}

export const BatchList = guarded('The batches', BatchListIsland);
