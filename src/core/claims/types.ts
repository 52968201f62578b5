/** Claims: phrases in a maker's words, what class they fall in per market, and what the formula says of them. */
import type { Market } from '../formula/types';

/**
 * `plain` says what it is and that it cleans; `cosmetic` promises an effect on the look or feel of skin;
 * `medicine` treats, prevents, or acts on the body; `absolute` promises without bounds or compares;
 * `composition` speaks of what is in the bar and can be checked against the formula.
 */
export const CLAIM_CLASSES = ['plain', 'cosmetic', 'medicine', 'absolute', 'composition'] as const;
export type ClaimClass = (typeof CLAIM_CLASSES)[number];

/** Languages in which labels are written and claims are found. */
export const LANGUAGES = ['en', 'fr', 'de', 'es'] as const;
export type Language = (typeof LANGUAGES)[number];

/** What they are called in English. */
export const LANGUAGE_NAMES: Record<Language, string> = {
  en: 'English',
  fr: 'French',
  de: 'German',
  es: 'Spanish',
};

/** What a composition claim speaks of. */
export const FACTS = [
  'vegan',
  'palmFree',
  'unscented',
  'natural',
  'organic',
  'milkFree',
  'nutFree',
  'glutenFree',
  'crueltyFree',
  'handmade',
] as const;
export type FactId = (typeof FACTS)[number];

/**
 * A phrase as data. In `say`, words stand in order; `a|b` is either, `word*` any ending, `*word` any beginning, `(word)` may be left
 * out, `..` is a gap of up to two words. `a|b & c|d` is one of either, apart in one sentence and in any order.
 */
export interface ClaimPhrase {
  id: string;
  language: Language;
  class: ClaimClass;
  say: string[];
  /** Words, forms as in `say`, beside which words that stand apart promise nothing. */
  unless?: string;
  why: string;
  /** A wording that does not claim it; empty where leaving it out is best. */
  plainer: string;
  fact?: FactId;
  /** Markets in which it falls in another class. */
  markets?: Partial<Record<Market, ClaimClass>>;
  /** Set where a negation before it is part of the claim or does not undo it. */
  ignoresNegation?: boolean;
  /** One word of it alone, in a sentence that is else as plain as can be, is asked about: an itch to travel. */
  isDoubtedAlone?: boolean;
  /** Found only so that its words are taken for nothing else. */
  isSilent?: boolean;
}

/** A phrase of the maker's own, beside those that ship. */
export interface OwnPhrase {
  say: string;
  class: ClaimClass;
  language: Language;
}

export interface ClaimFinding {
  phrase: string;
  language: Language;
  /** The words as they stand in the text, and where. */
  words: string;
  from: number;
  to: number;
  class: Record<Market, ClaimClass>;
  fact: FactId | null;
  why: string;
  plainer: string;
}
