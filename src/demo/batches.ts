/** Twenty made-up batches over three months, in every state, written down by the same door as a maker's own. */
import type { Batch, BatchEvent, EventFields, EventType } from '../core/batch/types';
import { cureInput, lightestG, materialsIn, settledBars, usualChecks } from '../core/curing/batch-cure';
import { cure, USUAL_MIN_DAYS } from '../core/curing/cure';
import type { Lot } from '../core/making/cost';
import { standingOf } from '../core/curing/standing';
import { dayAfter, dayOf, momentOn } from '../core/quantities/day';
import type { BatchDetail } from '../core/records/batch';
import { allLots } from '../server/repositories/lots';
import type { House } from '../server/house';
import { beginBatch } from '../server/services/pour/batches';
import { addEvents } from '../server/store/batch-events';

interface DemoBatch {
  product: string;
  daysAgo: number;
  by: 'Oona' | 'Marit';
  /** How far it came. */
  to: 'weighing' | 'poured' | 'cut' | 'curing' | 'released' | 'soldOut' | 'stopped';
  /** Grams more or less than planned, by material: what went wrong at the scale. */
  off?: Record<string, number>;
  note?: string;
}

const BATCHES: readonly DemoBatch[] = [
  { product: 'first-light', daysAgo: 91, by: 'Oona', to: 'soldOut' },
  { product: 'night-mail', daysAgo: 88, by: 'Oona', to: 'soldOut' },
  { product: 'goods-yard', daysAgo: 84, by: 'Marit', to: 'released' },
  { product: 'waiting-room', daysAgo: 80, by: 'Oona', to: 'released' },
  {
    product: 'level-crossing',
    daysAgo: 76,
    by: 'Oona',
    to: 'released',
    note: 'Salted half was hard before the white one.',
  },
  { product: 'first-light', daysAgo: 70, by: 'Marit', to: 'released' },
  { product: 'ticket-office', daysAgo: 66, by: 'Oona', to: 'released' },
  {
    product: 'snow-plough',
    daysAgo: 60,
    by: 'Marit',
    to: 'released',
    off: { 'birch-syrup': 6 },
    note: 'The syrup ran; kept it cool on the step.',
  },
  { product: 'night-mail', daysAgo: 55, by: 'Oona', to: 'released' },
  { product: 'signal-red', daysAgo: 48, by: 'Oona', to: 'curing' },
  { product: 'first-light', daysAgo: 41, by: 'Oona', to: 'curing' },
  { product: 'lamp-room', daysAgo: 36, by: 'Oona', to: 'curing' },
  {
    product: 'night-mail',
    daysAgo: 30,
    by: 'Marit',
    to: 'curing',
    off: { 'coal-and-violets': 9 },
    note: 'Marit poured; the bottle gulped.',
  },
  {
    product: 'branch-line',
    daysAgo: 27,
    by: 'Marit',
    to: 'stopped',
    note: 'The lye was weighed twice; nobody was sure.',
  },
  { product: 'waiting-room', daysAgo: 21, by: 'Oona', to: 'curing' },
  { product: 'ticket-office', daysAgo: 8, by: 'Oona', to: 'curing' },
  { product: 'snow-plough', daysAgo: 3, by: 'Marit', to: 'cut' },
  { product: 'first-light', daysAgo: 1, by: 'Oona', to: 'poured' },
  { product: 'level-crossing', daysAgo: 0, by: 'Oona', to: 'poured' },
  { product: 'signal-red', daysAgo: 0, by: 'Marit', to: 'weighing' },
];

/** Loss of a bar over its cure, and how fast it comes: bars of the made-up range lose about so much. */
const LOSS = { least: 0.125, more: 0.04 } as const;
const LOSS_DAYS = { least: 6.5, more: 4 } as const;
/** Damp and dry days move a bar's weight by about so much a day. */
const WEATHER = 0.0008;
const CUT_AFTER_HOURS = 26;
const SALTED_CUT_HOURS = 3;
const RELEASED_AFTER_DAYS = 35;
const WEIGHED_ON_DAYS = [2, 6, 11, 17, 24, 31] as const;
const WEIGHED_BARS = ['1', '7', '14'] as const;

/** A small seeded generator of numbers from 0 to 1. */
function seeded(seed: number): () => number {
  let state = seed * 2654435761;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

/** Writes events with ids and times of their own. */
class Hand {
  readonly events: BatchEvent[] = [];
  private count = 0;

  constructor(
    private readonly id: string,
    private readonly startMs: number,
    private readonly by: string,
    readonly random: () => number,
  ) {}

  write<T extends EventType>(type: T, minutes: number, fields: EventFields[T]): string {
    const id = `${this.id}:${++this.count}`;
    const at = new Date(this.startMs + minutes * 60_000).toISOString();
    this.events.push({ id, type, at, by: this.by, ...fields } as unknown as BatchEvent);
    return id;
  }
}

/** The lot that would have been taken on a day. */
function lotFor(lots: Map<string, Lot>, material: string, massG: number, day: string): string | null {
  for (const lot of lots.values()) {
    const fits =
      lot.material === material &&
      lot.receivedOn <= day &&
      (lot.bestBefore ?? day) >= day &&
      lot.leftG >= massG;
    if (!fits) continue;
    lot.leftG -= massG;
    return lot.id;
  }
  return null;
}

const round = (massG: number) => Number(massG.toFixed(1));

function weighAll(
  hand: Hand,
  { sheet, batch }: BatchDetail,
  demo: DemoBatch,
  lots: Map<string, Lot>,
  day: string,
): number {
  const spoons = new Map(batch.formula.lines.map(({ id, measuredBy }) => [id, measuredBy]));
  let minutes = 5;
  const upTo = demo.to === 'weighing' ? Math.floor(sheet.steps.length * 0.45) : sheet.steps.length;
  for (const step of sheet.steps.slice(0, upTo)) {
    for (const { line, material, massG, portion } of step.weigh) {
      const off = demo.off?.[material] ?? 0;
      const actualG = round(Math.max(0.1, massG * (1 + (hand.random() - 0.5) * 0.006) + off));
      const lot = lotFor(lots, material, actualG, day);
      const how = spoons.get(line);
      const drawn = { line, massG: actualG, lot, portion };
      if (how === 'spoon' || how === 'heaped' || how === 'eye')
        hand.write('guessed', minutes, { ...drawn, how });
      else hand.write('weighed', minutes, { ...drawn, readabilityG: 0.1, how: 'scale' });
      minutes += 2;
    }
    if (step.temperatureC) {
      const { from, to } = step.temperatureC;
      const of = step.place === 'lye' ? 'lye' : step.place === 'fats' ? 'fats' : 'batter';
      hand.write('temperature', minutes, { of, c: round(from + (to - from) * hand.random()) });
    }
    if (step.id === 'split' && batch.formula.portions)
      hand.write('split', minutes, { portions: batch.formula.portions });
    if (step.id === 'pour')
      hand.write('poured', minutes, {
        moulds: [{ id: 'long-block', count: 1 }],
        leftoverG: round(20 + hand.random() * 40),
      });
    hand.write('stepDone', minutes, { step: step.id });
    minutes += step.minutes ?? 2;
  }
  if (demo.note) hand.write('noted', minutes, { text: demo.note, for: 'nextTime' });
  return minutes;
}

function cureAndSell(hand: Hand, { sheet, batch }: BatchDetail, demo: DemoBatch, pouredMin: number): void {
  const isSalted = batch.formula.lines.some(
    ({ material, stage }) => material === 'sea-salt-fine' && stage === 'trace',
  );
  const cutMin = pouredMin + 60 * (isSalted ? SALTED_CUT_HOURS : CUT_AFTER_HOURS);
  const bars = sheet.bars ?? 14;
  hand.write('cut', cutMin, {
    bars,
    seconds: hand.random() < 0.5 ? 1 : 0,
    trimmingsG: round(15 + hand.random() * 30),
  });
  if (demo.to === 'cut') return;
  const { leftoverG, trimmingsG } = leftOut(hand.events);
  const startG = (sheet.pourG - leftoverG - trimmingsG) / bars;
  const loss = LOSS.least + LOSS.more * hand.random();
  const days = LOSS_DAYS.least + LOSS_DAYS.more * hand.random();
  const sizes = WEIGHED_BARS.map(() => 1 + (hand.random() - 0.5) * 0.05);
  let weather = 0;
  for (const day of WEIGHED_ON_DAYS.filter((one) => one < demo.daysAgo)) {
    weather += WEATHER * 4 * (hand.random() - 0.5);
    for (const [at, bar] of WEIGHED_BARS.entries()) {
      const gone = loss * (1 - Math.exp(-(cutMin / 1440 + day) / days));
      const massG = startG * sizes[at]! * (1 - gone) * (1 + weather) + (hand.random() - 0.5) * 0.2;
      hand.write('barWeighed', cutMin + day * 1440, { bar, massG: round(massG), readabilityG: 0.1 });
    }
  }
}

/** What of the pour became no bars. */
function leftOut(events: readonly BatchEvent[]): { leftoverG: number; trimmingsG: number } {
  let [leftoverG, trimmingsG] = [0, 0];
  for (const event of events) {
    if (event.type === 'poured') leftoverG = event.leftoverG;
    if (event.type === 'cut') trimmingsG = event.trimmingsG;
  }
  return { leftoverG, trimmingsG };
}

/** Sold a few at a time on market days, or all of them. */
function sell(hand: Hand, demo: DemoBatch, batch: Batch, pouredMin: number): void {
  const { good } = batch.bars;
  const { weighings, options } = cureInput(standingOf(batch));
  const bars = settledBars(batch, cure(weighings, options), USUAL_MIN_DAYS);
  const netMassG = Math.floor(lightestG(bars)!);
  const from = pouredMin + RELEASED_AFTER_DAYS * 1440;
  for (const { id } of usualChecks(materialsIn(batch)))
    hand.write('checked', from, { check: id, outcome: 'good', ...(id === 'strip' ? { value: '9' } : {}) });
  hand.write('released', from + 5, { bars: good, netMassG, markets: ['EU', 'UK'] });
  const sold = demo.to === 'soldOut' ? good - 1 : Math.floor(good * (0.2 + hand.random() * 0.5));
  hand.write('moved', from + 3 * 1440, { bars: 1, how: 'sample', to: 'Halt tea room' });
  if (sold > 0)
    hand.write('moved', from + 6 * 1440, {
      bars: sold,
      how: 'sale',
      to: 'Saturday market, Tollen Halt',
      market: 'EU',
    });
}

/** The hour at which the morning's batches stand as the scenario tells. */
const TOLD_AT = '12:00';
/** Batches so young move with the clock: one that is in its cut window at noon is in it in the evening too. */
const MOVING_DAYS = 3;

/** When a batch was begun: in the morning of its day; a young one so long before now as it is at noon. */
function begunAt({ daysAgo }: DemoBatch, at: number, { today, now, zone }: Omit<House, 'db'>): string {
  const morning = momentOn(dayAfter(today, -daysAgo), zone, `08:${String(10 + at).padStart(2, '0')}`);
  if (daysAgo > MOVING_DAYS) return morning;
  const later = Date.parse(now) - Date.parse(momentOn(today, zone, TOLD_AT));
  return new Date(Date.parse(morning) + later).toISOString();
}

async function makeBatch(
  demo: DemoBatch,
  at: number,
  demoHouse: House,
  lots: Map<string, Lot>,
): Promise<void> {
  const { db, zone } = demoHouse;
  const now = begunAt(demo, at, demoHouse);
  const day = dayOf(now, zone);
  const house = { db, today: day, now, zone };
  const begun = await beginBatch(house, { product: demo.product, by: demo.by });
  const hand = new Hand(begun.id, Date.parse(now), demo.by, seeded(at + 1));
  const pouredMin = weighAll(hand, begun, demo, lots, day);
  const flush = async () => {
    const done = await addEvents(house, begun.id, { after: null, events: hand.events.splice(0) });
    return 'batch' in done ? done.batch : begun.batch;
  };
  if (demo.to === 'weighing') return void (await flush());
  if (demo.to === 'stopped') {
    // Given up in the middle: what was weighed stays drawn.
    const until = hand.events.findIndex(({ type }) => type === 'poured');
    hand.events.splice(until);
    hand.write('stopped', pouredMin, { reason: demo.note! });
    return void (await flush());
  }
  hand.write('rested', pouredMin + 5, { way: demo.product === 'snow-plough' ? 'chill' : 'warm' });
  if (demo.to === 'poured') return void (await flush());
  cureAndSell(hand, begun, demo, pouredMin);
  const cured = await flush();
  if (demo.to !== 'released' && demo.to !== 'soldOut') return;
  sell(hand, demo, cured, pouredMin);
  await flush();
}

/** Writes the batches down; lots are drawn as they would have been. */
export async function seedBatches(house: House): Promise<void> {
  const lots = new Map((await allLots(house.db)).map((lot) => [lot.id, lot]));
  for (const [at, demo] of BATCHES.entries()) await makeBatch(demo, at, house, lots);
}
