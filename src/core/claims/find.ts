/**
 * Finds claims in a text: word by word, in four languages, longest phrase first. Hyphens and accents do
 * not matter; a negation shortly before a phrase undoes it ("does not treat acne").
 */
import { MARKETS, type Market } from '../formula/types';
import { isDenied, isNegated } from './denied';
import { starred, type Pattern, type Step } from './patterns';
import { sentences, wordsOf, type Word } from './text';
import { type ClaimClass, type ClaimFinding, type ClaimPhrase, type Language } from './types';

const LONGEST_GAP = 2;

/** A text made ready: each word, and each two that a phrase may write as one, by their place among those that differ. */
interface Prepared {
  /** Everything that differs, each once. */
  texts: readonly string[];
  placeOf: ReadonlyMap<string, number>;
  /** Of each word its place; of it and the next together; -1 where a clause ends between. */
  one: Int32Array;
  two: Int32Array;
  /** Which texts a form fits, kept while the text is looked through. */
  fits: Map<string, readonly number[]>;
}

/** A word and the next count together only for forms longer than this. */
const SHORT_FORM = 5;

function prepared(words: readonly Word[]): Prepared {
  const placeOf = new Map<string, number>();
  const texts: string[] = [];
  const place = (text: string) => {
    const known = placeOf.get(text);
    if (known !== undefined) return known;
    placeOf.set(text, texts.length);
    return texts.push(text) - 1;
  };
  const one = Int32Array.from(words, ({ text }) => place(text));
  const two = Int32Array.from(words, ({ text }, at) => {
    const next = words[at + 1];
    return next && !next.opens ? place(text + next.text) : -1;
  });
  return { texts, placeOf, one, two, fits: new Map() };
}

/** Patterns by what one of their words begins with, so that a text is held only against those that it may fit. */
interface PatternIndex {
  exact: ReadonlyMap<string, readonly number[]>;
  /** Forms with a star, each with its patterns: few. */
  starred: readonly { test: (text: string) => boolean; patterns: readonly number[] }[];
}

const indices = new WeakMap<readonly Pattern[], PatternIndex>();

/** The forms of the word that tells most of a pattern: the one with the fewest, of those that it cannot do without. */
function tellingForms({ steps }: Pattern): readonly string[] {
  const needed = steps.flatMap((step) => (step.kind === 'word' && !step.isOptional ? [step.forms] : []));
  return needed.reduce((best, forms) => (forms.length < best.length ? forms : best), needed[0] ?? []);
}

function indexOf(patterns: readonly Pattern[]): PatternIndex {
  const known = indices.get(patterns);
  if (known) return known;
  const byForm = new Map<string, number[]>();
  patterns.forEach((pattern, at) => {
    for (const form of tellingForms(pattern)) {
      const places = byForm.get(form);
      if (places) places.push(at);
      else byForm.set(form, [at]);
    }
  });
  const withStar = [...byForm].flatMap(([form, places]) => {
    const test = starred(form);
    return test ? [{ test, patterns: places }] : [];
  });
  const made = { exact: byForm, starred: withStar };
  indices.set(patterns, made);
  return made;
}

/** Places of the patterns that a text may fit, in their order. */
function candidates({ texts }: Prepared, patterns: readonly Pattern[]): number[] {
  const { exact, starred: withStar } = indexOf(patterns);
  const found = new Set<number>();
  for (const text of texts) for (const at of exact.get(text) ?? []) found.add(at);
  for (const { test, patterns: places } of withStar)
    if (texts.some(test)) for (const at of places) found.add(at);
  return [...found].sort((a, b) => a - b);
}

/** Which texts a form fits: its very own, or with a star all that begin, end or hold it so. */
function fitsOf({ texts, placeOf, fits }: Prepared, form: string): readonly number[] {
  const known = fits.get(form);
  if (known) return known;
  const test = starred(form);
  const own = placeOf.get(form);
  const found = test ? texts.flatMap((text, at) => (test(text) ? [at] : [])) : own === undefined ? [] : [own];
  fits.set(form, found);
  return found;
}

/** `fits`: which texts fit as one word, and as two that are written as one; bits 1 and 2. Null for a gap. */
interface ReadyStep {
  isOptional: boolean;
  fits: Uint8Array | null;
}

/** The steps of a phrase for one text; null where a word that it cannot do without is nowhere in it. */
function readySteps(text: Prepared, steps: readonly Step[]): ReadyStep[] | null {
  const ready: ReadyStep[] = [];
  for (const step of steps) {
    if (step.kind === 'gap') {
      ready.push({ isOptional: false, fits: null });
      continue;
    }
    const found = step.forms.map((form) => fitsOf(text, form));
    if (!step.isOptional && found.every(({ length }) => length === 0)) return null;
    const fits = new Uint8Array(text.texts.length);
    found.forEach((places, at) => {
      const bits = step.forms[at]!.length > SHORT_FORM ? 3 : 1;
      for (const place of places) fits[place]! |= bits;
    });
    ready.push({ isOptional: step.isOptional, fits });
  }
  return ready;
}

/**
 * Where a pattern ends if it begins at a word; -1 where it does not fit. Two words that hyphen or blank parts
 * ("anti-bacterial") fit one that the phrase writes together. `failed` marks the places a step was tried at in
 * vain, so that no place is tried twice however many gaps and optional words a phrase has.
 */
function endOf(
  text: Prepared,
  at: number,
  steps: readonly ReadyStep[],
  failed: Uint8Array,
  step = 0,
): number {
  if (step === steps.length) return at;
  const place = at * steps.length + step;
  if (failed[place]) return -1;
  const end = tryStep(text, at, steps, failed, step);
  if (end < 0) failed[place] = 1;
  return end;
}

function tryStep(
  text: Prepared,
  at: number,
  steps: readonly ReadyStep[],
  failed: Uint8Array,
  step: number,
): number {
  const { one, two } = text;
  const { isOptional, fits } = steps[step]!;
  if (!fits) {
    for (let skip = 0; skip <= LONGEST_GAP && at + skip <= one.length; skip++) {
      const end = endOf(text, at + skip, steps, failed, step + 1);
      if (end >= 0) return end;
    }
    return -1;
  }
  if (at < one.length && fits[one[at]!]! & 1) {
    const end = endOf(text, at + 1, steps, failed, step + 1);
    if (end >= 0) return end;
  }
  if (at < two.length && two[at]! >= 0 && fits[two[at]!]! & 2) {
    const end = endOf(text, at + 2, steps, failed, step + 1);
    if (end >= 0) return end;
  }
  return isOptional ? endOf(text, at, steps, failed, step + 1) : -1;
}

function classes(phrase: ClaimPhrase): Record<Market, ClaimClass> {
  return Object.fromEntries(
    MARKETS.map((market) => [market, phrase.markets?.[market] ?? phrase.class]),
  ) as Record<Market, ClaimClass>;
}

/** What was found in a text, and which of its words belong to a phrase that is known, one that promises nothing with them. */
export interface Found {
  words: readonly Word[];
  taken: readonly boolean[];
  /** Which words say what a bar is said not to be. */
  denied: readonly boolean[];
  claims: ClaimFinding[];
}

/** Whether a word is one of some forms. */
export const fitsAny = (forms: readonly string[]) => {
  const tests = forms.map((form) => starred(form) ?? ((text: string) => text === form));
  return (text: string) => tests.some((test) => test(text));
};

/** A span of words that a pattern fits, from the first up to the last; `at` are those that are its own. */
interface Fitting {
  from: number;
  end: number;
  at: readonly number[];
}

const range = (from: number, end: number) => Array.from({ length: end - from }, (_, at) => from + at);

/** Where a pattern fits words that follow each other, none of them taken. */
function fittingsInOrder(
  ready: Prepared,
  wanted: readonly ReadyStep[],
  taken: readonly boolean[],
): Fitting[] {
  const failed = new Uint8Array((taken.length + 1) * wanted.length);
  const found: Fitting[] = [];
  let from = 0;
  while (from < taken.length) {
    const end = taken[from] ? -1 : endOf(ready, from, wanted, failed);
    const isFitting = end > from && end <= taken.length && !taken.slice(from, end).some(Boolean);
    if (isFitting) found.push({ from, end, at: range(from, end) });
    from = isFitting ? end : from + 1;
  }
  return found;
}

/** Where the words of a pattern stand apart in one sentence that nothing known was found in yet. */
function fittingsApart(
  { one }: Prepared,
  wanted: readonly ReadyStep[],
  taken: readonly boolean[],
  spans: readonly Span[],
): Fitting[] {
  return spans.flatMap(({ from, end }): Fitting[] => {
    const at = wanted.map(({ fits }) =>
      range(from, end).find((place) => !taken[place] && (fits![one[place]!]! & 1) === 1),
    );
    if (at.includes(undefined)) return [];
    const places = at as number[];
    if (new Set(places).size < places.length) return [];
    return [{ from: Math.min(...places), end: Math.max(...places) + 1, at: places }];
  });
}

interface Span {
  from: number;
  end: number;
}

/** The sentences in which no claim was found yet, and none of whose words is among some. */
const openSpans = (
  all: readonly Span[],
  words: readonly Word[],
  claims: readonly ClaimFinding[],
  unless: readonly string[],
) => {
  const isAmong = fitsAny(unless);
  return all.filter(({ from, end }) => {
    const said = words.slice(from, end);
    const [first, last] = [said[0]!.from, said.at(-1)!.to];
    return (
      !claims.some((claim) => claim.from < last && claim.to > first) &&
      !said.some(({ text }) => isAmong(text))
    );
  });
};

/** Claims of what a bar is, which a plain denial undoes even where a denial may be the claim itself. */
const OF_WHAT_IT_IS: readonly ClaimClass[] = ['composition', 'absolute'];

/** Looks a text through for phrases, in its order; a word belongs to one claim at most. */
export function lookThrough(
  text: string,
  patterns: readonly Pattern[],
  languages: readonly Language[],
): Found {
  const words = wordsOf(text);
  const taken = new Array<boolean>(words.length).fill(false);
  const denied = taken.slice();
  const ready = prepared(words);
  const spans = sentences(text, words).map(([from, end]) => ({ from, end }));
  const claims: ClaimFinding[] = [];
  for (const place of candidates(ready, patterns)) {
    const { phrase, steps, isApart, unless } = patterns[place]!;
    if (!languages.includes(phrase.language)) continue;
    const wanted = readySteps(ready, steps);
    if (!wanted) continue;
    const found = isApart
      ? fittingsApart(ready, wanted, taken, openSpans(spans, words, claims, unless))
      : fittingsInOrder(ready, wanted, taken);
    for (const { from: first, end, at } of found) {
      // "It is no cure, but my rash is gone": what one clause denies says nothing of the next.
      const isAcross = words.slice(first + 1, end).some(({ opens }) => opens);
      if (isAcross && !phrase.ignoresNegation && isNegated(words, first, end)) continue;
      for (const one of at) taken[one] = true;
      // What promises nothing only keeps its words from being taken for a promise.
      if (phrase.isSilent) continue;
      if (OF_WHAT_IT_IS.includes(phrase.class) && isDenied(words, first, end)) {
        denied.fill(true, first, end);
        continue;
      }
      if (!phrase.ignoresNegation && isNegated(words, first, end)) continue;
      const [from, to] = [words[first]!.from, words[end - 1]!.to];
      claims.push({
        phrase: phrase.id,
        language: phrase.language,
        words: text.slice(from, to),
        from,
        to,
        class: classes(phrase),
        fact: phrase.fact ?? null,
        why: phrase.why,
        plainer: phrase.plainer,
      });
    }
  }
  return { words, taken, denied, claims: claims.sort((a, b) => a.from - b.from) };
}
