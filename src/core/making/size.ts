/** Sizes: what volume a batch of batter takes, how it fills moulds, and scaling it to a wanted size. */
import type { Assessment } from '../formula/answer';
import type { Amount, Formula, Material } from '../formula/types';
import type { MouldMake } from '../heat/mould';
import { unitRule } from '../quantities/units';

/** A mould of the maker's: one block that is cut, or cavities that hold a bar each. */
export interface Mould {
  id: string;
  name: string;
  /** Millilitres of one mould, all its cavities together. */
  volumeMl: number;
  /** Bars that come out of one mould. */
  cavities: number;
  /** Every cavity holds a bar of its own, so that nothing is cut. */
  isSingle?: boolean;
  /** Wall and inside, where somebody measured it; for how the block heats. */
  make?: MouldMake | null;
}

/**
 * Density of sodium hydroxide dissolved in water at 20 °C, g/mL, by percent of hydroxide (usual handbook
 * values). Between them it runs nearly straight.
 */
const LYE_DENSITY: readonly (readonly [pct: number, gPerMl: number])[] = [
  [0, 0.998],
  [10, 1.109],
  [20, 1.219],
  [30, 1.328],
  [40, 1.43],
  [50, 1.525],
];
const WATER_DENSITY = 0.998;
const PER_HUNDRED = 1 / 100;

/** Density of lye water, g/mL, from its percent of sodium hydroxide; beyond 50 % the last figure holds. */
export function lyeDensity(alkaliPct: number): number {
  const upper = LYE_DENSITY.findIndex(([pct]) => pct >= alkaliPct);
  if (upper === 0) return LYE_DENSITY[0]![1];
  if (upper === -1) return LYE_DENSITY.at(-1)![1];
  const [lowPct, low] = LYE_DENSITY[upper - 1]!;
  const [highPct, high] = LYE_DENSITY[upper]!;
  return low + ((high - low) * (alkaliPct - lowPct)) / (highPct - lowPct);
}

export interface BatterVolume {
  volumeMl: number;
  lines: { id: string; volumeMl: number }[];
  lyeMl: number;
  /** Lines whose material has no density on file; they are counted as water. */
  guessed: string[];
}

/** Volume of the fresh batter: every line by its density in batter, the alkali by what it adds to the water. */
export function batterVolume(
  formula: Formula,
  assessment: Assessment,
  material: (id: string) => Material | undefined,
): BatterVolume {
  const guessed: string[] = [];
  const massOf = new Map(assessment.lines.map(({ id, massG }) => [id, massG]));
  let waterG = 0;
  const lines = formula.lines.map((line) => {
    const massG = massOf.get(line.id) ?? 0;
    const found = material(line.material);
    if (line.stage === 'liquid') waterG += massG * (found?.waterPct ?? 0) * PER_HUNDRED;
    const density = found?.density ?? found?.bulkDensity;
    if (!density && massG > 0) guessed.push(line.id);
    return { id: line.id, volumeMl: massG / (density || WATER_DENSITY) };
  });
  const { alkaliG } = assessment.masses;
  const solutionG = waterG + alkaliG;
  const solutionMl = solutionG > 0 ? solutionG / lyeDensity((100 * alkaliG) / solutionG) : 0;
  const lyeMl = Math.max(0, solutionMl - waterG / WATER_DENSITY);
  const volumeMl = lines.reduce((sum, line) => sum + line.volumeMl, 0) + lyeMl;
  return { volumeMl, lines, lyeMl, guessed };
}

/** How a batch fills a kind of mould. */
export interface Fill {
  /** Moulds filled to the rim. */
  full: number;
  /** Batter beyond them, millilitres and grams. */
  leftMl: number;
  leftG: number;
  /** Whole bars that the rest would make in cavities of the same size. */
  leftBars: number;
  /** Share of the last mould, begun or full, that is filled; 0 to 1. */
  lastFilled: number;
}

/** A mould filled to within this share of it counts as full; no pour is more exact. */
const FULL_WITHIN = 1e-3;

/**
 * Fills moulds one after the other; batter that does not fill one is left over for small moulds.
 *
 * @example
 * fillMoulds(3000, 3150, { ...loaf, volumeMl: 1200 }); // two full, 600 ml left over
 */
export function fillMoulds(volumeMl: number, pourG: number, mould: Mould): Fill {
  const whole = volumeMl / mould.volumeMl;
  const full = Math.floor(whole + FULL_WITHIN);
  const leftMl = Math.max(0, volumeMl - full * mould.volumeMl);
  return {
    full,
    leftMl,
    leftG: volumeMl > 0 ? (leftMl / volumeMl) * pourG : 0,
    leftBars: Math.floor(leftMl / (mould.volumeMl / mould.cavities) + 1e-9),
    lastFilled: leftMl > 0 ? leftMl / mould.volumeMl : full > 0 ? 1 : 0,
  };
}

/**
 * What the moulds that were set out hold together, millilitres; null where none is known.
 *
 * @example
 * heldBy([{ id: 'loaf', count: 2 }], [{ ...loaf, volumeMl: 1200 }]); // 2400
 */
export function heldBy(
  set: readonly { id: string; count: number }[],
  onFile: readonly Mould[],
): number | null {
  const known = set.flatMap(({ id, count }) => {
    const mould = onFile.find((one) => one.id === id);
    return mould ? [mould.volumeMl * count] : [];
  });
  return known.length === 0 ? null : known.reduce((sum, ml) => sum + ml, 0);
}

function scaledAmount(amount: Amount, factor: number): Amount {
  const isAbsolute = unitRule(amount.unit)?.base === 'absolute';
  return isAbsolute ? { ...amount, value: amount.value * factor } : amount;
}

/**
 * The same bar in another size: every stated mass and spoon by one factor; percents stay as they are.
 *
 * @example
 * scaleFormula(formula, scaleFactor({ kind: 'bars', count: 24, barG: 100 }, assessment, volumeMl));
 */
export function scaleFormula(formula: Formula, factor: number): Formula {
  const { alkali, fatsMassG } = formula;
  return {
    ...formula,
    fatsMassG: fatsMassG == null ? fatsMassG : fatsMassG * factor,
    alkali: alkali.massG == null ? alkali : { ...alkali, massG: alkali.massG * factor },
    lines: formula.lines.map((line) => ({ ...line, amount: scaledAmount(line.amount, factor) })),
  };
}

export type Target =
  | { kind: 'fats'; massG: number }
  | { kind: 'bars'; count: number; barG: number }
  | { kind: 'mould'; mould: Mould; count: number };

/** The factor that brings a batch to a target: fats in grams, bars of a cured weight, or moulds filled to the rim. */
export function scaleFactor(target: Target, assessment: Assessment, volumeMl: number): number {
  const { fatsG, curedG } = assessment.masses;
  switch (target.kind) {
    case 'fats':
      return target.massG / fatsG;
    case 'bars':
      return (target.count * target.barG) / curedG;
    case 'mould':
      return (target.count * target.mould.volumeMl) / volumeMl;
  }
}
