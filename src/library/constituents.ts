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

interface Row {
  id: string;
  name: string;
  cas: string | null;
  alsoCas?: string[];
}

function build(): ReadonlyMap<string, ConstituentEntry> {
  const entries = new Map<string, ConstituentEntry>([[SUGARS.id, SUGARS]]);
  for (const { id, name, cas, alsoCas = [] } of rows as Row[])
    entries.set(id, { id, name, cas: cas === null ? [] : [cas, ...alsoCas] });
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

const BY_CAS = new Map(
  [...ENTRIES.values()].flatMap((entry) => entry.cas.map((cas) => [cas, entry] as const)),
);
const plainName = (name: string) =>
  name
    .toLowerCase()
    .replace(/\([^)]*\)/g, ' ')
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();
const BY_NAME = new Map([...ENTRIES.values()].map((entry) => [plainName(entry.name), entry] as const));

/** Leads CAS numbers and names, as papers write them, to the constituents on file. */
export const knownConstituents = {
  byCas: (cas: string): ConstituentEntry | undefined => BY_CAS.get(cas),
  byName: (name: string): ConstituentEntry | undefined => BY_NAME.get(plainName(name)),
};
