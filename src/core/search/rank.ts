/** How well a name answers to what was typed, typing errors forgiven. Pure. */

import { folded } from '../folded';

/**
 * Small letters without marks, split into words.
 *
 * @example wordsOf('Crème, No. 2') // ['creme', 'no', '2']
 */
export function wordsOf(text: string): string[] {
  return folded(text)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);
}

/** The letters of a word, a bit each; some share one. */
function lettersOf(word: string): number {
  let bits = 0;
  for (let at = 0; at < word.length; at++) bits |= 1 << (word.charCodeAt(at) & 31);
  return bits;
}

/** How many letters of one word are nowhere in another, at least: each takes an edit of its own. */
function lettersMissing(a: string, b: string): number {
  let count = 0;
  for (let left = lettersOf(a) & ~lettersOf(b); left !== 0; left &= left - 1) count++;
  return count;
}

/**
 * Edits from one word to each beginning of another, by the letters that it has: letters left out, put in, exchanged, or
 * two of them swapped (the restricted Damerau-Levenshtein distance); `most` + 1 where there are more than that.
 *
 * @example editsToBeginnings('lamp', 'lampe', 1) // [2, 2, 2, 1, 0, 1]
 */
export function editsToBeginnings(a: string, b: string, most: number): number[] {
  if (lettersMissing(a, b) > most) return Array.from({ length: b.length + 1 }, () => most + 1);
  let before: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const isSame = a[i - 1] === b[j - 1];
      let edits = Math.min(last[j]! + 1, row[j - 1]! + 1, last[j - 1]! + Number(!isSame));
      if (!isSame && i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        edits = Math.min(edits, before[j - 2]! + 1);
      row.push(edits);
    }
    [before, last] = [last, row];
  }
  return last.map((edits) => Math.min(edits, most + 1));
}

/** Errors forgiven in a word of so many letters. */
export const forgiven = (letters: number): number => (letters < 4 ? 0 : letters < 8 ? 1 : 2);

/** How well one word answers to one typed: 1 the same, less for a beginning, a part, a beginning with errors; 0 not. */
function answers(typed: string, word: string): number {
  if (word === typed) return 1;
  if (word.startsWith(typed)) return 0.9;
  if (typed.length >= 3 && word.includes(typed)) return 0.6;
  const most = forgiven(typed.length);
  if (most === 0) return 0;
  const to = editsToBeginnings(typed, word, most);
  const whole = to[word.length]!;
  // What is still being typed is held against as much of the word.
  const begun = Math.min(...[-1, 0, 1].map((more) => to[Math.min(typed.length + more, word.length)]!));
  const edits = Math.min(whole, begun + 0.25);
  return edits <= most ? 0.5 - 0.15 * edits : 0;
}

const best = (typed: string, words: readonly string[]) =>
  words.reduce((most, word) => Math.max(most, answers(typed, word)), 0);

/** Words about something count for so much less than its title. */
const ABOUT = 0.5;

/**
 * How well a title with words about it answers to what was typed, from 0 (not at all: some typed word is nowhere)
 * to a little over 1. A title that begins with it, and a short one, come first.
 *
 * @example rank(['nigt', 'mail'], 'Night Mail') > rank(['nigt', 'mail'], 'Night Train') // true
 */
export function rank(typed: readonly string[], title: string, about = ''): number {
  return rankWords(typed, wordsOf(title), wordsOf(about));
}

/** The same with both split into words already. */
export function rankWords(
  typed: readonly string[],
  named: readonly string[],
  said: readonly string[],
): number {
  if (typed.length === 0) return 0;
  let sum = 0;
  for (const one of typed) {
    const value = Math.max(best(one, named), ABOUT * best(one, said));
    if (value === 0) return 0;
    sum += value;
  }
  const begins = named[0]?.startsWith(typed[0]!) ? 0.1 : 0;
  return sum / typed.length + begins + 0.05 / (1 + named.length);
}

const windows = (word: string) =>
  Array.from({ length: Math.max(0, word.length - 2) }, (_, at) => word.slice(at, at + 3));

/** A word with each two letters that stand side by side swapped, once each. */
const swapped = (word: string) =>
  Array.from({ length: word.length - 1 }, (_, at) =>
    [word.slice(0, at), word[at + 1], word[at], word.slice(at + 2)].join(''),
  );

/**
 * Pieces of three letters in what was typed: what full text search by trigrams is asked for. A short word with two
 * letters swapped shares none with what was meant, so it is asked for in every such order.
 *
 * @example trigrams(['shea']).slice(0, 2) // ['she', 'hea']
 */
export function trigrams(typed: readonly string[]): string[] {
  const spelt = typed.flatMap((word) =>
    forgiven(word.length) === 1 && word.length < 6 ? [word, ...swapped(word)] : [word],
  );
  return [...new Set(spelt.flatMap(windows))];
}
