import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ChevronDown, ChevronRight, GripVertical } from 'lucide-react';
import type { CSSProperties } from 'react';
import type { AssessedLimit, AssessedLine } from '../../core/formula/answer';
import type { Amount, Line } from '../../core/formula/types';
import { writeAmount } from '../../core/quantities/amount';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { grams, percent, VERDICT_WORDS } from '../../ui/words';
import { AmountField } from './AmountField';
import { useTable } from './context';
import { changeLine } from './edits';
import { LineDetails } from './LineDetails';
import {
  againstLimit,
  asMultiples,
  faultOfLine,
  governingLimit,
  othersShare,
  sourceOf,
  subjectName,
} from './view';

/** Largest loads are put in rounded down to this many decimals, so that rounding never lifts them over. */
const LARGEST_DECIMALS = 2;

/** The largest load in the line's unit, rounded down; null where nothing binds. */
function roundedLargest(assessed: AssessedLine): Amount | null {
  if (!assessed.maxInUnit) return null;
  const step = 10 ** LARGEST_DECIMALS;
  return { value: Math.floor(assessed.maxInUnit.value * step) / step, unit: assessed.maxInUnit.unit };
}

/** A row that can be dragged by its handle. */
function useDrag(line: Line) {
  const { setNodeRef, transform, transition, isDragging, attributes, listeners } = useSortable({
    id: line.id,
  });
  const style: CSSProperties = {
    transform: CSS.Translate.toString(transform),
    transition,
    ...(isDragging ? { position: 'relative', zIndex: 2, background: 'var(--color-tint)' } : {}),
  };
  return { setNodeRef, style, handle: { ...attributes, ...listeners } };
}

function Name({ line, handle }: { line: Line; handle: object }) {
  const { materialName, isOpen, toggle } = useTable();
  const open = isOpen(line.id);
  const Mark = open ? ChevronDown : ChevronRight;
  return (
    <div className="flex items-start">
      <button
        type="button"
        {...handle}
        className="drag-handle"
        aria-label={`Move ${materialName(line.material)}`}
        aria-roledescription="line that can be moved"
      >
        <GripVertical size={14} aria-hidden="true" />
      </button>
      <button
        type="button"
        className="flex cursor-pointer items-start gap-0.5 text-left leading-tight font-medium"
        aria-expanded={open}
        aria-label={`Details of ${materialName(line.material)}`}
        onClick={() => toggle(line.id)}
      >
        <Mark size={15} aria-hidden="true" className="mt-0.5 shrink-0 text-soft" />
        {materialName(line.material)}
      </button>
    </div>
  );
}

function LineAmount({ line }: { line: Line }) {
  const { formula, errors, materialName, change, setUnread } = useTable();
  return (
    <AmountField
      label={`Amount of ${materialName(line.material)}`}
      amount={line.amount}
      fault={faultOfLine(errors, formula, line.id)}
      onChange={(amount) => change(changeLine(formula, line.id, { amount }), `amount ${line.id}`)}
      onFault={(message) => setUnread(`amount ${line.id}`, message)}
    />
  );
}

function Masses({ assessed }: { assessed: AssessedLine }) {
  return (
    <p className="font-narrow text-[0.9rem] leading-tight text-soft tabular-nums">
      {grams(assessed.massG)} · {percent(assessed.pctCured)} cured
      <br />
      {percent(assessed.pctFats)} fats
    </p>
  );
}

function Room({
  line,
  assessed,
  limit,
}: {
  line: Line;
  assessed: AssessedLine;
  limit: AssessedLimit | null;
}) {
  const { formula, change } = useTable();
  const largest = roundedLargest(assessed);
  if (!largest || assessed.maxG === null) {
    return <span className="text-soft">{limit ? 'advice only' : 'no limit on file'}</span>;
  }
  const roomG = assessed.maxG - assessed.massG;
  return (
    <div className="leading-tight">
      <p className="tabular-nums">{roomG >= 0 ? `room ${grams(roomG)}` : `past by ${grams(-roomG)}`}</p>
      <button
        type="button"
        className="cursor-pointer text-left text-ultra underline underline-offset-2"
        onClick={() =>
          change(changeLine(formula, line.id, { amount: largest }), `largest ${line.id} ${Date.now()}`)
        }
      >
        Set to {writeAmount(largest)}
      </button>
    </div>
  );
}

function Against({ line, limit, unproven }: { line: Line; limit: AssessedLimit | null; unproven: boolean }) {
  const { formula, materialName } = useTable();
  const verdict = unproven && limit?.verdict !== 'over' ? 'unproven' : limit?.verdict;
  if (!verdict) return null;
  const said = limit
    ? `${subjectName(limit, materialName)}: ${againstLimit(limit)}`
    : 'No certificate on file';
  return (
    <>
      <p className="load-verdict">
        <VerdictMark verdict={verdict} size={13} />
        {VERDICT_WORDS[verdict]}
        {limit?.portion && ` in portion ${limit.portion}`}
      </p>
      <div className="load-track">
        <Straightedge
          load={unproven || !limit ? undefined : asMultiples(limit)}
          othersShare={limit ? othersShare(limit, line.id) : 0}
          margin={(formula.marginPct ?? 10) / 100}
          label={`${said}. ${VERDICT_WORDS[verdict]}.`}
        />
      </div>
      <div className="load-against">
        <p>{said}</p>
        {limit && (
          <p className="truncate text-soft" title={sourceOf(limit)}>
            {sourceOf(limit)}
          </p>
        )}
      </div>
    </>
  );
}

/** A line held against its limits: amount, masses, the straightedge and the room left. */
export function LoadRow({ line }: { line: Line }) {
  const { setNodeRef, style, handle } = useDrag(line);
  const { assessment, isOpen } = useTable();
  const assessed = assessment.lines.find(({ id }) => id === line.id)!;
  const limit = governingLimit(assessment, line.id);
  const unproven = assessment.unproven.some((entry) => entry.line === line.id);
  const chain = assessment.explanations?.find(
    (entry) => limit !== null && entry.id === limit.id && entry.markets.includes(limit.market),
  );
  return (
    <li className="load-row" ref={setNodeRef} style={style}>
      <div className="pt-1.5">
        <Name line={line} handle={handle} />
      </div>
      <div className="pt-1.5">
        <LineAmount line={line} />
      </div>
      <div className="pt-1.5">
        <Masses assessed={assessed} />
      </div>
      <Against line={line} limit={limit} unproven={unproven} />
      <div className="load-room">
        <Room line={line} assessed={assessed} limit={limit} />
      </div>
      {isOpen(line.id) && <LineDetails line={line} chain={chain} />}
    </li>
  );
}

/** A line that makes the batter. */
export function BaseRow({ line }: { line: Line }) {
  const { setNodeRef, style, handle } = useDrag(line);
  const { assessment, isOpen } = useTable();
  const assessed = assessment.lines.find(({ id }) => id === line.id)!;
  return (
    <li className="base-row" ref={setNodeRef} style={style}>
      <Name line={line} handle={handle} />
      <LineAmount line={line} />
      <span className="text-right font-narrow text-soft tabular-nums">{grams(assessed.massG)}</span>
      {isOpen(line.id) && <LineDetails line={line} />}
    </li>
  );
}
