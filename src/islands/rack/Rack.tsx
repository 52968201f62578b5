import { useEffect, useState } from 'react';
import { byUrgency, type RackTask, type Urgency } from '../../core/curing/rack';
import { handsOfBatch } from '../../core/hands/sources';
import type { RackBatch, RackData } from '../../core/records/rack';
import { address, send } from '../../ui/api';
import { guarded } from '../../ui/Guarded';
import { fromPage } from '../../ui/page-data';
import { Act } from '../../ui/Hands';
import { useStable } from '../../ui/latest';
import { stateWords } from '../../ui/batch-words';
import { CutHours, CutRail, Drying, RailDays } from './Drying';
import { OwnDays } from './OwnDays';
import { Notices, useNotices } from './Notices';
import { days, TASK_WORDS, URGENCY_WORDS } from './words';
import { PutOff } from './PutOff';
import rackStyles from './rack.module.css';

const URGENCY_STYLES: Record<Urgency, string | undefined> = {
  missed: rackStyles.dueMissed,
  closing: rackStyles.dueClosing,
  late: rackStyles.dueLate,
  open: rackStyles.dueOpen,
  later: '',
};

const REFRESH_MS = 60_000;

export interface Due {
  batch: RackBatch;
  task: RackTask;
}

/** What waits for hands now, most urgent first. */
export function dueOf({ batches }: RackData): Due[] {
  return batches
    .flatMap((batch) => batch.tasks.map((task) => ({ batch, task })))
    .filter(({ task }) => task.urgency !== 'later')
    .sort((a, b) => byUrgency(a.task, b.task));
}

/** The rack as it stands, read anew every minute and after every change. */
function useRack(first: RackData) {
  const [data, setData] = useState(first);
  const refresh = useStable(async () => {
    const answer = await send<RackData>('GET', address('rack'));
    if (answer.ok) setData(answer.body);
  });
  useEffect(() => {
    const timer = setInterval(() => void refresh(), REFRESH_MS);
    const seen = () => document.visibilityState === 'visible' && void refresh();
    document.addEventListener('visibilitychange', seen);
    return () => {
      clearInterval(timer);
      document.removeEventListener('visibilitychange', seen);
    };
  }, [refresh]);
  return { data, refresh, take: setData };
}

function DueRow({ due: { batch, task }, onDone }: { due: Due; onDone: () => void }) {
  const hand = handsOfBatch(batch, [task])[0]!;
  return (
    <li className={`${rackStyles.due} ${URGENCY_STYLES[task.urgency]}`}>
      <span className={rackStyles.dueMark}>{URGENCY_WORDS[task.urgency]}</span>
      <a className="font-medium text-ultra underline" href={hand.where}>
        {batch.productName} {batch.code}
      </a>
      <span>{task.words}</span>
      {task.kind === 'cut' && <PutOff batch={batch.id} onDone={onDone} />}
      {hand.act && <Act className="action ml-auto py-0" hand={hand} act={hand.act} onDone={onDone} />}
    </li>
  );
}

function Now({ data, onDone }: { data: RackData; onDone: () => void }) {
  const due = dueOf(data);
  const next = data.batches
    .flatMap((batch) => batch.tasks.map((task) => ({ batch, task })))
    .filter(({ task }) => task.urgency === 'later')
    .sort((a, b) => a.task.from.localeCompare(b.task.from))[0];
  return (
    <section aria-label="What waits for hands" className="sheet">
      <h2 className="text-lg">Now</h2>
      {due.length === 0 ? (
        <p>
          Nothing waits for hands.{' '}
          {next && `Next: ${next.batch.productName} ${next.batch.code}, ${next.task.words.toLowerCase()}`}
        </p>
      ) : (
        <ul>
          {due.map((one) => (
            <DueRow key={`${one.batch.id} ${one.task.kind} ${one.task.portion}`} due={one} onDone={onDone} />
          ))}
        </ul>
      )}
    </section>
  );
}

function standing({ drying, ageDays, state, bars, tasks }: RackBatch): string {
  if (state === 'released') return `${bars.left} of ${bars.good} bars here`;
  if (!drying) return tasks[0]?.words ?? stateWords({ state, isQuarantined: false });
  if (drying.settled) return `day ${Math.round(ageDays)}, settled`;
  const ready = drying.readyOnDay
    ? drying.readyOnDay.likely <= ageDays
      ? 'likely ready: weigh it to show it'
      : `ready about day ${Math.round(drying.readyOnDay.likely)}`
    : 'weigh it to know more';
  return `day ${Math.round(ageDays)}, ${Math.round(100 * drying.leftShare)} % still to lose, ${ready}`;
}

function Lane({ batch, minDays }: { batch: RackBatch; minDays: number }) {
  const first = batch.tasks.find(({ urgency }) => urgency !== 'later');
  return (
    <li className={rackStyles.lane}>
      <div className="leading-tight">
        <a className="font-medium text-ultra underline" href={`/rack/${batch.id}`}>
          {batch.productName}
        </a>{' '}
        <span className="whitespace-nowrap font-narrow">{batch.code}</span>
        <span className="block font-narrow text-soft">
          {batch.isQuarantined ? 'in quarantine' : standing(batch)}
        </span>
      </div>
      {batch.state === 'poured' ? <CutRail batch={batch} /> : <Drying batch={batch} minDays={minDays} />}
      <span className="font-narrow">{first ? TASK_WORDS[first.kind] : ''}</span>
    </li>
  );
}

function Shelf({
  title,
  batches,
  minDays,
  empty,
}: {
  title: string;
  batches: RackBatch[];
  minDays: number;
  empty: string;
}) {
  return (
    <section aria-label={title} className="pt-3">
      <h2 className="text-lg">
        {title} <span className="font-text text-base font-normal text-soft">{batches.length}</span>
      </h2>
      {batches.length === 0 ? (
        <p className="text-soft">{empty}</p>
      ) : (
        <>
          <div className={`${rackStyles.lane} ${rackStyles.laneHead}`}>
            <span />
            {batches[0]!.state === 'poured' ? <CutHours /> : <RailDays minDays={minDays} />}
            <span />
          </div>
          <ul>
            {batches.map((batch) => (
              <Lane key={batch.id} batch={batch} minDays={minDays} />
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function Ready({ batches }: { batches: RackBatch[] }) {
  return (
    <section aria-label="Ready" className="pt-3">
      <h2 className="text-lg">
        Ready <span className="font-text text-base font-normal text-soft">{batches.length}</span>
      </h2>
      <ul className="flex flex-wrap gap-x-8 gap-y-1">
        {batches.map(({ id, productName, code, bars, ageDays }) => (
          <li key={id}>
            <a className="text-ultra underline" href={`/rack/${id}`}>
              {productName}
            </a>{' '}
            <span className="font-narrow">{code}</span>: {bars.left} of {bars.good} bars,{' '}
            <span className="text-soft">{days(ageDays)} old</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What to do now, and every batch along its way from the pour to ready. */
function RackIsland({ first }: { first: RackData }) {
  const { data, refresh, take } = useRack(first);
  const due = dueOf(data);
  useNotices(due);
  const oldest = (a: RackBatch, b: RackBatch) => b.ageDays - a.ageDays;
  const of = (test: (batch: RackBatch) => boolean) => data.batches.filter(test).sort(oldest);
  const isReady = ({ state }: RackBatch) => state === 'released';
  const isUncut = ({ state }: RackBatch) => state === 'poured';
  if (data.batches.length === 0)
    return (
      <p className="text-soft">
        The rack is empty. What is poured on pour day stands here: when to cut it, how far it has dried and
        the day it is ready.
      </p>
    );
  return (
    <>
      <Now data={data} onDone={() => void refresh()} />
      <Notices />
      <Shelf
        title="To be cut"
        batches={of(isUncut)}
        minDays={data.days.least}
        empty="Nothing waits for the knife."
      />
      <Shelf
        title="Curing"
        batches={of((batch) => !isReady(batch) && !isUncut(batch))}
        minDays={data.days.least}
        empty="Nothing cures."
      />
      <Ready batches={of(isReady)} />
      <OwnDays data={data} onSet={take} />
    </>
  );
}

export const Rack = guarded('The rack', fromPage(RackIsland));
