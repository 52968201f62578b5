import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { STAGES, type Line, type Stage } from '../../core/formula/types';
import { STAGE_WORDS } from '../../ui/words';
import { useTable } from './context';
import { placeLine } from './edits';
import { BaseRow, LoadRow } from './LineRow';

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
      <h2 className="stage-head">{STAGE_WORDS[stage]}</h2>
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

/** Lines that can be dragged among one another, by pointer or by keys (space, arrows, space). */
function Sortable({
  id,
  stages,
  children,
}: {
  id: string;
  stages: readonly Stage[];
  children: React.ReactNode;
}) {
  const { formula, change, materialName } = useTable();
  const lines = useLinesOf(stages);
  const ordered = stages.flatMap((stage) => lines.filter((line) => line.stage === stage));
  const sensors = useSensors(useSensor(PointerSensor, BY_POINTER), useSensor(KeyboardSensor, BY_KEYS));
  const nameOf = (lineId: string | number) =>
    materialName(formula.lines.find((line) => line.id === lineId)?.material ?? '');
  const stageOf = (lineId: string | number) =>
    STAGE_WORDS[formula.lines.find((line) => line.id === lineId)?.stage ?? 'trace'];
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over && over.id !== active.id)
      change(placeLine(formula, String(active.id), String(over.id)), `place ${active.id}`);
  };
  return (
    <DndContext
      id={id}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={onDragEnd}
      accessibility={{
        screenReaderInstructions: {
          draggable:
            'Press space to lift this line, the arrows to move it, space to put it down, escape to leave it.',
        },
        announcements: {
          onDragStart: ({ active }) => `${nameOf(active.id)} lifted.`,
          onDragOver: ({ active, over }) =>
            over ? `${nameOf(active.id)} over ${nameOf(over.id)}, ${stageOf(over.id)}.` : undefined,
          onDragEnd: ({ active, over }) =>
            over ? `${nameOf(active.id)} put down, ${stageOf(over.id)}.` : `${nameOf(active.id)} put back.`,
          onDragCancel: ({ active }) => `${nameOf(active.id)} put back.`,
        },
      }}
    >
      <SortableContext items={ordered.map((line) => line.id)} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  );
}

/** Every load against its limit. */
export function Loads() {
  const hasLoads = useLinesOf(LOAD_STAGES).length > 0;
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
        {LOAD_STAGES.map((stage) => (
          <StageList key={stage} stage={stage} Row={LoadRow} />
        ))}
      </Sortable>
      {!hasLoads && (
        <p className="pt-1">
          Nothing added yet. Type a few letters of a clay, a scent or a colour below to add it.
        </p>
      )}
    </section>
  );
}

/** The fats and liquids. */
export function BatterLines() {
  return (
    <Sortable id="batter" stages={BASE_STAGES}>
      <div className="grid gap-x-8 md:grid-cols-2">
        <StageList stage="fats" Row={BaseRow} />
        <div>
          <StageList stage="liquid" Row={BaseRow} />
          <StageList stage="heldBack" Row={BaseRow} />
        </div>
      </div>
    </Sortable>
  );
}
