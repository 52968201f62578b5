/** Phrases that claim something, as data by language, made ready for finding. */
import { preparePhrases, type Pattern } from '../core/claims/find';
import type { ClaimPhrase } from '../core/claims/types';
import english from './claims/en.json';
import french from './claims/fr.json';

/** Every phrase that ships. */
export const CLAIM_PHRASES = [...english.phrases, ...french.phrases] as unknown as readonly ClaimPhrase[];

/** Where the classes come from and how far they can be leant on. */
export const CLAIM_SOURCE = {
  source: english.source,
  standing: english.standing,
  asOf: english.asOf,
} as const;

let prepared: Pattern[] | null = null;

/** The shipped phrases, ready for `findClaims`. */
export function claimPatterns(): readonly Pattern[] {
  prepared ??= preparePhrases(CLAIM_PHRASES);
  return prepared;
}
