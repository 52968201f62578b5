/** Learns from sentences that a reader classed what other sentences are like. Always the same from the same sentences. */
import { seededRandom, type Random } from '../numerics/random';
import { bucketsOf, KINDS, shares, weightOfEach, type Kind, type Likeness } from './likeness';
import type { ClaimPhrase } from './types';
import { wordsOf } from './text';

/** A sentence that was read, and what it promises. */
export interface Saying {
  kind: Kind;
  say: string;
}

const BITS = 15;
const ROUNDS = 10;
const STEP = 0.3;
const BIAS_STEP = 0.05;
/** Keeps weights of pieces that were seen once small. */
const DECAY = 1e-4;
const LARGEST_WEIGHT = 127;
/** Weights above this share of all are cut off, so that few large ones do not make all others coarse. */
const CUT_AT = 0.999;

function shuffle(order: Int32Array, { uniform }: Random): void {
  for (let at = order.length - 1; at > 0; at--) {
    const other = Math.floor(uniform() * (at + 1));
    [order[at], order[other]] = [order[other]!, order[at]!];
  }
}

/** Weights as they are learnt, each with the sum of its squared slopes. */
interface Learnt {
  weights: Float64Array;
  slopes: Float64Array;
  bias: number[];
  biasSlopes: number[];
}

/** One step towards what a sentence was read as. */
function learnOne({ weights, slopes, bias, biasSlopes }: Learnt, buckets: readonly number[], wanted: number) {
  const each = weightOfEach(buckets);
  const scores = bias.map((start, kind) => {
    let sum = 0;
    for (const bucket of buckets) sum += weights[bucket * KINDS.length + kind]!;
    return start + each * sum;
  });
  const miss = shares(scores);
  miss[wanted]! -= 1;
  for (const bucket of buckets)
    for (let kind = 0; kind < KINDS.length; kind++) {
      const place = bucket * KINDS.length + kind;
      const slope = each * miss[kind]! + DECAY * weights[place]!;
      slopes[place]! += slope * slope;
      weights[place]! -= (STEP * slope) / Math.sqrt(slopes[place]!);
    }
  for (let kind = 0; kind < KINDS.length; kind++) {
    biasSlopes[kind]! += miss[kind]! ** 2;
    bias[kind]! -= (BIAS_STEP * miss[kind]!) / Math.sqrt(biasSlopes[kind]!);
  }
}

/** Weights in whole numbers from -127 to 127, and what one stands for. */
function inWhole(weights: Float64Array): Pick<Likeness, 'scale' | 'weights'> {
  const sizes = weights
    .filter((weight) => weight !== 0)
    .map(Math.abs)
    .sort();
  const scale = (sizes[Math.floor(sizes.length * CUT_AT)] ?? 1) / LARGEST_WEIGHT;
  const whole = Int8Array.from(weights, (weight) =>
    Math.max(-LARGEST_WEIGHT, Math.min(LARGEST_WEIGHT, Math.round(weight / scale))),
  );
  return { scale, weights: whole };
}

/**
 * Learns from sayings.
 *
 * @example
 * likelyOf(learnLikeness(sayings), ['eases', 'gout']).kind; // 'medicine'
 */
export function learnLikeness(sayings: readonly Saying[]): Likeness {
  const read = sayings.map(({ kind, say }) => ({
    buckets: bucketsOf(
      wordsOf(say).map(({ text }) => text),
      BITS,
    ),
    wanted: KINDS.indexOf(kind),
  }));
  const size = 2 ** BITS * KINDS.length;
  const learnt: Learnt = {
    weights: new Float64Array(size),
    slopes: new Float64Array(size).fill(1e-6),
    bias: KINDS.map(() => 0),
    biasSlopes: KINDS.map(() => 1e-6),
  };
  const order = Int32Array.from(read, (_, at) => at);
  const random = seededRandom(1);
  for (let round = 0; round < ROUNDS; round++) {
    shuffle(order, random);
    for (const at of order) learnOne(learnt, read[at]!.buckets, read[at]!.wanted);
  }
  return { bits: BITS, bias: learnt.bias, ...inWhole(learnt.weights) };
}

/** Forms of a phrase that are said side by side, at most. */
const MOST_SAID = 12;

function kindOf({ class: of, markets, isSilent }: ClaimPhrase): Kind {
  if (isSilent) return 'plain';
  return of === 'medicine' && markets?.EU === 'cosmetic' ? 'border' : of;
}

/** What a phrase says, with each of its words' forms in turn. */
function sayingsOf(say: string): string[] {
  const steps = say.split(/\s+/).flatMap((part) => {
    if (part === '..' || part === '&') return [];
    return [
      part
        .replace(/[()]/g, '')
        .split('|')
        .map((form) => form.replaceAll('*', '')),
    ];
  });
  const count = Math.min(MOST_SAID, Math.max(0, ...steps.map(({ length }) => length)));
  return Array.from({ length: count }, (_, at) => steps.map((forms) => forms[at % forms.length]).join(' '));
}

/** What phrases say, as sayings to learn from. */
export const sayingsOfPhrases = (phrases: readonly ClaimPhrase[]): Saying[] =>
  phrases.flatMap((phrase) => phrase.say.flatMap(sayingsOf).map((say) => ({ kind: kindOf(phrase), say })));
