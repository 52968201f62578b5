/** What a constituent's id stands for: its name and the CAS numbers it sums. */
import { rulebook } from '../rulebook';
import rows from './data/constituents.json';
import named from './data/names.json';

export interface ConstituentEntry {
  id: string;
  name: string;
  /** CAS numbers the share is the sum of; empty where none is on file. */
  cas: readonly string[];
  /** Other names it is known by: of any market's ingredient naming, and trivial ones of several languages. */
  names: readonly string[];
  /** EC numbers. */
  ec: readonly string[];
}

/** Sugars are a sum kept for the heat of the batter, not one substance. */
const SUGARS: ConstituentEntry = { id: 'sugars', name: 'Sugars', cas: [], names: [], ec: [] };

interface Row {
  id: string;
  name: string;
  cas: string | null;
  alsoCas?: string[];
}

interface Named {
  id: string;
  names: string[];
  cas?: string[];
  ec?: string[];
}

function build(): ReadonlyMap<string, ConstituentEntry> {
  const entries = new Map<string, ConstituentEntry>([[SUGARS.id, SUGARS]]);
  const also = new Map((named as Named[]).map((entry) => [entry.id, entry]));
  const put = (id: string, name: string, numbers: readonly string[]) => {
    const { names = [], cas = [], ec = [] } = also.get(id) ?? {};
    entries.set(id, { id, name, cas: [...new Set([...numbers, ...cas])], names, ec });
  };
  for (const { id, name, cas, alsoCas = [] } of rows as Row[])
    put(id, name, cas === null ? [] : [cas, ...alsoCas]);
  for (const { id, name, cas, alsoCas } of rulebook().allergens) put(id, name, [cas, ...alsoCas]);
  return entries;
}

const ENTRIES = build();

/** The constituent of that id, or undefined. */
export function constituent(id: string): ConstituentEntry | undefined {
  return ENTRIES.get(id);
}

/** All that is on file. */
export const everyConstituent = (): Iterable<ConstituentEntry> => ENTRIES.values();

const BY_CAS = new Map(
  [...ENTRIES.values()].flatMap((entry) => entry.cas.map((cas) => [cas, entry] as const)),
);
const plainName = (name: string) =>
  name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/\([^)]*\)/g, ' ')
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();
/** A name of its own goes before another's trivial one. */
const BY_NAME = new Map([
  ...[...ENTRIES.values()].flatMap((entry) => entry.names.map((name) => [plainName(name), entry] as const)),
  ...[...ENTRIES.values()].map((entry) => [plainName(entry.name), entry] as const),
]);

/** Leads CAS numbers and names, as papers write them, to the constituents on file. */
export const knownConstituents = {
  byCas: (cas: string): ConstituentEntry | undefined => BY_CAS.get(cas),
  byName: (name: string): ConstituentEntry | undefined => BY_NAME.get(plainName(name)),
};
