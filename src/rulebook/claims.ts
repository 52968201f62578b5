/** Phrases that claim something, as data by language, made ready for finding. */
import type { BodyWords } from '../core/claims/find';
import { preparePhrases, type Pattern } from '../core/claims/patterns';
import { LANGUAGES, type ClaimPhrase, type Language, type OwnPhrase } from '../core/claims/types';
import body from './claims/body.json';
import german from './claims/de.json';
import english from './claims/en.json';
import spanish from './claims/es.json';
import french from './claims/fr.json';

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

/** The shipped phrases with the maker's own before them, ready for `findClaims`. */
export function claimPatterns(own: readonly OwnPhrase[] = []): readonly Pattern[] {
  prepared ??= preparePhrases(CLAIM_PHRASES);
  return own.length === 0 ? prepared : [...preparePhrases(own.map(ownPhrase)), ...prepared];
}

const listed = (words: string): readonly string[] => words.split(' ');

/** Words of the body by language, for what no phrase knows. */
export const BODY_WORDS = Object.fromEntries(
  LANGUAGES.map((language) => [
    language,
    { speaks: listed(body[language].speaks), plain: listed(body[language].plain) },
  ]),
) as Record<Language, BodyWords>;
