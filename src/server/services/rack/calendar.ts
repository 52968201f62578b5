/** What the rack waits for as an iCalendar feed, at an address that only who was given it knows. */
import { randomBytes, timingSafeEqual } from 'node:crypto';
import { createEvents, type Alarm, type EventAttributes } from 'ics';
import type { RackTask } from '../../../core/curing/rack';
import type { RackBatch } from '../../../core/records/rack';
import { isPressing } from '../../../core/hands/hand';
import type { House } from '../../house';
import { fault } from '../../http';
import { openTasks } from '../../repositories/changes';
import { findSetting, putSetting } from '../../repositories/settings';
import { writing } from '../../store/writing';
import { lookAhead } from '../../store/ahead';
import { rackNow } from './rack';

const KEY_BYTES = 24;
const USUAL_MINUTES = 30;
const LAST_CALL_MINUTES = 60;
const MS_PER_MINUTE = 60_000;
const TITLES: Record<RackTask['kind'], string> = {
  cut: 'Cut',
  turn: 'Turn',
  weigh: 'Weigh',
  check: 'Look over',
  release: 'Release',
  decide: 'Decide on',
};

const freshKey = () => randomBytes(KEY_BYTES).toString('base64url');

/** The feed's key; made where there is none, or anew where that is asked, so that the old address says nothing more. */
export function calendarKey({ db }: House, isNew = false): Promise<string> {
  return writing(db, async (trx) => {
    const { value } = await findSetting(trx, 'calendarKey');
    if (value !== '' && !isNew) return value;
    return (await putSetting(trx, 'calendarKey', freshKey())).value;
  });
}

function isKey(given: string, key: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(key)];
  return key !== '' && a.length === b.length && timingSafeEqual(a, b);
}

type Moment = [number, number, number, number, number];

function partsOf(ms: number): Moment {
  const date = new Date(ms);
  return [
    date.getUTCFullYear(),
    date.getUTCMonth() + 1,
    date.getUTCDate(),
    date.getUTCHours(),
    date.getUTCMinutes(),
  ];
}

/** An alarm as the time comes, and for what has a last hour another before that. */
function alarmsOf({ kind, words, until }: RackTask): Alarm[] {
  const alarm = (trigger: Alarm['trigger']): Alarm => ({ action: 'display', description: words, trigger });
  const first = alarm({ minutes: 0, before: true });
  if (kind !== 'cut' || until === null) return [first];
  return [first, alarm(partsOf(Date.parse(until) - LAST_CALL_MINUTES * MS_PER_MINUTE))];
}

function eventOf({ id, productName, code }: RackBatch, task: RackTask): EventAttributes {
  const from = Date.parse(task.from);
  const until = task.until === null ? from : Date.parse(task.until);
  const end = Math.max(until, from + USUAL_MINUTES * MS_PER_MINUTE);
  const part = task.portion === null ? '' : `, ${task.portion}`;
  return {
    uid: `${id}.${task.kind}.${encodeURIComponent(task.portion ?? 'all')}@proportia`,
    title: `${TITLES[task.kind]} ${productName} ${code}${part}`,
    description: `${task.words} As makers advise.`,
    // The moment it can be done from is the one to be told of; a last hour is told before it is over.
    alarms: alarmsOf(task),
    start: partsOf(from),
    startInputType: 'utc',
    startOutputType: 'utc',
    end: partsOf(end),
    endInputType: 'utc',
    endOutputType: 'utc',
    productId: 'proportia',
    calName: 'Proportia rack',
  };
}

function dayEvent(id: string, title: string, day: string): EventAttributes {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number];
  return {
    uid: `${encodeURIComponent(id)}@proportia`,
    title,
    start: [year, month, date],
    duration: { days: 1 },
    productId: 'proportia',
    calName: 'Proportia rack',
  };
}

/** Tasks by a day, and the days on which rules change what bars in hand may hold or have to say. */
async function dayEvents(house: House): Promise<EventAttributes[]> {
  const tasks = await openTasks(house.db);
  const { rows } = await lookAhead(house);
  return [
    ...tasks.flatMap(({ id, words, dueOn }) => (dueOn ? [dayEvent(`task ${id}`, words, dueOn)] : [])),
    ...rows.filter(isPressing).map(({ id, words, on }) => dayEvent(id, words, on)),
  ];
}

const EMPTY = 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:proportia\r\nEND:VCALENDAR\r\n';

/** The feed; 404 where the key is not the one. */
export async function calendarFeed(house: House, key: string): Promise<string> {
  const { value } = await findSetting(house.db, 'calendarKey');
  if (!isKey(key, value))
    throw fault(404, 'unknown-calendar', 'There is no calendar at this address.', 'key');
  const { batches } = await rackNow(house);
  const events = [
    ...batches.flatMap((batch) => batch.tasks.map((task) => eventOf(batch, task))),
    ...(await dayEvents(house)),
  ];
  if (events.length === 0) return EMPTY;
  const { error, value: text } = createEvents(events);
  if (error || !text) throw error ?? new Error('The calendar could not be written.');
  return text;
}
