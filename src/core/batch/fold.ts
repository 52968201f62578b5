/** Folding a batch from its events: everything that is shown of it comes from here. */
import { ALKALI_LINE, BUCKET_LINE, LYE_STOCK_LINE } from '../making/run-sheet-types';
import {
  RESCUED_CHECK,
  SCALED_CHECK,
  type Batch,
  type BatchEvent,
  type BatchLine,
  type EventOf,
  type EventType,
  type Weighing,
} from './types';

/** After the cut by so long, a batch cures even where no bar was weighed (batch page). */
export const CURES_AFTER_MS = 24 * 3600 * 1000;

function plannedLines({ formula, sheet, materials }: EventOf<'started'>): BatchLine[] {
  const planned = new Map<string, number>();
  for (const { line, massG } of sheet.steps.flatMap(({ weigh }) => weigh))
    planned.set(line, (planned.get(line) ?? 0) + massG);
  const common = { massG: 0, weighings: [], skipped: null, isExtra: false };
  const alkali = materials.find(({ kind }) => kind === 'alkali')?.id ?? 'sodium-hydroxide';
  const own: [line: string, material: string][] = [
    [ALKALI_LINE, alkali],
    ...(sheet.lyeStock ? [[LYE_STOCK_LINE, LYE_STOCK_LINE] as [string, string]] : []),
    ...(sheet.bucket ? [[BUCKET_LINE, sheet.bucket.material] as [string, string]] : []),
  ];
  return [
    ...formula.lines.map(({ id, material, stage, portion }) => ({
      ...structuredClone(common),
      line: id,
      material,
      stage,
      portion: portion ?? null,
      plannedG: planned.get(id) ?? 0,
    })),
    ...own.map(([line, material]) => ({
      ...structuredClone(common),
      line,
      material,
      stage: null,
      portion: null,
      plannedG: planned.get(line) ?? 0,
    })),
  ];
}

function begun(event: EventOf<'started'>): Batch {
  const { product, version, code, formula, materials, sheet, at, by } = event;
  return {
    product,
    version,
    code,
    startedAt: at,
    startedBy: by,
    formula,
    materials,
    sheet,
    state: 'pouring',
    isQuarantined: false,
    lines: plannedLines(event),
    scale: 1,
    wantedG: {},
    stepsDone: [],
    temperatures: [],
    portions: null,
    poured: null,
    rested: null,
    stopped: null,
    cut: null,
    barWeighings: [],
    checks: [],
    quarantines: [],
    released: [],
    moved: [],
    sorted: [],
    notes: [],
    bars: { good: 0, released: 0, gone: 0, left: 0 },
  };
}

function weighingOf(event: EventOf<'weighed'> | EventOf<'guessed'> | EventOf<'added'>): Weighing {
  const { id, at, by, massG, how, lot = null, portion = null, despite = null, step = null } = event;
  return {
    event: id,
    at,
    by,
    massG,
    firstG: null,
    correction: null,
    readabilityG: 'readabilityG' in event ? event.readabilityG : null,
    how,
    lot,
    portion,
    despite,
    step,
    ...('said' in event && event.said ? { said: event.said } : {}),
  };
}

function weigh(batch: Batch, event: EventOf<'weighed'> | EventOf<'guessed'>): void {
  const line = batch.lines.find((one) => one.line === event.line);
  if (!line) return;
  line.weighings.push(weighingOf(event));
  line.skipped = null;
}

/** A bar's weighing corrected to nothing is left out of the cure; to another mass, it counts as that. */
function correctBar({ barWeighings }: Batch, { event, massG, reason }: EventOf<'corrected'>): void {
  const weighing = barWeighings.find((one) => one.event === event);
  if (!weighing) return;
  weighing.leftOut = massG === 0 ? reason : null;
  // Said once more as it was: it is right, whatever it looks like.
  weighing.confirmed = massG === weighing.massG ? reason : null;
  if (massG > 0) weighing.massG = massG;
}

function correct(batch: Batch, corrected: EventOf<'corrected'>): void {
  const { event, massG, reason } = corrected;
  correctBar(batch, corrected);
  const { lines } = batch;
  const weighing = lines.flatMap(({ weighings }) => weighings).find((one) => one.event === event);
  if (!weighing) return;
  weighing.firstG ??= weighing.massG;
  weighing.massG = massG;
  weighing.correction = reason;
}

function add(batch: Batch, event: EventOf<'added'>): void {
  const { id, material, stage, portion = null } = event;
  batch.lines.push({
    line: id,
    material,
    stage,
    portion,
    plannedG: null,
    massG: 0,
    weighings: [weighingOf(event)],
    skipped: null,
    isExtra: true,
  });
}

/** What was settled at the pot grows with the day. */
function rescale(batch: Batch, scale: number): void {
  const grown = Object.entries(batch.wantedG).map(([line, g]) => [line, (g * scale) / batch.scale] as const);
  batch.wantedG = Object.fromEntries(grown);
  batch.scale = scale;
}

/** Grams by line as they were written down; what is no such list settles nothing. */
function totalsOf(value: string | null): Record<string, number> {
  try {
    const all = JSON.parse(value ?? '') as unknown;
    if (typeof all !== 'object' || all === null) return {};
    return Object.fromEntries(
      Object.entries(all).filter((entry): entry is [string, number] => Number(entry[1]) > 0),
    );
  } catch {
    return {};
  }
}

function decide(batch: Batch, { at, decision, reason }: EventOf<'decided'>): void {
  for (const open of batch.quarantines.filter((one) => one.decision === null))
    Object.assign(open, { decision, why: reason, decidedAt: at });
  batch.isQuarantined = false;
  if (decision === 'discard') batch.state = 'discarded';
}

type Apply = { [T in EventType]: (batch: Batch, event: EventOf<T>) => void };

/** What every type of event does to the batch. */
const APPLY: Apply = {
  started: () => undefined,
  stepDone: (batch, { step, at, by }) => {
    if (!batch.stepsDone.some((one) => one.step === step)) batch.stepsDone.push({ step, at, by });
  },
  stepUndone: (batch, { step }) => {
    batch.stepsDone = batch.stepsDone.filter((one) => one.step !== step);
  },
  weighed: weigh,
  guessed: weigh,
  corrected: correct,
  added: add,
  skipped: (batch, { line, reason }) => {
    const found = batch.lines.find((one) => one.line === line);
    if (found) found.skipped = reason;
  },
  temperature: (batch, { of, c, at }) => batch.temperatures.push({ of, c, at }),
  split: (batch, { portions }) => {
    batch.portions = portions;
  },
  poured: (batch, { at, moulds, leftoverG }) => {
    batch.poured = { at, moulds, leftoverG };
    batch.state = 'poured';
  },
  rested: (batch, { way }) => {
    batch.rested = way;
  },
  stopped: (batch, { at, reason }) => {
    batch.stopped = { at, reason };
    batch.state = 'stopped';
  },
  cut: (batch, { at, bars, seconds, trimmingsG }) => {
    batch.cut = { at, bars, seconds, trimmingsG };
    batch.state = 'cut';
  },
  sorted: (batch, { at, bars, reason }) => batch.sorted.push({ at, bars, reason }),
  barWeighed: (batch, { id, bar, massG, readabilityG, at }) => {
    batch.barWeighings.push({ event: id, bar, massG, readabilityG, at, leftOut: null, confirmed: null });
    if (batch.state === 'cut') batch.state = 'curing';
  },
  checked: (batch, { check, outcome, value = null, note = null, at }) => {
    batch.checks.push({ check, outcome, value, note, at });
    if (check === SCALED_CHECK && Number(value) > 0) rescale(batch, Number(value));
    if (check === RESCUED_CHECK) batch.wantedG = { ...batch.wantedG, ...totalsOf(value) };
  },
  quarantined: (batch, { at, reason }) => {
    batch.quarantines.push({ at, reason, decision: null, why: null, decidedAt: null });
    batch.isQuarantined = true;
  },
  decided: decide,
  released: (batch, { at, bars, netMassG, markets, despite = null }) => {
    batch.released.push({ at, bars, netMassG, markets, despite });
    batch.state = 'released';
  },
  moved: (batch, { at, bars, how, to = null, note = null, market = null }) =>
    batch.moved.push({ at, bars, how, to, note, market }),
  noted: (batch, { at, by, text, for: purpose }) => batch.notes.push({ at, by, text, for: purpose }),
};

function count(batch: Batch): void {
  const sum = (rows: readonly { bars: number }[]) => rows.reduce((total, { bars }) => total + bars, 0);
  const good = batch.cut ? batch.cut.bars - batch.cut.seconds - sum(batch.sorted) : 0;
  const [released, gone] = [sum(batch.released), sum(batch.moved)];
  batch.bars = { good, released, gone, left: good - gone };
  if (batch.state === 'released' && batch.cut && good - gone <= 0) batch.state = 'soldOut';
}

/** Applies one event to a batch in place; events of types that are not known are passed over. */
function apply(batch: Batch, event: BatchEvent): void {
  (APPLY[event.type] as ((batch: Batch, event: BatchEvent) => void) | undefined)?.(batch, event);
}

/** Whether bars cut at a moment cure by itself by another: a day later. */
export const curesBy = (cutAt: string, at: string): boolean =>
  Date.parse(at) - Date.parse(cutAt) >= CURES_AFTER_MS;

/** What follows from all events together, and from the moment the batch is looked at. */
function conclude(batch: Batch, at: string): void {
  for (const line of batch.lines) line.massG = line.weighings.reduce((sum, { massG }) => sum + massG, 0);
  if (batch.state === 'cut' && batch.cut && curesBy(batch.cut.at, at)) batch.state = 'curing';
  count(batch);
}

/**
 * Applies one more event, whose id is new, to a folded batch, in place.
 *
 * @example
 * for (const event of heard) extendBatch(batch, event); // `batch` is now as if all had been folded at once
 */
export function extendBatch(batch: Batch, event: BatchEvent, at: string = event.at): void {
  apply(batch, event);
  conclude(batch, at);
}

/**
 * The batch as it stands after its events, the first of which is `started`; null where there is none. `at` is the
 * moment it is looked at, for what comes with time alone; left out, that of the last event. An id that comes twice
 * counts once.
 *
 * @example
 * foldBatch(events)?.lines[0].massG; // what was weighed of the first line, as corrected
 */
export function foldBatch(events: readonly BatchEvent[], at?: string): Batch | null {
  const [first, ...rest] = events;
  if (first?.type !== 'started') return null;
  const batch = begun(first);
  const seen = new Set([first.id]);
  for (const event of rest) {
    if (seen.has(event.id)) continue;
    seen.add(event.id);
    apply(batch, event);
  }
  conclude(batch, at ?? events.at(-1)!.at);
  return batch;
}
