/** A batch's own pour: what was weighed, the mould it went into, how it rests and what the thermometer said since. */
import { batchFormula } from '../batch/request';
import type { Batch } from '../batch/types';
import type { Mould } from '../making/size';
import { MS_PER_HOUR } from '../quantities/day';
import { feltOf } from '../curing/window';
import type { Measured, Reading, Touched } from './calibrate';
import { pourOf, type Question } from './ways';

/** Where nobody measured: a usual room, a usual batter, °C. */
export const USUAL_ROOM_C = 20;
export const USUAL_POUR_C = 40;

/** Where in the block a temperature was taken; null of what is no block. */
const WHERE: Record<Batch['temperatures'][number]['of'], Reading['where'] | null> = {
  batter: 'middle',
  mould: 'edge',
  lye: null,
  fats: null,
  cook: null,
  room: null,
};

/** What a batch that is poured asks of the heat model; null where none of its moulds is known. */
export function questionOfBatch(batch: Batch, moulds: readonly Mould[]): Question | null {
  const { poured, temperatures, rested } = batch;
  if (!poured) return null;
  const used = poured.moulds.filter(({ count }) => count > 0);
  const mould = moulds.find(({ id }) => used.some((one) => one.id === id));
  if (!mould) return null;
  const last = (of: string, test: (at: string) => boolean) =>
    temperatures.filter((one) => one.of === of && test(one.at)).at(-1)?.c ?? null;
  const isBefore = (at: string) => Date.parse(at) <= Date.parse(poured.at);
  return {
    formula: batchFormula(batch),
    materials: batch.materials,
    mould,
    around: { way: rested ?? 'leave', roomC: last('room', () => true) ?? USUAL_ROOM_C },
    startC: last('batter', isBefore) ?? USUAL_POUR_C,
  };
}

/** What the thermometer said of a block since it was poured. */
export function readingsOf({ poured, temperatures }: Batch): Reading[] {
  if (!poured) return [];
  return temperatures.flatMap(({ of, at, c }) => {
    const hour = (Date.parse(at) - Date.parse(poured.at)) / MS_PER_HOUR;
    const where = WHERE[of];
    return where && hour > 0 ? [{ hour, where, c }] : [];
  });
}

/** What fingers told of a block before it was cut. */
export const touchedOf = (batch: Batch): Touched[] =>
  feltOf(batch)
    .filter(({ hours }) => hours > 0)
    .map(({ hours, finger }) => ({ hour: hours, isFirm: finger !== 'dents' }));

/** Moulds of a batch of which something was found out since it was poured. */
export const measuredIn = (batch: Batch): string[] =>
  readingsOf(batch).length + touchedOf(batch).length === 0
    ? []
    : batch.poured!.moulds.filter(({ count }) => count > 0).map(({ id }) => id);

/** A batch with what was measured of it, to calibrate by; null where nothing was, or where it does not reckon. */
export function measuredBatch(batch: Batch, moulds: readonly Mould[]): Measured | null {
  const [readings, touched] = [readingsOf(batch), touchedOf(batch)];
  const question = readings.length + touched.length > 0 ? questionOfBatch(batch, moulds) : null;
  const pour = question && pourOf(question);
  return pour ? { pour, readings, touched } : null;
}
