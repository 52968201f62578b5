import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { useMemo } from 'react';
import { STAGES, type Line, type Stage } from '../../core/formula/types';
import { STAGE_WORDS } from '../../ui/words';
import { useLatest } from '../../ui/latest';
import { useTable } from './context';
import { placeLine } from './edits';
import { BaseRow, LoadRow } from './LineRow';
import linesStyles from './lines.module.css';

const BASE_STAGES: readonly Stage[] = ['fats', 'liquid', 'heldBack'];
export const LOAD_STAGES = STAGES.filter((stage) => !BASE_STAGES.includes(stage));

/** Lines that have been reckoned; one just added may be a moment behind. */
function useLinesOf(stages: readonly Stage[]): Line[] {
  const { formula, assessment } = useTable();
  const known = new Set(assessment.lines.map(({ id }) => id));
  return formula.lines.filter((line) => stages.includes(line.stage) && known.has(line.id));
}

function StageList({ stage, Row }: { stage: Stage; Row: typeof LoadRow }) {
  const lines = useLinesOf([stage]);
  if (lines.length === 0) return null;
  return (
    <div>
      <h2 className={linesStyles.stageHead}>{STAGE_WORDS[stage]}</h2>
      <ul>
        {lines.map((line) => (
          <Row key={line.id} line={line} />
        ))}
      </ul>
    </div>
  );
}

/** The pointer drags once it has moved a little; a mere click opens. The same objects each time, so that rows stay. */
const BY_POINTER = { activationConstraint: { distance: 4 } };
const BY_KEYS = { coordinateGetter: sortableKeyboardCoordinates };

/** What is said while a line is dragged, and where it goes in the end; on whatever lies on the table by then. */
function useDragging() {
  const latest = useLatest(useTable());
  return useMemo(() => {
    const lineOf = (id: string | number) => latest.current.formula.lines.find((line) => line.id === id);
    const nameOf = (id: string | number) => latest.current.materialName(lineOf(id)?.material ?? '');
    const stageOf = (id: string | number) => STAGE_WORDS[lineOf(id)?.stage ?? 'trace'];
    const announcements: Announcements = {
      onDragStart: ({ active }) => `${nameOf(active.id)} lifted.`,
      onDragOver: ({ active, over }) =>
        over ? `${nameOf(active.id)} over ${nameOf(over.id)}, ${stageOf(over.id)}.` : undefined,
      onDragEnd: ({ active, over }) =>
        over ? `${nameOf(active.id)} put down, ${stageOf(over.id)}.` : `${nameOf(active.id)} put back.`,
      onDragCancel: ({ active }) => `${nameOf(active.id)} put back.`,
    };
    const onDragEnd = ({ active, over }: DragEndEvent) => {
      if (over && over.id !== active.id)
        latest.current.change(
          (now) => placeLine(now, String(active.id), String(over.id)),
          `place ${active.id}`,
        );
    };
    return { onDragEnd, accessibility: { announcements, screenReaderInstructions: INSTRUCTIONS } };
  }, [latest]);
}

const INSTRUCTIONS = {
  draggable:
    'Press space to lift this line, the arrows to move it, space to put it down, escape to leave it.',
};

interface SortableProps {
  id: string;
  stages: readonly Stage[];
  /** The same element each time, so that a keystroke draws again only what it changed. */
  children: React.ReactNode;
}

/** Lines that can be dragged among one another, by pointer or by keys (space, arrows, space). */
function Sortable({ id, stages, children }: SortableProps) {
  const lines = useLinesOf(stages);
  const order = stages.flatMap((stage) =>
    lines.filter((line) => line.stage === stage).map((line) => line.id),
  );
  const key = JSON.stringify(order);
  const list = useMemo(
    () => (
      <SortableContext items={JSON.parse(key) as string[]} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    ),
    [key, children],
  );
  const sensors = useSensors(useSensor(PointerSensor, BY_POINTER), useSensor(KeyboardSensor, BY_KEYS));
  return (
    <DndContext id={id} sensors={sensors} collisionDetection={closestCenter} {...useDragging()}>
      {list}
    </DndContext>
  );
}

const LOAD_LISTS = LOAD_STAGES.map((stage) => <StageList key={stage} stage={stage} Row={LoadRow} />);
const BATTER_LISTS = (
  <div className="grid gap-x-8 md:grid-cols-2">
    <StageList stage="fats" Row={BaseRow} />
    <div>
      <StageList stage="liquid" Row={BaseRow} />
      <StageList stage="heldBack" Row={BaseRow} />
    </div>
  </div>
);

/** Every load against its limit. */
export function Loads() {
  const hasLoads = useLinesOf(LOAD_STAGES).length > 0;
  const isAdvised = useTable().assessment.limits.some(({ force }) => force === 'craft');
  return (
    <section aria-label="Loads" className="sheet">
      <div className="load-head" aria-hidden="true">
        <span>Load</span>
        <span>Amount</span>
        <span>Weighs</span>
        <span>Against its limit, the upright rule</span>
        <span>Room left</span>
      </div>
      <Sortable id="loads" stages={LOAD_STAGES}>
        {LOAD_LISTS}
      </Sortable>
      {!hasLoads && (
        <p className="pt-1">
          Nothing added yet. Type a few letters of a clay, a scent or a colour below to add it.
        </p>
      )}
      {isAdvised && (
        <p className="pt-1 font-narrow text-[0.9rem] text-soft">
          Craft advice is the usual range among makers; it is no law.
        </p>
      )}
    </section>
  );
}

/** The fats and liquids. */
export function BatterLines() {
  return (
    <Sortable id="batter" stages={BASE_STAGES}>
      {BATTER_LISTS}
    </Sortable>
  );
}
