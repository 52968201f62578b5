import { useRef, useState, type KeyboardEvent } from 'react';
import {
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import type { NextBar, NextData, PlannedPour } from '../../core/records/next';
import { dayAfter, daysBetween } from '../../core/quantities/day';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { guarded } from '../../ui/Guarded';
import { fromPage } from '../../ui/page-data';
import { dayInWords, grams, VERDICT_WORDS } from '../../ui/words';
import { SixWeeksPlan } from './SixWeeks';
import { Tonight } from './Tonight';
import { WantedForm } from './WantedForm';
import rackStyles from './rack.module.css';

/** Days that the line shows. */
const LINE_DAYS = 112;
/** Marks closer than this leave no room for a word between them. */
const CLOSE_DAYS = 18;

export type Plans = Pick<NextData, 'wanted' | 'planned' | 'evenings' | 'room'>;

const STALE = {
  path: '',
  message: 'Another window changed the plan meanwhile; that one is shown. Do yours again.',
};

/** What is planned, kept one request at a time: keys held down move a pour far faster than any of them is answered. */
function useNext(first: NextData) {
  const [data, setData] = useState(first);
  const [faults, setFaults] = useState<Fault[]>([]);
  const revision = useRef(first.revision);
  const waiting = useRef<Plans | null>(null);
  const isSending = useRef(false);
  const sendAll = async () => {
    isSending.current = true;
    while (waiting.current) {
      const plans = waiting.current;
      waiting.current = null;
      const answer = await send<NextData>('PUT', address('next'), { revision: revision.current, ...plans });
      setFaults(answer.ok ? (answer.status === 409 ? [STALE] : []) : answer.faults);
      if (!answer.ok) break;
      revision.current = answer.body.revision;
      if (answer.status === 409) waiting.current = null;
      if (!waiting.current) {
        shown.current = answer.body;
        setData(answer.body);
      }
    }
    isSending.current = false;
  };
  const shown = useRef<Plans>(first);
  const keep = (part: Partial<Plans>) => {
    const { wanted, planned, evenings, room } = { ...shown.current, ...part };
    shown.current = { wanted, planned, evenings, room };
    setData((old) => ({ ...old, ...shown.current }));
    waiting.current = shown.current;
    if (!isSending.current) void sendAll();
  };
  return { data, faults, keep };
}

const placeOf = (today: string, day: string) =>
  `${(100 * Math.min(LINE_DAYS, Math.max(0, daysBetween(today, day)))) / LINE_DAYS}%`;

function Pour({
  pour,
  today,
  onMove,
  onRemove,
}: {
  pour: PlannedPour;
  today: string;
  onMove: (days: number) => void;
  onRemove: () => void;
}) {
  const { setNodeRef, listeners, attributes, transform } = useDraggable({ id: pour.id });
  const onKey = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key];
    if (step !== undefined) {
      event.preventDefault();
      onMove(step);
    } else if (event.key === 'Delete') onRemove();
  };
  const shift = transform ? `translateX(${transform.x}px)` : undefined;
  return (
    <button
      ref={setNodeRef}
      type="button"
      className={rackStyles.nextPour}
      style={{ left: placeOf(today, pour.day), transform: shift }}
      {...attributes}
      {...listeners}
      onKeyDown={onKey}
      aria-label={`Pour of ${pour.bars} bars on ${dayInWords(pour.day)}; arrow keys move it by a day, Delete takes it away`}
    >
      {pour.bars}
    </button>
  );
}

function Marks({ bar, today }: { bar: NextBar; today: string }) {
  const { endsOn, endsEarlyOn, startBy } = bar.next;
  const from = startBy !== null && startBy < today ? today : startBy;
  // Words beside each other would lie one on the other; the sentence below says both.
  const isClose = from !== null && endsOn !== null && Math.abs(daysBetween(from, endsOn)) < CLOSE_DAYS;
  return (
    <>
      {endsOn && endsEarlyOn && (
        <span
          className={rackStyles.nextDoubt}
          style={{ left: placeOf(today, endsEarlyOn), right: `calc(100% - ${placeOf(today, endsOn)})` }}
        />
      )}
      {bar.curing.map((batch) => (
        <span
          key={batch.batch}
          className={rackStyles.nextReady}
          style={{ left: placeOf(today, batch.readyOn) }}
          title={`${batch.code}: ${batch.bars} bars`}
        >
          +{batch.bars}
        </span>
      ))}
      {startBy && (
        <span className={rackStyles.nextStart} style={{ left: placeOf(today, startBy) }}>
          <span className={rackStyles.nextSays}>pour by</span>
        </span>
      )}
      {endsOn && (
        <span className={rackStyles.nextEnd} style={{ left: placeOf(today, endsOn) }}>
          {!isClose && <span className={rackStyles.nextSays}>ends</span>}
        </span>
      )}
    </>
  );
}

function paceWords({ pace }: NextBar): string {
  if (!pace.perWeek) return 'nothing sold yet';
  const { low, likely, high } = pace.perWeek;
  return `${likely.toFixed(1)} a week (${low.toFixed(1)} to ${high.toFixed(1)})`;
}

function nextWords({ next, missing, ready, curing }: NextBar, today: string): string {
  const stock = `${ready} ready, ${curing.reduce((sum, { bars }) => sum + bars, 0)} curing`;
  if (!next.startBy) return `${stock}.`;
  const late = next.startBy < today;
  const start = late
    ? `should have been poured by ${dayInWords(next.startBy)}`
    : `pour by ${dayInWords(next.startBy)}`;
  const order = missing.length > 0 ? '; order first what is missing' : '; all for it is there';
  return `${stock}; ${start}: ${next.why}${order}.`;
}

interface RowProps {
  bar: NextBar;
  data: NextData;
  keep: (plans: Partial<Plans>) => void;
}

function Line({ bar, data, keep }: RowProps) {
  const track = useRef<HTMLDivElement>(null);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { keyboardCodes: { start: [], cancel: [], end: [] } }),
  );
  const { today, planned } = data;
  const move = (id: string, days: number) => {
    if (days === 0) return;
    const moved = (pour: PlannedPour) => {
      const day = dayAfter(pour.day, days);
      return { ...pour, day: day < today ? today : day };
    };
    keep({ planned: planned.map((pour) => (pour.id === id ? moved(pour) : pour)) });
  };
  return (
    <DndContext
      sensors={sensors}
      onDragEnd={({ active, delta }) => {
        const width = track.current?.clientWidth ?? 1;
        move(String(active.id), Math.round((delta.x / width) * LINE_DAYS));
      }}
    >
      <div ref={track} className={rackStyles.nextLine}>
        <Marks bar={bar} today={today} />
        {planned
          .filter(({ product }) => product === bar.id)
          .map((pour) => (
            <Pour
              key={pour.id}
              pour={pour}
              today={today}
              onMove={(days) => move(pour.id, days)}
              onRemove={() => keep({ planned: planned.filter(({ id }) => id !== pour.id) })}
            />
          ))}
      </div>
    </DndContext>
  );
}

function Row({ bar, data, keep }: RowProps) {
  const { today, planned } = data;
  const plan = () => {
    const day = bar.next.startBy && bar.next.startBy > today ? bar.next.startBy : today;
    const pour = { id: crypto.randomUUID(), product: bar.id, day, bars: bar.barsAPour ?? 12 };
    keep({ planned: [...planned, pour] });
  };
  return (
    <li className={rackStyles.nextRow}>
      <div className="leading-tight">
        <a className="font-medium text-ultra underline" href={`/bars/${bar.id}`}>
          {bar.name}
        </a>
        <span className="block font-narrow text-soft">{paceWords(bar)}</span>
      </div>
      <Line bar={bar} data={data} keep={keep} />
      <div className="flex flex-col items-stretch gap-1 text-center">
        <button type="button" className="action py-0" onClick={plan}>
          Plan a pour
        </button>
        <a className="text-ultra underline" href={`/pour?product=${encodeURIComponent(bar.id)}`}>
          Pour it now
        </a>
      </div>
      <p className={rackStyles.nextWords}>
        {nextWords(bar, today)}
        {bar.missing.length > 0 && (
          <span className="text-soft">
            {' '}
            Missing for one pour:{' '}
            {bar.missing
              .map(({ name, neededG, freeG }) => `${name} ${grams(Math.max(0, neededG - freeG))}`)
              .join(', ')}
            {bar.next.startBy &&
              `; have it by ${dayInWords(bar.next.startBy < today ? today : bar.next.startBy)}`}
            .
          </span>
        )}
      </p>
    </li>
  );
}

function Days({ today }: { today: string }) {
  const weeks = Array.from({ length: LINE_DAYS / 14 + 1 }, (_, at) => at * 14);
  return (
    <div className={rackStyles.nextRow} aria-hidden="true">
      <span />
      <div className={rackStyles.railDays}>
        {weeks.map((days) => (
          <span key={days} style={{ left: `${(100 * days) / LINE_DAYS}%` }}>
            {dayInWords(dayAfter(today, days)).replace(/ \d{4}$/, '')}
          </span>
        ))}
      </div>
      <span />
    </div>
  );
}

/** What to pour next: pace, stock and what is wanted, on a line of days on which pours are planned. */
function NextDeskIsland({ first }: { first: NextData }) {
  const { data, faults, keep } = useNext(first);
  const there = data.bars.filter(({ missing, barsAPour }) => missing.length === 0 && barsAPour !== null);
  // What is over a limit or without its certificate is told as such, not offered.
  const isShut = ({ verdict }: NextBar) => verdict === null || verdict === 'over' || verdict === 'unproven';
  const today = there.filter((bar) => !isShut(bar));
  const shut = there.filter(isShut);
  if (data.bars.length === 0)
    return <p className="text-soft">There is no bar yet. Make one on the range first.</p>;
  return (
    <div className="grid gap-4">
      <Tonight data={data} />
      <SixWeeksPlan data={data} keep={keep} />
      <p>
        {today.length > 0
          ? `Can be poured today from what is there: ${today.map(({ name }) => name).join(', ')}.`
          : 'Nothing can be poured today from what is there.'}{' '}
        {shut.length > 0 &&
          `All is there, but not to be sold as it stands: ${shut.map(({ name, verdict }) => `${name} (${verdict === null ? 'does not reckon' : VERDICT_WORDS[verdict].toLowerCase()})`).join(', ')}.`}{' '}
        <span className="text-soft">
          A pour is due {data.cureDays} days before its stock ends; hatched: where it may end at a faster
          pace.
        </span>{' '}
        {data.sure.wider > 1 && (
          <>
            Of {data.sure.of} times four weeks that were foretold, what sold lay within the range in{' '}
            {data.sure.within}: the pace is made {data.sure.wider.toFixed(1)} times as wide.{' '}
          </>
        )}
        <a className="text-ultra underline" href="/rack/sure">
          How sure are we
        </a>
      </p>
      <Faults faults={faults} />
      <section aria-label="Bars">
        <Days today={data.today} />
        <ul>
          {data.bars.map((bar) => (
            <Row key={bar.id} bar={bar} data={data} keep={keep} />
          ))}
        </ul>
      </section>
      <WantedForm data={data} keep={keep} />
    </div>
  );
}

export const NextDesk = guarded('What to pour next', fromPage(NextDeskIsland));
