/**
 * What the whole batch and every portion of it hold of each limited or declarable subject, nominal and at
 * both ends of the doubt, and the masses they are held against (assessment page, steps 9 and 10).
 */
import type { Declarable, LimitBasis } from '../formula/types';
import { curedMass, type Balance } from './balance';
import { groundMaterial, type Ground, type LimitInForce } from './ground';
import type { Plan } from './plan';

/** Index of the whole batch among the sections; portion k is section k + 1. */
export const WHOLE = 0;

/** The subjects of a formula that a rule speaks of, and which line holds how much of each. */
export interface Subjects {
  /** Rules of subject k. */
  limits: LimitInForce[][];
  declarables: Declarable[][];
  count: number;
  /** Shares, sorted by line: entry e says that a gram of line `line[e]` holds so much of `subject[e]`. */
  line: Int32Array;
  subject: Int32Array;
  low: Float64Array;
  typical: Float64Array;
  high: Float64Array;
}

function subjectIndex(ground: Ground, plan: Plan) {
  const index = new Map<number, number>();
  const limits: LimitInForce[][] = [];
  const declarables: Declarable[][] = [];
  const add = (slot: number): number => {
    const known = index.get(slot);
    if (known !== undefined) return known;
    index.set(slot, limits.length);
    limits.push([...ground.limits[slot]!]);
    declarables.push(ground.declarables[slot]!);
    return limits.length - 1;
  };
  const seen = new Set<object>();
  for (const material of plan.materials) {
    const entry = groundMaterial(ground, material);
    if (seen.has(entry)) continue;
    seen.add(entry);
    for (const { slot, rule } of entry.own) limits[add(slot)]!.push(rule);
    for (const { slot } of entry.shares) {
      if (ground.limits[slot]!.length > 0 || ground.declarables[slot]!.length > 0) add(slot);
    }
  }
  return { index, limits, declarables };
}

/** Finds the subjects that matter for the plan under the ground's rules. */
export function findSubjects(ground: Ground, plan: Plan): Subjects {
  const { index, limits, declarables } = subjectIndex(ground, plan);
  const line: number[] = [];
  const subject: number[] = [];
  const low: number[] = [];
  const typical: number[] = [];
  const high: number[] = [];
  plan.materials.forEach((material, i) => {
    for (const share of groundMaterial(ground, material).shares) {
      const k = index.get(share.slot);
      if (k === undefined) continue;
      line.push(i);
      subject.push(k);
      low.push(share.low);
      typical.push(share.typical);
      high.push(share.high);
    }
  });
  return {
    limits,
    declarables,
    count: limits.length,
    line: Int32Array.from(line),
    subject: Int32Array.from(subject),
    low: Float64Array.from(low),
    typical: Float64Array.from(typical),
    high: Float64Array.from(high),
  };
}

/** The masses of one section, grams. */
export interface Section {
  /** Share of the common batter, 1 for the whole. */
  share: number;
  fatsG: number;
  pourG: number;
  waterG: number;
  curedG: number;
  /** Grams of subject k at the low end, nominal and at the high end. */
  low: Float64Array;
  nominal: Float64Array;
  high: Float64Array;
  /** How far the lines that hold subject k are themselves above or below their nominal mass. */
  lowShift: Float64Array;
  highShift: Float64Array;
  /** The same, of fats and waxes alone. */
  lowFatShift: Float64Array;
  highFatShift: Float64Array;
}

/** The part of line i that stands in a section: all of it, none, or its share of the common batter. */
export function partInSection(plan: Plan, section: number, line: number): number {
  if (section === WHOLE) return 1;
  const portion = plan.portionOf[line]!;
  if (portion === -1) return plan.portions[section - 1]!.share;
  return portion === section - 1 ? 1 : 0;
}

function emptySection(share: number, count: number): Section {
  const numbers = () => new Float64Array(count);
  return {
    share,
    fatsG: 0,
    pourG: 0,
    waterG: 0,
    curedG: 0,
    low: numbers(),
    nominal: numbers(),
    high: numbers(),
    lowShift: numbers(),
    highShift: numbers(),
    lowFatShift: numbers(),
    highFatShift: numbers(),
  };
}

function fillMasses(plan: Plan, batch: Balance, section: Section, index: number): void {
  if (index === WHOLE) {
    section.fatsG = batch.fatsG;
    section.pourG = batch.pourG;
    section.waterG = batch.waterG;
    section.curedG = batch.curedG;
    return;
  }
  let pour = section.share * batch.alkaliG;
  let water = section.share * batch.reactionWaterG;
  for (let i = 0; i < plan.count; i++) {
    const mass = partInSection(plan, index, i) * batch.massG[i]!;
    pour += mass;
    water += mass * plan.waterShare[i]!;
  }
  section.fatsG = section.share * batch.fatsG;
  section.pourG = pour;
  section.waterG = water;
  section.curedG = curedMass(plan, pour, water);
}

function fillSubjects(plan: Plan, subjects: Subjects, batch: Balance, section: Section, index: number): void {
  const { line, subject } = subjects;
  for (let e = 0; e < line.length; e++) {
    const i = line[e]!;
    const k = subject[e]!;
    const mass = partInSection(plan, index, i) * batch.massG[i]!;
    const lowShift = mass * plan.doubtLow[i]!;
    const highShift = mass * plan.doubtHigh[i]!;
    section.nominal[k]! += mass * subjects.typical[e]!;
    section.low[k]! += (mass + lowShift) * subjects.low[e]!;
    section.high[k]! += (mass + highShift) * subjects.high[e]!;
    section.lowShift[k]! += lowShift;
    section.highShift[k]! += highShift;
    if (plan.isFat[i]) {
      section.lowFatShift[k]! += lowShift;
      section.highFatShift[k]! += highShift;
    }
  }
}

/** Reckons the whole batch (first) and each portion. */
export function sections(plan: Plan, subjects: Subjects, batch: Balance): Section[] {
  const all: Section[] = [];
  for (let index = 0; index <= plan.portions.length; index++) {
    const share = index === WHOLE ? 1 : plan.portions[index - 1]!.share;
    const section = emptySection(share, subjects.count);
    fillMasses(plan, batch, section, index);
    fillSubjects(plan, subjects, batch, section, index);
    all.push(section);
  }
  return all;
}

/** The mass a basis stands for in a section, grams. */
export function basisMass(section: Section, basis: LimitBasis): number {
  if (basis === 'fats') return section.fatsG;
  return basis === 'pour' ? section.pourG : section.curedG;
}

export interface Concentration {
  lowPct: number;
  nominalPct: number;
  highPct: number;
}

function percent(part: number, whole: number): number {
  return whole > 0 ? (100 * part) / whole : 0;
}

/** Concentration of subject k in a section on a basis, percent, with the doubt of the lines that bring it. */
export function concentration(section: Section, k: number, basis: LimitBasis): Concentration {
  const mass = basisMass(section, basis);
  const ofFats = basis === 'fats';
  const lowShift = ofFats ? section.lowFatShift[k]! : section.lowShift[k]!;
  const highShift = ofFats ? section.highFatShift[k]! : section.highShift[k]!;
  return {
    lowPct: percent(section.low[k]!, mass + lowShift),
    nominalPct: percent(section.nominal[k]!, mass),
    highPct: percent(section.high[k]!, mass + highShift),
  };
}
