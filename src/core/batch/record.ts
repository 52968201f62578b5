/** The record of a batch: planned beside actual, what differed and why, and what it leads to. */
import { daysSince } from '../curing/batch-cure';
import { USUAL_MIN_DAYS } from '../curing/cure';
import { plainNumber } from '../quantities/amount';
import type { Assessment, Verdict } from '../formula/answer';
import type { Market } from '../formula/types';
import { ALKALI_LINE, BUCKET_LINE, LYE_STOCK_LINE } from '../making/run-sheet-types';
import type { Batch, BatchEvent, BatchLine } from './types';

export const RECORD_FORMAT = 'proportia.batch-record/1';

export interface RecordLine {
  line: string;
  material: string;
  name: string;
  portion: string | null;
  plannedG: number | null;
  massG: number;
  /** Percent of the planned mass; null where nothing was planned. */
  offPct: number | null;
  how: string[];
  lots: string[];
  skipped: string | null;
}

export interface BatchRecord {
  format: typeof RECORD_FORMAT;
  id: string;
  code: string;
  product: string;
  productName: string;
  startedAt: string;
  startedBy: string | null;
  state: Batch['state'];
  isQuarantined: boolean;
  lines: RecordLine[];
  /** What differed from the plan, each in one sentence. */
  deviations: string[];
  temperatures: Batch['temperatures'];
  portions: Batch['portions'];
  poured: Batch['poured'];
  rested: Batch['rested'];
  cut: Batch['cut'];
  bars: Batch['bars'];
  checks: Batch['checks'];
  quarantines: Batch['quarantines'];
  released: Batch['released'];
  notes: Batch['notes'];
  verdicts: { onDate: string; verdict: Verdict }[];
  superfatPct: number | null;
  /** The ingredient lists of what was weighed, by market and school. */
  lists: { market: Market; school: string; text: string }[];
  /** What it really cost in materials, in the maker's currency; null where nothing has a price. */
  cost: { currency: string; total: number; perBar: number | null; unpriced: string[] } | null;
  events: readonly BatchEvent[];
}

/** What the assessments of the day it was poured and of today say; null where it does not reckon. */
export interface RecordVerdicts {
  then: { onDate: string; assessment: Assessment };
  today: { onDate: string; assessment: Assessment };
}

/** Lines that are no material of the formula. */
const NAMES: Record<string, string> = { [ALKALI_LINE]: 'Sodium hydroxide', [LYE_STOCK_LINE]: 'Lye stock' };

/** Weighings off the plan by more than this are told, percent. */
const TOLD_OFF_PCT = 2;
const grams = (massG: number) => `${plainNumber(massG, 1)} g`;

/** What a line of a batch is called. */
export function lineName(
  { materials, sheet }: Pick<Batch, 'materials' | 'sheet'>,
  { line, material }: BatchLine,
): string {
  if (line === BUCKET_LINE && sheet.bucket) return `${sheet.bucket.name}, from the bucket`;
  return NAMES[line] ?? materials.find(({ id }) => id === material)?.name ?? material;
}

function recordLine(batch: Batch, line: BatchLine): RecordLine {
  const { plannedG, massG, weighings } = line;
  return {
    line: line.line,
    material: line.material,
    name: lineName(batch, line),
    portion: line.portion,
    plannedG,
    massG,
    offPct: plannedG === null || plannedG === 0 ? null : (100 * (massG - plannedG)) / plannedG,
    how: [...new Set(weighings.map(({ how, said }) => said ?? how))],
    lots: [...new Set(weighings.flatMap(({ lot }) => lot ?? []))],
    skipped: line.skipped,
  };
}

function deviationsOf(batch: Batch, lines: readonly RecordLine[]): string[] {
  const told = lines.flatMap((row, at): string[] => {
    const { name, plannedG, massG, offPct, skipped } = row;
    const corrected = batch.lines[at]!.weighings.flatMap(({ correction, firstG, massG: now }) =>
      correction === null
        ? []
        : [`${name}: first written down as ${grams(firstG!)}, corrected to ${grams(now)} (${correction}).`],
    );
    const despite = batch.lines[at]!.weighings.flatMap(({ despite: why }) =>
      why === null ? [] : [`${name}: taken although the lot spoke against it (${why}).`],
    );
    if (skipped !== null) return [`${name}: left out (${skipped}).`, ...despite];
    if (plannedG === null) return [`${name}: ${grams(massG)} added that was not planned.`, ...despite];
    if (plannedG > 0 && massG === 0 && batch.poured) return [`${name}: nothing was written down of it.`];
    const isOff = massG > 0 && offPct !== null && Math.abs(offPct) > TOLD_OFF_PCT;
    const off = isOff
      ? [
          `${name}: ${grams(massG)} instead of ${grams(plannedG)} (${offPct > 0 ? '+' : ''}${offPct.toFixed(1)} %).`,
        ]
      : [];
    return [...off, ...corrected, ...despite];
  });
  const quarantined = batch.quarantines.map(({ reason, decision, why }) =>
    decision === null ? `Quarantined: ${reason}` : `Quarantined: ${reason} Decided: ${decision} (${why}).`,
  );
  const early = batch.released.flatMap(({ at, bars, despite }) => {
    const days = Math.floor(daysSince(batch.poured?.at ?? batch.startedAt, at));
    const why = despite === null ? '' : ` (${despite})`;
    if (days < USUAL_MIN_DAYS)
      return [`${bars} bars were released after ${days} days, before the usual ${USUAL_MIN_DAYS}${why}.`];
    return despite === null ? [] : [`${bars} bars were released all the same${why}.`];
  });
  const sorted = batch.sorted.map(
    ({ bars, reason }) => `${bars} bars became seconds after the cut (${reason}).`,
  );
  return [...told, ...sorted, ...quarantined, ...early];
}

/**
 * A batch as a record to be kept.
 *
 * @example
 * batchRecord({ id, productName, batch, events, verdicts }).deviations; // ['Olive oil: 480 g instead of 450 g (+6.7 %).']
 */
export function batchRecord({
  id,
  productName,
  batch,
  events,
  verdicts,
  cost = null,
}: {
  id: string;
  productName: string;
  batch: Batch;
  events: readonly BatchEvent[];
  verdicts: RecordVerdicts | null;
  cost?: BatchRecord['cost'];
}): BatchRecord {
  const lines = batch.lines.filter(({ plannedG, weighings }) => (plannedG ?? 0) > 0 || weighings.length > 0);

  const rows = lines.map((line) => recordLine(batch, line));
  const { code, product, startedAt, startedBy, state, isQuarantined } = batch;
  return {
    format: RECORD_FORMAT,
    id,
    code,
    product,
    productName,
    startedAt,
    startedBy,
    state,
    isQuarantined,
    lines: rows,
    deviations: deviationsOf({ ...batch, lines }, rows),
    temperatures: batch.temperatures,
    portions: batch.portions,
    poured: batch.poured,
    rested: batch.rested,
    cut: batch.cut,
    bars: batch.bars,
    checks: batch.checks,
    quarantines: batch.quarantines,
    released: batch.released,
    notes: batch.notes,
    verdicts: verdicts
      ? [verdicts.then, verdicts.today].map(({ onDate, assessment }) => ({
          onDate,
          verdict: assessment.verdict,
        }))
      : [],
    superfatPct: verdicts?.then.assessment.superfat.effectivePct ?? null,
    lists: (verdicts?.then.assessment.ingredients ?? []).map(({ market, school, text }) => ({
      market,
      school,
      text,
    })),
    cost,
    events,
  };
}
