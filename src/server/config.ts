/** What can be set from outside, read once from the environment. */
import { join } from 'node:path';
import { clockOf, dayOf, machineZone, momentOn } from '../core/quantities/day';

/** Folder of the database, `PROPORTIA_DATA` or `data` beside where the server was started. */
export function dataFolder(): string {
  return process.env.PROPORTIA_DATA || join(process.cwd(), 'data');
}

/** Folder that is looked into for papers: `PROPORTIA_LETTERS`, or `letters` beside the database. */
export function lettersFolder(): string {
  return process.env.PROPORTIA_LETTERS || join(dataFolder(), 'letters');
}

/** Whether a label printer is at hand: `PROPORTIA_PRINTER=practice` shows what one would print. */
export const hasPrinter = (): boolean => (process.env.PROPORTIA_PRINTER ?? '') !== '';

/** The zone of a house that has set none: `PROPORTIA_ZONE` or the machine's own. */
export const usualZone = (): string => process.env.PROPORTIA_ZONE || machineZone();

const fixedDay = (): string | null => {
  const fixed = process.env.PROPORTIA_TODAY;
  return fixed && /^\d{4}-\d{2}-\d{2}$/.test(fixed) ? fixed : null;
};

/** The day the application takes as today, in the house's zone: `PROPORTIA_TODAY` (YYYY-MM-DD) or the clock's. */
export const today = (zone: string): string => fixedDay() ?? dayOf(new Date().toISOString(), zone);

/** The moment the application takes as now, in UTC: the machine's clock, on the day it takes as today where that is fixed. */
export function moment(zone = usualZone()): string {
  const now = new Date().toISOString();
  const fixed = fixedDay();
  return fixed ? momentOn(fixed, zone, clockOf(now, zone)) : now;
}
