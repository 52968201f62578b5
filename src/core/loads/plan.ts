/**
 * A formula made ready for reckoning: every line's unit, density, chemistry and doubt read once into flat
 * arrays, so that one plan serves the assessment, the largest loads, sliders and sweeps.
 */
import { isFatty } from '../formula/fats';
import { unitRule, type UnitBase } from '../quantities/units';
import type { Formula, Line, Material, Measure } from '../formula/types';

const PER_HUNDRED = 1 / 100;

/** Relative doubt on a mass by how it was measured: low, high (assessment page). */
const MEASURE_DOUBT: Record<Measure, readonly [number, number]> = {
  scale: [-0.01, 0.01],
  spoon: [-0.15, 0.15],
  heaped: [-0.1, 0.6],
  eye: [-0.4, 0.6],
};

/** What a line's coefficient is multiplied with. Fat lines per fats are of the formula's stated fats mass. */
export const BASE = { absolute: 0, fats: 1, liquid: 2, pour: 3, cured: 4 } as const;

/** Safety margin when the maker has set none, percent (assessment page). */
export const DEFAULT_MARGIN_PCT = 10;
/**
 * Water left in a bar whose cure is not stated, percent. A dry bar holds the higher loads, so the low end of
 * what cured bars keep is taken.
 */
export const DEFAULT_RESIDUAL_WATER_PCT = 5;

/** A line measured with a spoon, cup or jug is held as a spoon measure unless the maker says otherwise. */
export function measureOf(line: Line): Measure {
  return line.measuredBy ?? (unitRule(line.amount.unit)?.byVolume ? 'spoon' : 'scale');
}

/** How unsure a way of measuring is, relative, low and high; a spoon that its maker has weighed as it was found to be. */
export function measureDoubt(
  measure: Measure,
  spoonPct: number | null | undefined,
): readonly [number, number] {
  if (measure !== 'spoon' || spoonPct == null) return MEASURE_DOUBT[measure];
  const relative = spoonPct * PER_HUNDRED;
  return [-Math.min(relative, 1), relative];
}

function doubtOf(line: Line, { spoonPct }: Pick<Material, 'spoonPct'>): readonly [number, number] {
  if (line.doubtPct) return [-Math.min(line.doubtPct.low * PER_HUNDRED, 1), line.doubtPct.high * PER_HUNDRED];
  if (line.uncertaintyPct !== undefined && line.uncertaintyPct !== null) {
    const relative = line.uncertaintyPct * PER_HUNDRED;
    return [-Math.min(relative, 1), relative];
  }
  return measureDoubt(measureOf(line), spoonPct);
}

export interface PlanPortion {
  id: string;
  share: number;
}

/** One line's place in the plan. Coefficients: the mass is `coefficient` times the base. */
export interface Plan {
  formula: Formula;
  lines: readonly Line[];
  materials: readonly Material[];
  count: number;
  base: number[];
  coefficient: number[];
  /** 1 for fats and waxes. */
  isFat: number[];
  /** Pure alkali taken up in the pot by a gram of the line, as a fat or wax. */
  cookDemand: number[];
  /** The same for fats that go in after the cook. */
  laterDemand: number[];
  /** Pure alkali taken up by the fat that a gram of a milk carries. */
  milkDemand: number[];
  /** The part of `cookDemand` and `milkDemand` that frees water: free acids. */
  waterDemand: number[];
  acidUptake: number[];
  waterShare: number[];
  doubtLow: number[];
  doubtHigh: number[];
  /** Index of the line's portion, or -1 for the common batter. */
  portionOf: number[];
  portions: readonly PlanPortion[];
  /** 1 for lines of liquid, with the lye or held back. */
  isLiquid: number[];
  /**
   * Totals to be solved for, because lines are stated in percent of them: 1 the pour, 2 the cured mass, and 0
   * the liquid where a fat or an acid in percent of it bears on the lye, and so on the liquid.
   */
  unknowns: number[];
  purity: number;
  superfat: number | null;
  alkaliMassG: number | null;
  massRatio: number | null;
  residualShare: number;
  margin: number;
}

/** Acids and fats belong to the common batter whatever portion their line names. */
export function isAlwaysCommon(material: Material): boolean {
  return isFatty(material) || (material.alkaliUptake ?? 0) > 0;
}

function addUnknown(plan: Plan, place: number): void {
  if (!plan.unknowns.includes(place)) plan.unknowns.push(place);
}

function fillAmount(plan: Plan, index: number, line: Line, material: Material): void {
  const rule = unitRule(line.amount.unit)!;
  const density = rule.byVolume ? (material.bulkDensity ?? 0) : 1;
  const coefficient = line.amount.value * rule.factor * density;
  const ofStatedFats = rule.base === 'fats' && isFatty(material);
  const base: UnitBase = ofStatedFats ? 'absolute' : rule.base;
  plan.base[index] = BASE[base];
  plan.coefficient[index] = ofStatedFats ? coefficient * (plan.formula.fatsMassG ?? 0) : coefficient;
  const bearsOnLye = isFatty(material) || (material.alkaliUptake ?? 0) > 0;
  if (base === 'liquid' && bearsOnLye) addUnknown(plan, 0);
  if (base === 'pour') addUnknown(plan, 1);
  if (base === 'cured') addUnknown(plan, 2);
}

function fillChemistry(plan: Plan, index: number, line: Line, material: Material): void {
  plan.isLiquid[index] = Number(line.stage === 'liquid' || line.stage === 'heldBack');
  plan.waterShare[index] = (material.waterPct ?? 0) * PER_HUNDRED;
  plan.acidUptake[index] = isFatty(material) ? 0 : (material.alkaliUptake ?? 0);
  if (isFatty(material)) {
    const naoh = material.saponification?.naohPerGram ?? 0;
    plan.isFat[index] = 1;
    if (line.stage === 'afterCook') plan.laterDemand[index] = naoh;
    else {
      plan.cookDemand[index] = naoh;
      if (material.saponification?.as === 'freeAcid') plan.waterDemand[index] = naoh;
    }
    return;
  }
  const milkNaoh = (material.fatPct ?? 0) * PER_HUNDRED * (material.fatSaponification?.naohPerGram ?? 0);
  plan.milkDemand[index] = milkNaoh;
  if (material.fatSaponification?.as === 'freeAcid') plan.waterDemand[index] = milkNaoh;
}

function emptyPlan(formula: Formula, materials: readonly Material[]): Plan {
  const count = formula.lines.length;
  const numbers = () => new Array<number>(count).fill(0);
  const cure = formula.cure ?? {};
  return {
    formula,
    lines: formula.lines,
    materials,
    count,
    base: new Array<number>(count).fill(0),
    coefficient: numbers(),
    isFat: new Array<number>(count).fill(0),
    cookDemand: numbers(),
    laterDemand: numbers(),
    milkDemand: numbers(),
    waterDemand: numbers(),
    acidUptake: numbers(),
    waterShare: numbers(),
    doubtLow: numbers(),
    doubtHigh: numbers(),
    portionOf: new Array<number>(count).fill(-1),
    portions: formula.portions ?? [],
    isLiquid: numbers(),
    unknowns: [],
    purity: (formula.alkali.purityPct ?? 100) * PER_HUNDRED,
    superfat: formula.alkali.superfatPct == null ? null : formula.alkali.superfatPct * PER_HUNDRED,
    alkaliMassG: formula.alkali.massG ?? null,
    massRatio: cure.massRatio ?? null,
    residualShare: (cure.residualWaterPct ?? DEFAULT_RESIDUAL_WATER_PCT) * PER_HUNDRED,
    margin: (formula.marginPct ?? DEFAULT_MARGIN_PCT) * PER_HUNDRED,
  };
}

/**
 * The plan of a formula that has passed `checkRequest`. `materials[i]` is the material of line i.
 */
export function planFormula(formula: Formula, materials: readonly Material[]): Plan {
  const plan = emptyPlan(formula, materials);
  for (let index = 0; index < plan.count; index++) {
    const line = plan.lines[index]!;
    const material = materials[index]!;
    fillAmount(plan, index, line, material);
    fillChemistry(plan, index, line, material);
    const [low, high] = doubtOf(line, material);
    plan.doubtLow[index] = low;
    plan.doubtHigh[index] = high;
    if (line.portion != null && !isAlwaysCommon(material))
      plan.portionOf[index] = plan.portions.findIndex(({ id }) => id === line.portion);
  }
  return plan;
}
