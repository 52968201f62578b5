/** What can be set from outside, read once from the environment. */
import { join } from 'node:path';

/** Folder of the database, `PROPORTIA_DATA` or `data` beside where the server was started. */
export function dataFolder(): string {
  return process.env.PROPORTIA_DATA || join(process.cwd(), 'data');
}

/** Folder that is looked into for papers: `PROPORTIA_LETTERS`, or `letters` beside the database. */
export function lettersFolder(): string {
  return process.env.PROPORTIA_LETTERS || join(dataFolder(), 'letters');
}

/** The day the application takes as today: `PROPORTIA_TODAY` (YYYY-MM-DD) or the machine's own date. */
export function today(): string {
  const fixed = process.env.PROPORTIA_TODAY;
  if (fixed && /^\d{4}-\d{2}-\d{2}$/.test(fixed)) return fixed;
  const now = new Date();
  const two = (value: number) => String(value).padStart(2, '0');
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}

/** The moment the application takes as now: the machine's clock, on the day it takes as today where that is fixed. */
export function moment(): string {
  const now = new Date().toISOString();
  return process.env.PROPORTIA_TODAY ? `${today()}${now.slice(10)}` : now;
}
