/** What a row of the range shows. */
import { VERDICTS } from '../../core/formula/answer';
import { binds } from '../../core/loads/limits';
import { HAND_URGENCIES, type Hand } from '../../core/hands/hand';
import { tightestMarket } from '../../core/range/arrange';
import type { MarketStand, RangeRow } from '../../core/records/range';
import { Hands } from '../../ui/Hands';
import type { Column } from '../../ui/RecordTable';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { dayInWords, VERDICT_WORDS } from '../../ui/words';
import { againstLimit, asMultiples, inWords, sourceOf, subjectName } from '../worktable/view';
import rangeStyles from './range.module.css';

export interface RowContext {
  needsOf: (row: RangeRow) => readonly Hand[];
  startBy: (id: string) => string | null;
  today: string;
}

const LABEL_WORDS: Record<RangeRow['label'], string> = { none: 'none', same: 'issued', differs: 'differs' };

function Name({ row: { id, name, note, putAwayOn } }: { row: RangeRow }) {
  return (
    <>
      <a
        className="font-display text-[1.05rem] font-semibold underline-offset-4 hover:underline"
        id={`bar-${id}`}
        href={`/bars/${id}`}
      >
        {name}
      </a>
      {putAwayOn ? (
        <span className="text-soft"> put away</span>
      ) : (
        <a
          className="ml-2 text-ultra underline"
          aria-describedby={`bar-${id}`}
          href={`/pour?product=${encodeURIComponent(id)}`}
        >
          Pour
        </a>
      )}
      <p className="font-narrow leading-tight text-soft">{note}</p>
    </>
  );
}

function Stands({ row: { verdict, fault, isPending } }: { row: RangeRow }) {
  if (isPending) return <span className="text-soft">being reckoned</span>;
  if (!verdict) return <span className="text-madder">{fault}</span>;
  return (
    <span className="flex items-center gap-1.5 pt-0.5 whitespace-nowrap">
      <VerdictMark verdict={verdict} size={18} />
      {VERDICT_WORDS[verdict]}
    </span>
  );
}

/** The limit that makes the verdict, or has the least room; where a scent is unproven there is nothing to draw it against. */
function Closest({ row: { verdict, closest, margin } }: { row: RangeRow }) {
  if (!verdict) return null;
  const nothing = verdict === 'unproven' ? 'A scent without a certificate' : 'No limit on file';
  const limit = closest && { ...closest, contributors: [] };
  const words = limit ? `${subjectName(limit, inWords)}: ${againstLimit(limit)}` : nothing;
  return (
    <>
      <div className="mt-0.5 h-5">
        <Straightedge
          load={limit ? asMultiples(limit) : undefined}
          margin={margin}
          isAdvice={limit !== null && !binds(limit.force)}
          label={limit ? `${words}. ${sourceOf(limit)}` : words}
        />
      </div>
      <p className="font-narrow leading-tight text-soft" title={limit ? sourceOf(limit) : undefined}>
        {words}
      </p>
    </>
  );
}

const room = ({ headroomPct }: MarketStand) =>
  headroomPct === null ? '–' : `${Math.round(headroomPct)} %`.replace('-', '−');

function Markets({ row: { markets } }: { row: RangeRow }) {
  return (
    <ul className="font-narrow leading-tight">
      {markets.map((stand) => (
        <li
          key={stand.market}
          className="grid grid-cols-[1.7rem_1fr_minmax(3rem,auto)] gap-x-1"
          title={stand.boundBy ? `bound by ${stand.boundBy}` : undefined}
        >
          <span className="text-soft">{stand.market}</span>
          <span>{VERDICT_WORDS[stand.verdict]}</span>
          <span className="text-right whitespace-nowrap tabular-nums">{room(stand)}</span>
        </li>
      ))}
    </ul>
  );
}

function Bars({ row: { ready, curing, sold } }: { row: RangeRow }) {
  const parts = [
    [ready, 'ready'],
    [curing, 'curing'],
    [sold, 'sold'],
  ] as const;
  const shown = parts.filter(([count]) => count > 0);
  if (shown.length === 0) return <span className="text-soft">none</span>;
  return (
    <ul className="font-narrow leading-tight whitespace-nowrap">
      {shown.map(([count, words]) => (
        <li key={words}>
          <span className="tabular-nums">{count}</span> {words}
        </li>
      ))}
    </ul>
  );
}

const gravity = (hand: Hand | undefined) => (hand ? HAND_URGENCIES.indexOf(hand.urgency) : Infinity);

const rank = ({ verdict, isPending }: RangeRow) =>
  isPending ? VERDICTS.length + 1 : verdict ? VERDICTS.indexOf(verdict) : -1;

/** How near the limit a bar stands, for sorting: the nearest first. */
const roomOf = (row: RangeRow) => tightestMarket(row)?.headroomPct ?? Infinity;

/** The columns of the range. */
export function rangeColumns({ needsOf, startBy, today }: RowContext): Column<RangeRow>[] {
  return [
    {
      id: 'name',
      header: 'Bar',
      cell: (row) => <Name row={row} />,
      sort: ({ name }) => name,
      holdsLink: true,
      className: rangeStyles.rangeName,
    },
    { id: 'verdict', header: 'Stands', cell: (row) => <Stands row={row} />, sort: rank },
    {
      id: 'closest',
      header: 'Closest to its limit',
      cell: (row) => <Closest row={row} />,
      sort: roomOf,
      className: rangeStyles.rangeEdge,
    },
    {
      id: 'markets',
      header: 'Room by market',
      cell: (row) => <Markets row={row} />,
      className: 'max-md:hidden',
    },
    {
      id: 'bars',
      header: 'Bars',
      cell: (row) => <Bars row={row} />,
      sort: ({ ready, curing }) => ready + curing,
      className: 'max-md:hidden',
    },
    {
      id: 'label',
      header: 'Label',
      cell: ({ label }) => LABEL_WORDS[label],
      sort: ({ label }) => label,
      className: 'max-md:hidden',
    },
    {
      id: 'start',
      header: 'Pour by',
      cell: ({ id }) => {
        const day = startBy(id);
        if (!day) return '';
        return day <= today ? 'now' : dayInWords(day);
      },
      sort: ({ id }) => startBy(id) ?? '9999',
      className: 'max-md:hidden whitespace-nowrap',
    },
    {
      id: 'needs',
      header: 'Needs a hand',
      cell: (row) => <Hands hands={needsOf(row)} beside={row.name} />,
      holdsLink: true,
      className: rangeStyles.rangeNeeds,
      sort: (row) => gravity(needsOf(row)[0]),
    },
  ];
}
