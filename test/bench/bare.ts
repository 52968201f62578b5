/**
 * The bare arithmetic of a sweep: the same sums and comparisons over typed arrays laid out beforehand, one
 * market after the other. Line masses are taken as solved; everything from there on is summed again.
 */
import type { Reckoning } from '../../src/core/assess';
import type { Ground } from '../../src/core/loads/ground';
import { binds } from '../../src/core/loads/limits';
import { partInSection } from '../../src/core/loads/sections';

interface FlatProduct {
  sections: number;
  count: number;
  subjects: number;
  part: Float64Array;
  mass: Float64Array;
  water: Float64Array;
  isFat: Uint8Array;
  low: Float64Array;
  high: Float64Array;
  entryLine: Int32Array;
  entrySubject: Int32Array;
  entryLow: Float64Array;
  entryTypical: Float64Array;
  entryHigh: Float64Array;
  alkaliG: number;
  reactionWaterG: number;
  fatsG: number;
  share: Float64Array;
  residual: number;
  limitSubject: Int32Array;
  limitBasis: Uint8Array;
  limitMax: Float64Array;
  limitBinds: Uint8Array;
  /** Bit m: in force in market m. */
  limitMarkets: Uint8Array;
  sums: Float64Array;
}

const BASES = { fats: 0, pour: 1, cured: 2 };

/** Lays a reckoned product out flat. */
export function flatten({ plan, batch, subjects, all }: Reckoning, ground: Ground): FlatProduct {
  const rules = subjects.limits.flatMap((limits, k) =>
    subjects.isCarried[k] ? limits.map((rule) => ({ rule, k })) : [],
  );
  const part = new Float64Array(all.length * plan.count);
  for (let s = 0; s < all.length; s++) {
    for (let i = 0; i < plan.count; i++) part[s * plan.count + i] = partInSection(plan, s, i);
  }
  return {
    sections: all.length,
    count: plan.count,
    subjects: subjects.count,
    part,
    mass: Float64Array.from(batch.massG),
    water: Float64Array.from(plan.waterShare),
    isFat: Uint8Array.from(plan.isFat),
    low: Float64Array.from(plan.doubtLow),
    high: Float64Array.from(plan.doubtHigh),
    entryLine: Int32Array.from(subjects.line),
    entrySubject: Int32Array.from(subjects.subject),
    entryLow: Float64Array.from(subjects.low),
    entryTypical: Float64Array.from(subjects.typical),
    entryHigh: Float64Array.from(subjects.high),
    alkaliG: batch.alkaliG,
    reactionWaterG: batch.reactionWaterG,
    fatsG: batch.fatsG,
    share: Float64Array.from(all.map(({ share }) => share)),
    residual: plan.residualShare,
    limitSubject: Int32Array.from(rules.map(({ k }) => k)),
    limitBasis: Uint8Array.from(rules.map(({ rule }) => BASES[rule.limit.basis])),
    limitMax: Float64Array.from(rules.map(({ rule }) => rule.limit.maxPct)),
    limitBinds: Uint8Array.from(rules.map(({ rule }) => Number(binds(rule.limit.force)))),
    limitMarkets: Uint8Array.from(
      rules.map(({ rule }) => rule.marketIndexes.reduce((bits, index) => bits | (1 << index), 0)),
    ),
    sums: new Float64Array(subjects.count * 5 + ground.markets.length),
  };
}

/** Least headroom of one product in one market over its binding limits, summed from scratch. */
export function leastHeadroom(p: FlatProduct, market: number): number {
  const { subjects: k, sums } = p;
  let least = Infinity;
  for (let s = 0; s < p.sections; s++) {
    let pour = p.share[s]! * p.alkaliG;
    let water = p.share[s]! * p.reactionWaterG;
    for (let i = 0; i < p.count; i++) {
      const m = p.part[s * p.count + i]! * p.mass[i]!;
      pour += m;
      water += m * p.water[i]!;
    }
    const cured = Math.min(pour, (pour - water) / (1 - p.residual));
    const fats = p.share[s]! * p.fatsG;
    sums.fill(0);
    for (let e = 0; e < p.entryLine.length; e++) {
      const i = p.entryLine[e]!;
      const j = p.entrySubject[e]!;
      const m = p.part[s * p.count + i]! * p.mass[i]!;
      sums[j]! += m * p.entryTypical[e]!;
      sums[k + j]! += m * (1 + p.low[i]!) * p.entryLow[e]!;
      sums[2 * k + j]! += m * (1 + p.high[i]!) * p.entryHigh[e]!;
      sums[3 * k + j]! += m * p.high[i]!;
      if (p.isFat[i]) sums[4 * k + j]! += m * p.high[i]!;
    }
    for (let l = 0; l < p.limitMax.length; l++) {
      if (!p.limitBinds[l] || !(p.limitMarkets[l]! & (1 << market)) || p.limitMax[l] === 0) continue;
      const j = p.limitSubject[l]!;
      const basis =
        p.limitBasis[l] === 0
          ? fats + sums[4 * k + j]!
          : (p.limitBasis[l] === 1 ? pour : cured) + sums[3 * k + j]!;
      const headroom = 100 * (1 - (100 * sums[2 * k + j]!) / basis / p.limitMax[l]!);
      if (headroom < least) least = headroom;
    }
  }
  return least;
}
