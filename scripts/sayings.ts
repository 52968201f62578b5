/** Sentences that were read and classed, in sets by the order in which they were written (`src/rulebook/sayings`). */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { sayingsOfPhrases, type Saying } from '../src/core/claims/learn';
import type { Kind } from '../src/core/claims/likeness';
import labelWords from '../src/core/labels/label-words.json';
import { CLAIM_PHRASES } from '../src/rulebook/claims';

const FOLDER = 'src/rulebook/sayings';

/** Marks of the sets. */
const KIND_OF: Record<string, Kind> = {
  m: 'medicine',
  bd: 'border',
  c: 'cosmetic',
  a: 'absolute',
  p: 'composition',
  s: 'plain',
};

/** The sentences of a set: `mark | language | sentence` a line. */
export function sayingsIn(file: string): Saying[] {
  return readFileSync(file, 'utf8')
    .split('\n')
    .flatMap((line) => {
      const found = /^(\w+) \| \w\w \| (.+)$/.exec(line);
      return found ? [{ kind: KIND_OF[found[1]!]!, say: found[2]! }] : [];
    });
}

/** Every set on file, by its name. */
export const SETS: readonly string[] = readdirSync(FOLDER)
  .filter((name) => name.endsWith('.txt'))
  .sort();

/** The sentences of a set on file. */
export const setOf = (name: string): Saying[] => sayingsIn(join(FOLDER, name));

/** Every text within data. */
const textsIn = (data: unknown): string[] => {
  if (typeof data === 'string') return [data];
  return typeof data === 'object' && data !== null ? Object.values(data).flatMap(textsIn) : [];
};

/** Sentences weigh so much more than the bare words of a phrase. */
const TIMES = 2;

/** What is learnt from: sets but one that is held back, the words of all phrases, and the fixed words of labels. */
export function taught(heldBack?: string): Saying[] {
  const sets = SETS.filter((name) => name !== heldBack).flatMap(setOf);
  return [
    ...Array.from({ length: TIMES }, () => sets).flat(),
    ...sayingsOfPhrases(CLAIM_PHRASES),
    ...textsIn(labelWords).map((say) => ({ kind: 'plain' as const, say })),
  ];
}
