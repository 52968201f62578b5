/**
 * What a sentence is most like of all that was ever read and classed: words that no phrase knows still share pieces,
 * beginnings and neighbours with those that were read. A linear model over such pieces, learnt by `learn.ts`.
 */
import type { Market } from '../formula/types';
import { MARKETS } from '../formula/types';
import type { ClaimClass } from './types';

/** What a sentence can be like; `border` is a medicine but in the EU and the UK, where it is cosmetic. */
export const KINDS = ['plain', 'medicine', 'border', 'cosmetic', 'absolute', 'composition'] as const;
export type Kind = (typeof KINDS)[number];

/** A learnt model: for each bucket of pieces one weight a kind, in the order of `KINDS`. */
export interface Likeness {
  /** Buckets are two to the power of this. */
  bits: number;
  /** What a weight of one stands for. */
  scale: number;
  bias: readonly number[];
  weights: Int8Array;
}

/**
 * What a sentence is like, how certain that is (0 to 1), how likely it is plain, how likely it were without the word that
 * tells most, and the words that tell most.
 */
export interface Likely {
  kind: Kind;
  certainty: number;
  plain: number;
  plainWithoutBest: number;
  because: string[];
}

const SHORTEST_PIECE = 3;
const LONGEST_PIECE = 5;
const WORDS_TOLD = 2;

/** FNV-1a over UTF-16 units, from a seed. */
function hash(text: string, seed: number): number {
  let value = seed;
  for (let at = 0; at < text.length; at++) value = Math.imul(value ^ text.charCodeAt(at), 16777619);
  return value >>> 0;
}

const OF_WORD = 2166136261;
const OF_PIECE = 84696351;
const OF_PAIR = 1540483477;

/** The buckets of a word by itself: the word, and its pieces with its ends marked. */
function ofWord(word: string, mask: number): number[] {
  const marked = `<${word}>`;
  const buckets = [hash(word, OF_WORD) & mask];
  for (let length = SHORTEST_PIECE; length <= LONGEST_PIECE; length++)
    for (let at = 0; at + length <= marked.length; at++)
      buckets.push(hash(marked.slice(at, at + length), OF_PIECE) & mask);
  return buckets;
}

/**
 * The buckets of the words of a sentence, each once: of every word, and of every two that stand side by side. Words are
 * in lower case and without accents, as `plain` makes them.
 */
export function bucketsOf(words: readonly string[], bits: number): number[] {
  const mask = 2 ** bits - 1;
  const buckets = new Set(words.flatMap((word) => ofWord(word, mask)));
  for (let at = 1; at < words.length; at++)
    buckets.add(hash(`${words[at - 1]} ${words[at]}`, OF_PAIR) & mask);
  return [...buckets];
}

/** Shares of one of kinds that are told by scores. */
export function shares(scores: readonly number[]): number[] {
  const most = Math.max(...scores);
  const raised = scores.map((score) => Math.exp(score - most));
  const sum = raised.reduce((total, one) => total + one, 0);
  return raised.map((one) => one / sum);
}

/** How much a sentence's buckets count each: a long sentence weighs no more than a short one. */
export const weightOfEach = (buckets: readonly number[]) => 1 / Math.sqrt(Math.max(1, buckets.length));

/** Places of the words that speak for a kind and against its being plain, those that speak most first. */
function telling({ bits, weights }: Likeness, words: readonly string[], kind: number): number[] {
  const mask = 2 ** bits - 1;
  const sums = words.map((word) =>
    ofWord(word, mask).reduce(
      (total, bucket) => total + weights[bucket * KINDS.length + kind]! - weights[bucket * KINDS.length]!,
      0,
    ),
  );
  return words
    .map((_, at) => at)
    .filter((at) => sums[at]! > 0)
    .sort((a, b) => sums[b]! - sums[a]!);
}

/** The share of each kind, by words. */
function sharesOf({ bits, scale, bias, weights }: Likeness, words: readonly string[]): number[] {
  const buckets = bucketsOf(words, bits);
  const each = scale * weightOfEach(buckets);
  return shares(
    bias.map(
      (start, kind) =>
        start + each * buckets.reduce((sum, bucket) => sum + weights[bucket * KINDS.length + kind]!, 0),
    ),
  );
}

/**
 * What the words of a sentence are like.
 *
 * @example
 * likelyOf(likeness, ['soothes', 'chilblains']); // { kind: 'medicine', certainty: 0.97, … because: ['chilblains'] }
 */
export function likelyOf(likeness: Likeness, words: readonly string[]): Likely {
  const share = sharesOf(likeness, words);
  const best = share.indexOf(Math.max(...share));
  const found = { kind: KINDS[best]!, certainty: share[best]!, plain: share[0]! };
  if (best === 0) return { ...found, plainWithoutBest: found.plain, because: [] };
  const told = telling(likeness, words, best);
  const because = told.slice(0, WORDS_TOLD).sort((a, b) => a - b);
  const others = words.filter((_, at) => at !== told[0]);
  return {
    ...found,
    plainWithoutBest: sharesOf(likeness, others)[0]!,
    because: because.map((at) => words[at]!),
  };
}

const BORDER: Partial<Record<Market, ClaimClass>> = { EU: 'cosmetic', UK: 'cosmetic' };

/** The class of a kind in each market. */
export function classesOf(kind: Kind): Record<Market, ClaimClass> {
  const of = (market: Market): ClaimClass => (kind === 'border' ? (BORDER[market] ?? 'medicine') : kind);
  return Object.fromEntries(MARKETS.map((market) => [market, of(market)])) as Record<Market, ClaimClass>;
}
