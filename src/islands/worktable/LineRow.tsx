import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ChevronDown, ChevronRight, GripVertical } from 'lucide-react';
import { memo, type CSSProperties } from 'react';
import type { AssessedLimit, AssessedLine } from '../../core/formula/answer';
import type { Amount, Line } from '../../core/formula/types';
import { writeAmount } from '../../core/quantities/amount';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { binds } from '../../core/loads/limits';
import { ADVICE_WORDS, grams, percent, VERDICT_WORDS } from '../../ui/words';
import { AmountField } from './AmountField';
import { useTable, type RowActions } from './context';
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

/** What a row shows of its line, as plain values: only a row whose values changed is drawn again. */
interface RowView {
  line: Line;
  name: string;
  open: boolean;
  fault: string | undefined;
  assessed: AssessedLine;
  limit: AssessedLimit | null;
  /** How the limit's subject is called. */
  subject: string;
  unproven: boolean;
  /** Share of a limit that the maker keeps free, 0 to 1. */
  margin: number;
}

interface RowProps {
  view: RowView;
  handle: object;
  act: RowActions;
}

const isSameRow = (one: RowProps, two: RowProps) =>
  one.act === two.act &&
  (one.handle === two.handle || JSON.stringify(one.handle) === JSON.stringify(two.handle)) &&
  JSON.stringify(one.view) === JSON.stringify(two.view);

function useRowView(line: Line): RowView {
  const { formula, assessment, errors, materialName, isOpen } = useTable();
  const limit = governingLimit(assessment, line.id);
  return {
    line,
    name: materialName(line.material),
    open: isOpen(line.id),
    fault: faultOfLine(errors, formula, line.id),
    assessed: assessment.lines.find(({ id }) => id === line.id)!,
    limit,
    subject: limit ? subjectName(limit, materialName) : '',
    unproven: assessment.unproven.some((entry) => entry.line === line.id),
    margin: (formula.marginPct ?? 10) / 100,
  };
}

function Name({ view: { line, name, open }, handle, act }: RowProps) {
  const Mark = open ? ChevronDown : ChevronRight;
  return (
    <div className="flex items-start">
      <button
        type="button"
        {...handle}
        className="drag-handle"
        aria-label={`Move ${name}`}
        aria-roledescription="line that can be moved"
      >
        <GripVertical size={14} aria-hidden="true" />
      </button>
      <button
        type="button"
        className="flex cursor-pointer items-start gap-0.5 text-left leading-tight font-medium"
        aria-expanded={open}
        aria-label={`Details of ${name}`}
        onClick={() => act.toggle(line.id)}
      >
        <Mark size={15} aria-hidden="true" className="mt-0.5 shrink-0 text-soft" />
        {name}
      </button>
    </div>
  );
}

function LineAmount({ view: { line, name, fault }, act }: Pick<RowProps, 'view' | 'act'>) {
  return (
    <AmountField
      label={`Amount of ${name}`}
      amount={line.amount}
      fault={fault}
      onChange={(amount) => act.setAmount(line.id, amount, `amount ${line.id}`)}
      onFault={(message) => act.setUnread(`amount ${line.id}`, message)}
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

function Room({ view: { line, assessed, limit }, act }: Pick<RowProps, 'view' | 'act'>) {
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
        onClick={() => act.setAmount(line.id, largest, `largest ${line.id} ${Date.now()}`)}
      >
        Set to {writeAmount(largest)}
      </button>
    </div>
  );
}

function Against({ view: { line, limit, subject, unproven, margin } }: Pick<RowProps, 'view'>) {
  const verdict = unproven && limit?.verdict !== 'over' ? 'unproven' : limit?.verdict;
  if (!verdict) return null;
  const isAdvice = limit !== null && !binds(limit.force) && verdict !== 'unproven';
  const words = (isAdvice ? ADVICE_WORDS : VERDICT_WORDS)[verdict];
  const said = limit ? `${subject}: ${againstLimit(limit)}` : 'No certificate on file';
  return (
    <>
      <p className="load-verdict">
        <VerdictMark verdict={verdict} size={13} isAdvice={isAdvice} />
        {words}
        {limit?.portion && ` in portion ${limit.portion}`}
      </p>
      <div className="load-track">
        <Straightedge
          load={unproven || !limit ? undefined : asMultiples(limit)}
          othersShare={limit ? othersShare(limit, line.id) : 0}
          margin={margin}
          isAdvice={isAdvice}
          label={`${said}. ${words}.`}
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

const LoadCells = memo(function LoadCells(props: RowProps) {
  return (
    <>
      <div className="pt-1.5">
        <Name {...props} />
      </div>
      <div className="pt-1.5">
        <LineAmount {...props} />
      </div>
      <div className="pt-1.5">
        <Masses assessed={props.view.assessed} />
      </div>
      <Against {...props} />
      <div className="load-room">
        <Room {...props} />
      </div>
    </>
  );
}, isSameRow);

/** A line held against its limits: amount, masses, the straightedge and the room left. */
export function LoadRow({ line }: { line: Line }) {
  const { setNodeRef, style, handle } = useDrag(line);
  const { assessment, act } = useTable();
  const view = useRowView(line);
  const { limit, open } = view;
  const chain = assessment.explanations?.find(
    (entry) => limit !== null && entry.id === limit.id && entry.markets.includes(limit.market),
  );
  return (
    <li className="load-row" ref={setNodeRef} style={style}>
      <LoadCells view={view} handle={handle} act={act} />
      {open && <LineDetails line={line} chain={chain} />}
    </li>
  );
}

const BaseCells = memo(function BaseCells(props: RowProps) {
  return (
    <>
      <Name {...props} />
      <LineAmount {...props} />
      <span className="text-right font-narrow text-soft tabular-nums">
        {grams(props.view.assessed.massG)}
      </span>
    </>
  );
}, isSameRow);

/** A line that makes the batter. */
export function BaseRow({ line }: { line: Line }) {
  const { setNodeRef, style, handle } = useDrag(line);
  const { act } = useTable();
  const view = useRowView(line);
  return (
    <li className="base-row" ref={setNodeRef} style={style}>
      <BaseCells view={view} handle={handle} act={act} />
      {view.open && <LineDetails line={line} />}
    </li>
  );
}
