/**
 * The masses of a batch: lines, alkali, liquid, reaction, water and cure (assessment page, steps 1 to 7).
 *
 * Lines in percent of the liquid, the pour or the cured bar refer to totals that hold the line itself. Those
 * totals are unknowns; the batch is reckoned forward from a guess of them and the guess is solved for by
 * Newton's method, which is exact in one step wherever the relation is linear (it bends only where a milk's
 * fat or a free acid shifts the saponified share).
 */
import { WATER_PER_NAOH } from '../chemistry/reaction';
import { BASE, type Plan } from './plan';

export interface Balance {
  massG: number[];
  fatsG: number;
  acidG: number;
  alkaliPureG: number;
  alkaliG: number;
  liquidG: number;
  cookDemandG: number;
  laterDemandG: number;
  milkDemandG: number;
  /** Share of the fats in the pot that turns to soap, 0 to 1. */
  saponified: number;
  /** Share of the acids that the alkali suffices to neutralise, 0 to 1. */
  neutralised: number;
  reactionWaterG: number;
  waterG: number;
  pourG: number;
  curedG: number;
  /** False where percents of the whole leave no mass that satisfies them. */
  solved: boolean;
}

/** One line held at a mass, whatever its amount says. */
export interface Override {
  line: number;
  massG: number;
}

const SOLVED_RELATIVE = 1e-14;
const ACCEPTED_RELATIVE = 1e-10;
const MOST_STEPS = 60;
const DIFFERENCE_STEP = 1e-4;

/** Cured mass from the pour and its water (step 7); shared by the batch and its portions. */
export function curedMass(plan: Plan, pourG: number, waterG: number): number {
  if (plan.massRatio !== null) return pourG * plan.massRatio;
  return Math.min(pourG, (pourG - waterG) / (1 - plan.residualShare));
}

function emptyBalance(count: number): Balance {
  return {
    massG: new Array<number>(count).fill(0),
    fatsG: 0,
    acidG: 0,
    alkaliPureG: 0,
    alkaliG: 0,
    liquidG: 0,
    cookDemandG: 0,
    laterDemandG: 0,
    milkDemandG: 0,
    saponified: 0,
    neutralised: 1,
    reactionWaterG: 0,
    waterG: 0,
    pourG: 0,
    curedG: 0,
    solved: true,
  };
}

/** A guess of the totals that lines refer to: liquid, pour and cured mass, grams, in this order. */
type Guess = [liquidG: number, pourG: number, curedG: number];

/** The totals in a guess, by their place in it. */
const TOTALS = ['liquidG', 'pourG', 'curedG'] as const;

/** The base of lines in percent of the liquid, which wait until it is known; -1 where the liquid hangs on them. */
function waitingBase({ unknowns }: Plan): number {
  return unknowns.includes(0) ? -1 : BASE.liquid;
}

/** Masses of all lines but those that wait for the liquid, and what the alkali follows from. */
function fillMasses(plan: Plan, out: Balance, guess: Guess, override: Override | null): void {
  const { base, coefficient, isFat, count, cookDemand, laterDemand, acidUptake } = plan;
  const mass = out.massG;
  const held = override === null ? -1 : override.line;
  const waits = waitingBase(plan);
  let fats = 0;
  for (let i = 0; i < count; i++) {
    const b = base[i]!;
    if (b === BASE.fats || b === waits) mass[i] = 0;
    else if (i === held) mass[i] = override!.massG;
    else mass[i] = coefficient[i]! * (b === BASE.absolute ? 1 : guess[b - BASE.liquid]!);
    if (isFat[i]) fats += mass[i]!;
  }
  let cook = 0;
  let later = 0;
  let acid = 0;
  for (let i = 0; i < count; i++) {
    if (base[i] === BASE.fats) mass[i] = i === held ? override!.massG : coefficient[i]! * fats;
    const m = mass[i]!;
    cook += m * cookDemand[i]!;
    later += m * laterDemand[i]!;
    acid += m * acidUptake[i]!;
  }
  out.fatsG = fats;
  out.cookDemandG = cook;
  out.laterDemandG = later;
  out.acidG = acid;
}

function fillAlkali(plan: Plan, out: Balance): void {
  if (plan.alkaliMassG !== null) {
    out.alkaliG = plan.alkaliMassG;
    out.alkaliPureG = plan.alkaliMassG * plan.purity;
  } else {
    out.alkaliPureG = (1 - (plan.superfat ?? 0)) * out.cookDemandG + out.acidG;
    out.alkaliG = out.alkaliPureG / plan.purity;
  }
}

/** The total liquid that the formula states (step 3), or null where it states none. */
function statedLiquid(plan: Plan, out: Balance): number | null {
  const liquid = plan.formula.liquid;
  if (!liquid) return null;
  if (liquid.basis === 'ofFats') return (liquid.value / 100) * out.fatsG;
  if (liquid.basis === 'perAlkali') return liquid.value * out.alkaliG;
  return (out.alkaliG * (100 - liquid.value)) / liquid.value;
}

/** Reckons the batch forward from a guess of the self-referring totals into `out`. */
function forward(plan: Plan, out: Balance, guess: Guess, override: Override | null): void {
  fillMasses(plan, out, guess, override);
  fillAlkali(plan, out);
  const liquid = statedLiquid(plan, out);
  const mass = out.massG;
  const { base, coefficient, milkDemand, waterDemand, waterShare, isLiquid } = plan;
  const held = override === null ? -1 : override.line;
  const waits = waitingBase(plan);
  let milk = 0;
  let waterFromFats = 0;
  let water = 0;
  let poured = 0;
  let lines = 0;
  for (let i = 0; i < plan.count; i++) {
    if (base[i] === waits) mass[i] = i === held ? override!.massG : coefficient[i]! * (liquid ?? 0);
    const m = mass[i]!;
    lines += m;
    milk += m * milkDemand[i]!;
    waterFromFats += m * waterDemand[i]!;
    water += m * waterShare[i]!;
    if (isLiquid[i]) poured += m;
  }
  out.milkDemandG = milk;
  out.liquidG = liquid ?? poured;
  const demand = out.cookDemandG + milk;
  const forFats = Math.max(0, out.alkaliPureG - out.acidG);
  out.saponified = demand > 0 ? Math.min(1, forFats / demand) : 0;
  out.neutralised = out.acidG > 0 ? Math.min(1, out.alkaliPureG / out.acidG) : 1;
  out.reactionWaterG = (out.saponified * waterFromFats + out.neutralised * out.acidG) * WATER_PER_NAOH;
  out.waterG = water + out.reactionWaterG;
  out.pourG = lines + out.alkaliG;
  out.curedG = curedMass(plan, out.pourG, out.waterG);
}

/** Solves a small square system by elimination with pivoting; null where it has no single answer. */
function solveLinear(matrix: number[][], right: number[]): number[] | null {
  const n = right.length;
  const rows = matrix.map((row, i) => [...row, right[i]!]);
  for (let column = 0; column < n; column++) {
    let pivot = column;
    for (let r = column + 1; r < n; r++) {
      if (Math.abs(rows[r]![column]!) > Math.abs(rows[pivot]![column]!)) pivot = r;
    }
    if (Math.abs(rows[pivot]![column]!) < 1e-13) return null;
    [rows[column], rows[pivot]] = [rows[pivot]!, rows[column]!];
    for (let r = 0; r < n; r++) {
      if (r === column) continue;
      const factor = rows[r]![column]! / rows[column]![column]!;
      for (let c = column; c <= n; c++) rows[r]![c]! -= factor * rows[column]![c]!;
    }
  }
  return rows.map((row, i) => row[n]! / row[i]!);
}

/** One Newton step for the totals in play; false where the step does not exist. */
function step(plan: Plan, out: Balance, guess: Guess, override: Override | null): boolean {
  const { unknowns } = plan;
  const at = unknowns.map((place) => out[TOTALS[place]!] - guess[place]!);
  const h = Math.max(1, out.pourG) * DIFFERENCE_STEP;
  const matrix = unknowns.map(() => new Array<number>(unknowns.length).fill(0));
  for (let column = 0; column < unknowns.length; column++) {
    const moved: Guess = [guess[0], guess[1], guess[2]];
    moved[unknowns[column]!]! += h;
    forward(plan, out, moved, override);
    for (let row = 0; row < unknowns.length; row++) {
      const place = unknowns[row]!;
      matrix[row]![column] = (out[TOTALS[place]!] - moved[place]! - at[row]!) / h;
    }
  }
  const move = solveLinear(
    matrix,
    at.map((value) => -value),
  );
  if (!move) return false;
  for (let row = 0; row < unknowns.length; row++) guess[unknowns[row]!]! += move[row]!;
  return true;
}

/** How far the guess is from what it leads to, relative to the largest mass in play. */
function distance(plan: Plan, out: Balance, guess: Guess): number {
  let scale = out.pourG;
  let most = 0;
  for (const place of plan.unknowns) {
    scale = Math.max(scale, Math.abs(guess[place]!));
    most = Math.max(most, Math.abs(out[TOTALS[place]!] - guess[place]!));
  }
  return most / scale;
}

function solveTotals(plan: Plan, out: Balance, override: Override | null): boolean {
  const guess: Guess = [0, 0, 0];
  forward(plan, out, guess, override);
  for (const place of plan.unknowns) guess[place] = out[TOTALS[place]!];
  let error = Infinity;
  for (let count = 0; count < MOST_STEPS; count++) {
    forward(plan, out, guess, override);
    const next = distance(plan, out, guess);
    const isDone =
      !Number.isFinite(next) || next <= SOLVED_RELATIVE || (next >= error && next <= ACCEPTED_RELATIVE);
    error = next;
    if (isDone) break;
    if (!step(plan, out, guess, override)) return false;
  }
  return error <= ACCEPTED_RELATIVE && plan.unknowns.every((place) => guess[place]! >= 0);
}

/**
 * The masses of the plan's batch, with one line held at a given mass if wanted. `solved` is false where the
 * lines' percents of the whole add up to more than there can be.
 */
export function balance(plan: Plan, override: Override | null = null): Balance {
  const out = emptyBalance(plan.count);
  if (plan.unknowns.length === 0) forward(plan, out, [0, 0, 0], override);
  else out.solved = solveTotals(plan, out, override);
  if (!(Number.isFinite(out.pourG) && Number.isFinite(out.curedG) && out.pourG > 0 && out.curedG > 0))
    out.solved = false;
  return out;
}

/** Whether nothing but the totals hangs on a line: it takes up no alkali, and no line is in percent of the whole. */
export function standsAlone({ unknowns, isFat, acidUptake, milkDemand }: Plan, line: number): boolean {
  return unknowns.length === 0 && !isFat[line] && acidUptake[line] === 0 && milkDemand[line] === 0;
}

/** A batch with another mass of a line that stands alone: what `balance` would give, without reckoning all of it. */
export function withMass(plan: Plan, batch: Balance, { line, massG }: Override): Balance {
  const moreG = massG - batch.massG[line]!;
  const masses = batch.massG.slice();
  masses[line] = massG;
  const out = { ...batch, massG: masses };
  out.pourG += moreG;
  out.waterG += moreG * plan.waterShare[line]!;
  if (plan.isLiquid[line] && !plan.formula.liquid) out.liquidG += moreG;
  out.curedG = curedMass(plan, out.pourG, out.waterG);
  out.solved = out.pourG > 0 && out.curedG > 0;
  return out;
}
