/**
 * The largest load: how far one line can go, all others as stated, before a binding limit that the line
 * feeds is reached at its high value (assessment page, step 11).
 */
import { unitRule, type Unit } from '../quantities/units';
import type { Limit } from '../formula/types';
import { balance, type Balance } from './balance';
import { binds } from './limits';
import type { Plan } from './plan';
import { basisMass, partInSection, sections, type Section, type Subjects } from './sections';

export interface LargestLoad {
  maxG: number | null;
  boundBy: string | null;
  maxInUnit: { value: number; unit: Unit } | null;
}

const UNBOUND: LargestLoad = { maxG: null, boundBy: null, maxInUnit: null };

/** A gram more of the line must bring the limit nearer by at least this, or the limit never binds it. */
const LEAST_SLOPE = 1e-9;
/** How exactly the found mass sits on its limit, relative to the limit. */
const SITS_WITHIN = 1e-11;
const MOST_STEPS = 20;
const MOST_DOUBLINGS = 40;
const BISECTIONS = 200;

interface Constraint {
  k: number;
  limit: Limit;
  section: number;
}

interface State {
  batch: Balance;
  all: Section[];
}

function constraintsOf(plan: Plan, subjects: Subjects, line: number): Constraint[] {
  const constraints: Constraint[] = [];
  for (let e = 0; e < subjects.line.length; e++) {
    if (subjects.line[e] !== line) continue;
    const k = subjects.subject[e]!;
    for (const { limit } of subjects.limits[k]!) {
      if (!binds(limit.force)) continue;
      for (let section = 0; section <= plan.portions.length; section++) {
        if (partInSection(plan, section, line) > 0) constraints.push({ k, limit, section });
      }
    }
  }
  return constraints;
}

function stateAt(plan: Plan, subjects: Subjects, line: number, massG: number): State {
  const batch = balance(plan, { line, massG });
  return { batch, all: sections(plan, subjects, batch) };
}

/** Grams by which the subject's high mass exceeds what the limit allows; negative below the limit. */
function excess(state: State, { k, limit, section }: Constraint): number {
  const at = state.all[section]!;
  const shift = limit.basis === 'fats' ? at.highFatShift[k]! : at.highShift[k]!;
  return at.high[k]! - (limit.maxPct / 100) * (basisMass(at, limit.basis) + shift);
}

/** The mass at which the straight line through two states meets the constraint; null where it never does. */
function crossing(c: Constraint, x0: number, s0: State, x1: number, s1: State): number | null {
  const e0 = excess(s0, c);
  const slope = (excess(s1, c) - e0) / (x1 - x0);
  if (slope > LEAST_SLOPE) return Math.max(0, x0 - e0 / slope);
  return e0 > 0 && slope > -LEAST_SLOPE ? 0 : null;
}

function nearest(constraints: readonly Constraint[], x0: number, s0: State, x1: number, s1: State) {
  let best: { massG: number; constraint: Constraint } | null = null;
  for (const constraint of constraints) {
    const massG = crossing(constraint, x0, s0, x1, s1);
    if (massG !== null && (best === null || massG < best.massG)) best = { massG, constraint };
  }
  return best;
}

/** Whether no constraint is exceeded, and the wanted one is met, within the tolerance. */
function sitsOn(state: State, constraints: readonly Constraint[], bound: Constraint): boolean {
  const scale = (c: Constraint) => Math.max(1e-12, (c.limit.maxPct / 100) * state.batch.pourG) * SITS_WITHIN;
  if (Math.abs(excess(state, bound)) > scale(bound)) return false;
  return constraints.every((c) => c === bound || excess(state, c) <= scale(c) || c.limit.maxPct === 0);
}

/** The safe way where the relation bends: halve the span between a mass that fits and one that does not. */
function bisect(
  plan: Plan,
  subjects: Subjects,
  line: number,
  constraints: readonly Constraint[],
  upper: number,
) {
  const exceeded = (massG: number) => {
    const state = stateAt(plan, subjects, line, massG);
    return state.batch.solved ? constraints.find((c) => excess(state, c) > 0) : constraints[0];
  };
  let low = 0;
  let high = upper;
  let bound = exceeded(high);
  for (let i = 0; i < MOST_DOUBLINGS && bound === undefined; i++) {
    low = high;
    high *= 2;
    bound = exceeded(high);
  }
  if (bound === undefined) return null;
  for (let i = 0; i < BISECTIONS && low < high; i++) {
    const middle = low + (high - low) / 2;
    if (middle <= low || middle >= high) break;
    const found = exceeded(middle);
    if (found) {
      high = middle;
      bound = found;
    } else low = middle;
  }
  return { massG: low, constraint: bound };
}

function inUnit(plan: Plan, line: number, massG: number, batch: Balance): LargestLoad['maxInUnit'] {
  const { unit } = plan.lines[line]!.amount;
  const rule = unitRule(unit)!;
  const totals = {
    absolute: 1,
    fats: plan.isFat[line] ? (plan.formula.fatsMassG ?? 0) : batch.fatsG,
    liquid: batch.liquidG,
    pour: batch.pourG,
    cured: batch.curedG,
  };
  const density = rule.byVolume ? (plan.materials[line]!.bulkDensity ?? 0) : 1;
  const one = rule.factor * density * totals[rule.base];
  return one > 0 ? { value: massG / one, unit } : null;
}

/** The largest load of one line. `batch` is the plan's batch as stated. */
export function largestLoad(plan: Plan, subjects: Subjects, batch: Balance, line: number): LargestLoad {
  const constraints = constraintsOf(plan, subjects, line);
  if (constraints.length === 0) return UNBOUND;
  let x0 = 0;
  let s0 = stateAt(plan, subjects, line, x0);
  let x1 = batch.massG[line]! > 0 ? batch.massG[line]! : batch.pourG / 100;
  let s1 = stateAt(plan, subjects, line, x1);
  let best = nearest(constraints, x0, s0, x1, s1);
  for (let i = 0; best !== null && best.massG > 0 && i < MOST_STEPS; i++) {
    const at = stateAt(plan, subjects, line, best.massG);
    if (at.batch.solved && sitsOn(at, constraints, best.constraint)) break;
    if (i === MOST_STEPS - 1 || !at.batch.solved || best.massG === x1) {
      best = bisect(plan, subjects, line, constraints, x1);
      break;
    }
    [x0, s0, x1, s1] = [x1, s1, best.massG, at];
    best = nearest(constraints, x0, s0, x1, s1);
  }
  if (best === null) return UNBOUND;
  const at = balance(plan, { line, massG: best.massG });
  return {
    maxG: best.massG,
    boundBy: best.constraint.limit.id,
    maxInUnit: inUnit(plan, line, best.massG, at),
  };
}
