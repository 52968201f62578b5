/**
 * The largest load: how far one line can go, all others as stated, before a binding limit that the line
 * feeds is reached at its high value (assessment page, step 11).
 */
import { unitRule, type Unit } from '../quantities/units';
import type { Limit } from '../formula/types';
import { balance, standsAlone, withMass, type Balance } from './balance';
import { binds } from './limits';
import type { Plan } from './plan';
import {
  basisMass,
  partInSection,
  sectionMasses,
  type SectionMasses,
  type SubjectEntries,
  type Subjects,
} from './sections';

export interface LargestLoad {
  maxG: number | null;
  boundBy: string | null;
  maxInUnit: { value: number; unit: Unit } | null;
}

/** How far a line can go within the limits, and how far within the craft's advice alone. */
export interface LargestLoads extends LargestLoad {
  advised: LargestLoad | null;
}

/** What the search reads of a reckoned formula: its sections in `all`, and the entries of each subject. */
export interface Reckoned {
  plan: Plan;
  batch: Balance;
  all: readonly SectionMasses[];
  subjects: Subjects;
  entries: SubjectEntries;
}

/** A mass of the line and the batch it makes. */
type Point = readonly [massG: number, state: State];

const UNBOUND: LargestLoad = { maxG: null, boundBy: null, maxInUnit: null };

/** A gram more of the line must bring the limit nearer by at least this, or the limit never binds it. */
const LEAST_SLOPE = 1e-9;
/** How exactly the found mass sits on its limit, relative to the limit. */
const SITS_WITHIN = 1e-11;
const MOST_STEPS = 20;
const MOST_DOUBLINGS = 40;
const BISECTIONS = 200;

/** A limit in one section, with the lines that bring its subject: indexes into the subjects' entries. */
interface Constraint {
  limit: Limit;
  section: number;
  entries: readonly number[];
}

interface State {
  batch: Balance;
  /** Masses of the sections the constraints speak of, by index. */
  masses: readonly SectionMasses[];
}

/** The limits that a line feeds: those that bind, and those that advise. */
function constraintsOf({ plan, subjects, entries }: Reckoned, line: number) {
  const binding: Constraint[] = [];
  const advice: Constraint[] = [];
  for (let e = subjects.firstOf[line]!; e < subjects.firstOf[line + 1]!; e++) {
    const k = subjects.subject[e]!;
    for (const { limit } of subjects.limits[k]!) {
      if (limit.onlyUnproven) continue;
      const isAdvice = !binds(limit.force);
      // Advice against a colour is no amount to come down to.
      if (isAdvice && limit.maxPct === 0) continue;
      const constraints = isAdvice ? advice : binding;
      for (let section = 0; section <= plan.portions.length; section++) {
        if (partInSection(plan, section, line) > 0)
          constraints.push({ limit, section, entries: entries[k]! });
      }
    }
  }
  return { binding, advice };
}

function batchAt({ plan, batch }: Reckoned, line: number, massG: number): Balance {
  const held = { line, massG };
  return standsAlone(plan, line) ? withMass(plan, batch, held) : balance(plan, held);
}

function stateAt(r: Reckoned, line: number, massG: number): State {
  const { plan } = r;
  const batch = batchAt(r, line, massG);
  const masses: SectionMasses[] = [];
  for (let section = 0; section <= plan.portions.length; section++) {
    masses.push(sectionMasses(plan, batch, section));
  }
  return { batch, masses };
}

/** Grams by which the subject's high mass exceeds what the limit allows; negative below the limit. */
function excess(
  { plan, subjects }: Reckoned,
  { batch, masses }: State,
  { limit, section, entries }: Constraint,
): number {
  let high = 0;
  let basis = basisMass(masses[section]!, limit.basis);
  for (const e of entries) {
    const i = subjects.line[e]!;
    const mass = partInSection(plan, section, i) * batch.massG[i]!;
    high += mass * (1 + plan.doubtHigh[i]!) * subjects.high[e]!;
    if (limit.basis !== 'fats' || plan.isFat[i]) basis += mass * plan.doubtHigh[i]!;
  }
  return high - (limit.maxPct / 100) * basis;
}

/** The mass at which the straight line through two states meets the constraint; null where it never does. */
function crossing(r: Reckoned, c: Constraint, [x0, s0]: Point, [x1, s1]: Point): number | null {
  const e0 = excess(r, s0, c);
  const slope = (excess(r, s1, c) - e0) / (x1 - x0);
  if (slope > LEAST_SLOPE) return Math.max(0, x0 - e0 / slope);
  return e0 > 0 && slope > -LEAST_SLOPE ? 0 : null;
}

function nearest(r: Reckoned, constraints: readonly Constraint[], p0: Point, p1: Point) {
  let best: { massG: number; constraint: Constraint } | null = null;
  for (const constraint of constraints) {
    const massG = crossing(r, constraint, p0, p1);
    if (massG !== null && (best === null || massG < best.massG)) best = { massG, constraint };
  }
  return best;
}

/** Whether no constraint is exceeded, and the wanted one is met, within the tolerance. */
function sitsOn(r: Reckoned, state: State, constraints: readonly Constraint[], bound: Constraint): boolean {
  const scale = (c: Constraint) => Math.max(1e-12, (c.limit.maxPct / 100) * state.batch.pourG) * SITS_WITHIN;
  if (Math.abs(excess(r, state, bound)) > scale(bound)) return false;
  return constraints.every((c) => c === bound || excess(r, state, c) <= scale(c) || c.limit.maxPct === 0);
}

/** The safe way where the relation bends: halve the span between a mass that fits and one that does not. */
function bisect(r: Reckoned, line: number, constraints: readonly Constraint[], upper: number) {
  const exceeded = (massG: number) => {
    const state = stateAt(r, line, massG);
    return state.batch.solved ? constraints.find((c) => excess(r, state, c) > 0) : constraints[0];
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

/** The two points a search begins from: nothing of the line, and as much as the batch holds or a hundredth of the pour. */
function firstPoints(r: Reckoned, line: number): readonly [Point, Point] {
  const { batch, all } = r;
  const statedG = batch.massG[line]!;
  const stated: State = { batch, masses: all };
  if (statedG > 0)
    return [
      [0, stateAt(r, line, 0)],
      [statedG, stated],
    ];
  const startG = batch.pourG / 100;
  return [
    [0, stated],
    [startG, stateAt(r, line, startG)],
  ];
}

function largestWithin(
  r: Reckoned,
  line: number,
  constraints: readonly Constraint[],
  first: readonly [Point, Point],
): LargestLoad {
  const { plan } = r;
  const point = (massG: number): Point => [massG, stateAt(r, line, massG)];
  let [p0, p1] = first;
  const [start] = p1;
  let best = nearest(r, constraints, p0, p1);
  let met: Balance | null = null;
  for (let i = 0; best !== null && best.massG > 0 && i < MOST_STEPS; i++) {
    const at = point(best.massG);
    if (at[1].batch.solved && sitsOn(r, at[1], constraints, best.constraint)) {
      met = at[1].batch;
      break;
    }
    if (i === MOST_STEPS - 1 || !at[1].batch.solved || best.massG === p1[0]) {
      best = bisect(r, line, constraints, start);
      break;
    }
    [p0, p1] = [p1, at];
    best = nearest(r, constraints, p0, p1);
  }
  if (best === null) return UNBOUND;
  return {
    maxG: best.massG,
    boundBy: best.constraint.limit.id,
    maxInUnit: inUnit(plan, line, best.massG, met ?? batchAt(r, line, best.massG)),
  };
}

/** The largest load of one line of a reckoned formula; `advised` is null where no advice speaks of it. */
export function largestLoad(r: Reckoned, line: number): LargestLoads {
  const { binding, advice } = constraintsOf(r, line);
  const loads = ({ maxG, boundBy, maxInUnit }: LargestLoad, advised: LargestLoad | null): LargestLoads => ({
    maxG,
    boundBy,
    maxInUnit,
    advised,
  });
  if (binding.length === 0 && advice.length === 0) return loads(UNBOUND, null);
  const first = firstPoints(r, line);
  const advised = advice.length > 0 ? largestWithin(r, line, advice, first) : null;
  return loads(binding.length > 0 ? largestWithin(r, line, binding, first) : UNBOUND, advised);
}
