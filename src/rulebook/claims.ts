/** Phrases that claim something, as data by language, made ready for finding. */
import type { Likeness } from '../core/claims/likeness';
import { preparePhrases, type Pattern } from '../core/claims/patterns';
import type { BodyWords, ClaimReader } from '../core/claims/read';
import { LANGUAGES, type ClaimPhrase, type Language, type OwnPhrase } from '../core/claims/types';
import body from './claims/body.json';
import german from './claims/de.json';
import english from './claims/en.json';
import spanish from './claims/es.json';
import french from './claims/fr.json';
import learnt from './claims/likeness.json';

/** Every phrase that ships. */
export const CLAIM_PHRASES = [
  ...english.phrases,
  ...french.phrases,
  ...german.phrases,
  ...spanish.phrases,
] as unknown as readonly ClaimPhrase[];

/** Where the classes come from and how far they can be leant on. */
export const CLAIM_SOURCE = {
  source: english.source,
  standing: english.standing,
  asOf: english.asOf,
} as const;

let prepared: Pattern[] | null = null;

function ownPhrase({ say, class: kind, language }: OwnPhrase, index: number): ClaimPhrase {
  return {
    id: `own ${index}`,
    language,
    class: kind,
    say: [say],
    why: 'A phrase you added yourself.',
    plainer: '',
  };
}

const listed = (words: string): readonly string[] => words.split(' ');

/** Words of the body by language, for what no phrase knows. */
const BODY_WORDS = Object.fromEntries(
  LANGUAGES.map((language) => [
    language,
    {
      speaks: listed(body[language].speaks),
      plain: listed(body[language].plain),
      warns: listed(body[language].warns),
    },
  ]),
) as Record<Language, BodyWords>;

const bytesOf = (base64: string) => Int8Array.from(atob(base64), (unit) => unit.charCodeAt(0));

let likeness: Likeness | null = null;

/** What claims are read by: the shipped phrases with the maker's own before them, and what sentences are like. */
export function claimReader(own: readonly OwnPhrase[] = []): ClaimReader {
  prepared ??= preparePhrases(CLAIM_PHRASES);
  likeness ??= { ...learnt, weights: bytesOf(learnt.weights) };
  const patterns = own.length === 0 ? prepared : [...preparePhrases(own.map(ownPhrase)), ...prepared];
  return { patterns, body: BODY_WORDS, likeness };
}
