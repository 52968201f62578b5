import { SwapLine } from './SwapLine';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ChevronDown, ChevronRight, GripVertical, ArrowLeftRight } from 'lucide-react';
import { memo, useState, type CSSProperties } from 'react';
import { isScent } from '../../core/formula/scents';
import type { Amount, Line } from '../../core/formula/types';
import { writeAmount } from '../../core/quantities/amount';
import { newStep } from '../../ui/step';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { AmountField } from './AmountField';
import { useTable, type RowActions } from './context';
import { LineDetails } from './LineDetails';
import { rowView, sameView, type RowView } from './row-view';
import { governingLimit } from './view';
import linesStyles from './lines.module.css';

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

interface RowProps {
  view: RowView;
  handle: object;
  act: RowActions;
  /** Opens and closes what could stand on the line instead; the same function for as long as the row is there. */
  onSwap: (turn: (isOpen: boolean) => boolean) => void;
}

const isSameRow = (one: RowProps, two: RowProps) =>
  one.act === two.act &&
  (one.handle === two.handle || JSON.stringify(one.handle) === JSON.stringify(two.handle)) &&
  sameView(one.view, two.view);

function useRowView(line: Line): RowView {
  const { data, formula, assessment, errors, material, materialName, isOpen } = useTable();
  const of = material(line.material);
  return rowView({
    line,
    formula,
    assessment,
    errors,
    materialName,
    isScentLine: of !== undefined && isScent(of),
    open: isOpen(line.id),
    material: of ?? null,
    old: data.oldBottles[line.material] ?? null,
  });
}

/** What the outlook minds of the line, a word each with its reason. */
function Marks({ marks }: Pick<RowView, 'marks'>) {
  if (marks.length === 0) return null;
  return (
    <p className="pl-5 font-narrow text-[0.88rem] leading-tight">
      {marks.map(({ words, why, isGrave }, at) => (
        <span key={words} title={why} className={isGrave ? 'font-medium text-madder' : 'text-soft'}>
          {at > 0 && ' · '}
          {words}
          <span className="sr-only">: {why}</span>
        </span>
      ))}
    </p>
  );
}

function Name({ view: { line, name, open }, handle, act, onSwap }: RowProps) {
  const Mark = open ? ChevronDown : ChevronRight;
  return (
    <div className="flex items-start">
      <button
        type="button"
        {...handle}
        className={linesStyles.dragHandle}
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
      <button
        type="button"
        className={linesStyles.swap}
        aria-label={`Change ${name} for …`}
        title={`Change ${name} for …`}
        onClick={() => onSwap((isOpen) => !isOpen)}
      >
        <ArrowLeftRight size={14} aria-hidden="true" />
      </button>
    </div>
  );
}

function LineAmount({ view: { line, name, fault, isScentLine }, act }: Pick<RowProps, 'view' | 'act'>) {
  return (
    <AmountField
      label={`Amount of ${name}`}
      amount={line.amount}
      fault={fault}
      isScent={isScentLine}
      onChange={(amount, how) => act.setAmount(line.id, amount, `amount ${line.id}`, how)}
      onFault={(message) => act.setUnread(`amount ${line.id}`, message)}
    />
  );
}

function Masses({ masses: { mass, cured, fats } }: Pick<RowView, 'masses'>) {
  return (
    <p className="font-narrow text-[0.9rem] leading-tight text-soft tabular-nums">
      {mass} · {cured} cured
      <br />
      {fats} fats
    </p>
  );
}

interface SetToProps extends Pick<RowProps, 'act'> {
  line: Line;
  largest: Amount;
  /** What it is the most of; left out for the limits themselves. */
  of?: string;
}

function SetTo({ line, largest, of, act }: SetToProps) {
  return (
    <button
      type="button"
      className="block cursor-pointer text-left text-ultra underline underline-offset-2"
      onClick={() => act.setAmount(line.id, largest, newStep(`largest ${line.id}`))}
    >
      {largest.value === 0 ? 'Leave out, or less of what is beside it' : `Set to ${writeAmount(largest)}`}
      {of && <span className="text-soft">, {of}</span>}
    </button>
  );
}

/** The room left, and the most that is within the advice; where none speaks, the most within the limits. */
function Room({ view: { line, room }, act }: Pick<RowProps, 'view' | 'act'>) {
  const { words, largest, advised, together } = room;
  const offered = advised ?? largest;
  if (!offered) return <span className="text-soft">{words}</span>;
  return (
    <div className="leading-tight">
      <p className="tabular-nums">{words}</p>
      {together ? (
        <button
          type="button"
          className="block cursor-pointer text-left text-ultra underline underline-offset-2"
          onClick={() => act.scaleLines(together.lines, together.share, newStep('together'))}
        >
          All {together.lines.length} to {Math.round(100 * together.share)} %, advised
        </button>
      ) : (
        <SetTo line={line} largest={offered} of={advised ? 'advised' : undefined} act={act} />
      )}
    </div>
  );
}

function Against({ view: { against, margin } }: Pick<RowProps, 'view'>) {
  if (!against) return null;
  const { verdict, words, isAdvice, said, source, load, others } = against;
  return (
    <>
      <p className={linesStyles.loadVerdict}>
        <VerdictMark verdict={verdict} size={13} isAdvice={isAdvice} />
        {words}
      </p>
      <div className={linesStyles.loadTrack}>
        <Straightedge
          load={load ?? undefined}
          othersShare={others}
          margin={margin}
          isAdvice={isAdvice}
          label={`${said}. ${words}.`}
        />
      </div>
      <div className={linesStyles.loadAgainst}>
        <p>{said}</p>
        {source && (
          <p className="truncate text-soft" title={source}>
            {source}
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
        <Marks marks={props.view.marks} />
      </div>
      <div className="pt-1.5">
        <LineAmount {...props} />
      </div>
      <div className="pt-1.5">
        <Masses masses={props.view.masses} />
      </div>
      <Against {...props} />
      <div className={linesStyles.loadRoom}>
        <Room {...props} />
      </div>
    </>
  );
}, isSameRow);

interface BodyProps {
  line: Line;
  handle: object;
}

function LoadBody({ line, handle }: BodyProps) {
  const { assessment, act } = useTable();
  const [swaps, setSwaps] = useState(false);
  const view = useRowView(line);
  const { open } = view;
  const limit = open ? governingLimit(assessment, line.id) : null;
  const chain = assessment.explanations?.find(
    (entry) => limit !== null && entry.id === limit.id && entry.markets.includes(limit.market),
  );
  return (
    <>
      <LoadCells view={view} handle={handle} act={act} onSwap={setSwaps} />
      {swaps && <SwapLine line={line} onClose={() => setSwaps(false)} />}
      {open && <LineDetails line={line} chain={chain} />}
    </>
  );
}

/** A line held against its limits: amount, masses, the straightedge and the room left. */
export const LoadRow = memo(function LoadRow({ line }: { line: Line }) {
  const { setNodeRef, style, handle } = useDrag(line);
  return (
    <li data-line="load" className={linesStyles.loadRow} ref={setNodeRef} style={style}>
      <LoadBody line={line} handle={handle} />
    </li>
  );
});

const BaseCells = memo(function BaseCells(props: RowProps) {
  return (
    <>
      <div>
        <Name {...props} />
        <Marks marks={props.view.marks} />
      </div>
      <LineAmount {...props} />
      <span className="text-right font-narrow text-soft tabular-nums">{props.view.masses.mass}</span>
    </>
  );
}, isSameRow);

function BaseBody({ line, handle }: BodyProps) {
  const { act } = useTable();
  const [swaps, setSwaps] = useState(false);
  const view = useRowView(line);
  return (
    <>
      <BaseCells view={view} handle={handle} act={act} onSwap={setSwaps} />
      {swaps && <SwapLine line={line} onClose={() => setSwaps(false)} />}
      {view.open && <LineDetails line={line} />}
    </>
  );
}

/** A line that makes the batter. */
export const BaseRow = memo(function BaseRow({ line }: { line: Line }) {
  const { setNodeRef, style, handle } = useDrag(line);
  return (
    <li data-line="base" className={linesStyles.baseRow} ref={setNodeRef} style={style}>
      <BaseBody line={line} handle={handle} />
    </li>
  );
});
