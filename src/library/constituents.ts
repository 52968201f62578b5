/** What a constituent's id stands for: its name and the CAS numbers it sums. */
import { rulebook } from '../rulebook';
import rows from './data/constituents.json';

export interface ConstituentEntry {
  id: string;
  name: string;
  /** CAS numbers the share is the sum of; empty where none is on file. */
  cas: readonly string[];
}

/** Sugars are a sum kept for the heat of the batter, not one substance. */
const SUGARS: ConstituentEntry = { id: 'sugars', name: 'Sugars', cas: [] };

function build(): ReadonlyMap<string, ConstituentEntry> {
  const entries = new Map<string, ConstituentEntry>([[SUGARS.id, SUGARS]]);
  for (const { id, name, cas } of rows) entries.set(id, { id, name, cas: cas === null ? [] : [cas] });
  for (const { id, name, cas, alsoCas } of rulebook().allergens) {
    entries.set(id, { id, name, cas: [cas, ...alsoCas] });
  }
  return entries;
}

const ENTRIES = build();

/** The constituent of that id, or undefined. */
export function constituent(id: string): ConstituentEntry | undefined {
  return ENTRIES.get(id);
}

/** Whether a CAS number's last digit checks the others. */
export function isCasNumber(cas: string): boolean {
  if (!/^\d{2,7}-\d{2}-\d$/.test(cas)) return false;
  const digits = cas.replace(/-/g, '');
  const body = [...digits.slice(0, -1)].reverse();
  const sum = body.reduce((total, digit, index) => total + Number(digit) * (index + 1), 0);
  return sum % 10 === Number(digits.at(-1));
}
