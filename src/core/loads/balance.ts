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

function fillMasses(plan: Plan, out: Balance, guess: Guess, override: Override | null): number {
  const { base, coefficient, isFat, count } = plan;
  const mass = out.massG;
  const totals = [1, 0, guess.liquidG, guess.pourG, guess.curedG];
  let fatsG = 0;
  for (let i = 0; i < count; i++) {
    if (base[i] === BASE.fats) continue;
    mass[i] = coefficient[i]! * totals[base[i]!]!;
    if (override !== null && override.line === i) mass[i] = override.massG;
    if (isFat[i]) fatsG += mass[i]!;
  }
  let sumG = 0;
  for (let i = 0; i < count; i++) {
    if (base[i] === BASE.fats) {
      mass[i] = override !== null && override.line === i ? override.massG : coefficient[i]! * fatsG;
    }
    sumG += mass[i]!;
  }
  out.fatsG = fatsG;
  return sumG;
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

interface Guess {
  liquidG: number;
  pourG: number;
  curedG: number;
}

/** Reckons the batch forward from a guess of the self-referring totals into `out`. */
function forward(plan: Plan, out: Balance, guess: Guess, override: Override | null): void {
  const linesG = fillMasses(plan, out, guess, override);
  const mass = out.massG;
  let cook = 0;
  let later = 0;
  let milk = 0;
  let acid = 0;
  let waterFromFats = 0;
  let water = 0;
  let poured = 0;
  for (let i = 0; i < plan.count; i++) {
    const m = mass[i]!;
    cook += m * plan.cookDemand[i]!;
    later += m * plan.laterDemand[i]!;
    milk += m * plan.milkDemand[i]!;
    waterFromFats += m * plan.waterDemand[i]!;
    acid += m * plan.acidUptake[i]!;
    water += m * plan.waterShare[i]!;
    const stage = plan.lines[i]!.stage;
    if (stage === 'liquid' || stage === 'heldBack') poured += m;
  }
  out.cookDemandG = cook;
  out.laterDemandG = later;
  out.milkDemandG = milk;
  out.acidG = acid;
  fillAlkali(plan, out);
  out.liquidG = statedLiquid(plan, out) ?? poured;
  const demand = cook + milk;
  const forFats = Math.max(0, out.alkaliPureG - acid);
  out.saponified = demand > 0 ? Math.min(1, forFats / demand) : 0;
  out.neutralised = acid > 0 ? Math.min(1, out.alkaliPureG / acid) : 1;
  out.reactionWaterG = (out.saponified * waterFromFats + out.neutralised * acid) * WATER_PER_NAOH;
  out.waterG = water + out.reactionWaterG;
  out.pourG = linesG + out.alkaliG;
  out.curedG = curedMass(plan, out.pourG, out.waterG);
}

type Total = keyof Guess;

function residual(out: Balance, guess: Guess, totals: readonly Total[]): number[] {
  return totals.map((total) => out[total] - guess[total]);
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
function step(plan: Plan, out: Balance, guess: Guess, totals: readonly Total[], override: Override | null) {
  const at = residual(out, guess, totals);
  const h = Math.max(1, out.pourG) * DIFFERENCE_STEP;
  const columns = totals.map((total) => {
    const moved = { ...guess, [total]: guess[total] + h };
    forward(plan, out, moved, override);
    return residual(out, moved, totals).map((value, i) => (value - at[i]!) / h);
  });
  const matrix = totals.map((_, row) => columns.map((column) => column[row]!));
  const move = solveLinear(
    matrix,
    at.map((value) => -value),
  );
  if (!move) return false;
  totals.forEach((total, i) => (guess[total] += move[i]!));
  return true;
}

function solveTotals(plan: Plan, out: Balance, totals: readonly Total[], override: Override | null): boolean {
  const guess: Guess = { liquidG: 0, pourG: 0, curedG: 0 };
  forward(plan, out, guess, override);
  for (const total of totals) guess[total] = out[total];
  let error = Infinity;
  for (let count = 0; count < MOST_STEPS; count++) {
    forward(plan, out, guess, override);
    const scale = Math.max(out.pourG, ...totals.map((total) => Math.abs(guess[total])));
    const next = Math.max(...residual(out, guess, totals).map(Math.abs)) / scale;
    if (!Number.isFinite(next) || next <= SOLVED_RELATIVE || (next >= error && next <= ACCEPTED_RELATIVE)) {
      error = next;
      break;
    }
    error = next;
    if (!step(plan, out, guess, totals, override)) return false;
  }
  return error <= ACCEPTED_RELATIVE && totals.every((total) => guess[total] >= 0);
}

/**
 * The masses of the plan's batch, with one line held at a given mass if wanted. `solved` is false where the
 * lines' percents of the whole add up to more than there can be.
 */
export function balance(plan: Plan, override: Override | null = null): Balance {
  const out = emptyBalance(plan.count);
  const totals: Total[] = [];
  if (plan.unknowns.liquid) totals.push('liquidG');
  if (plan.unknowns.pour) totals.push('pourG');
  if (plan.unknowns.cured) totals.push('curedG');
  if (totals.length === 0) forward(plan, out, { liquidG: 0, pourG: 0, curedG: 0 }, override);
  else out.solved = solveTotals(plan, out, totals, override);
  if (!(Number.isFinite(out.pourG) && Number.isFinite(out.curedG) && out.pourG > 0)) out.solved = false;
  return out;
}
