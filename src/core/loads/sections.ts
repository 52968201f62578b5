/**
 * What the whole batch and every portion of it hold of each limited or declarable subject, nominal and at
 * both ends of the doubt, and the masses they are held against (assessment page, steps 9 and 10).
 */
import type { Declarable, Limit, LimitBasis } from '../formula/types';
import { curedMass, type Balance } from './balance';
import { groundMaterial, type Ground, type GroundMaterial, type LimitInForce } from './ground';
import type { Plan } from './plan';

/** Index of the whole batch among the sections; portion k is section k + 1. */
export const WHOLE = 0;

/** The subjects of a formula that a rule speaks of, and which line holds how much of each. */
export interface Subjects {
  /** Rules of subject k. */
  limits: LimitInForce[][];
  declarables: Declarable[][];
  count: number;
  /** Where each line's entries begin; with one more, where the last one's end. */
  firstOf: number[];
  /** Shares, sorted by line: entry e says that a gram of line `line[e]` holds so much of `subject[e]`. */
  line: number[];
  subject: number[];
  low: number[];
  typical: number[];
  high: number[];
  /** Whether any line holds subject k; a limit on something the formula does not hold is left out. */
  isCarried: boolean[];
  /** The subject that line i's material itself is, or -1 where no rule speaks of that material. */
  ofMaterial: number[];
  /** The same for the scents in line i that want a limit of their own: itself, or its parts where it is a mix. */
  ofScents: number[][];
}

/** What limits say, written out once: the same papers are held against each other for every bar. */
const limitTexts = new WeakMap<Limit, string>();

function textOf(limit: Limit): string {
  const known = limitTexts.get(limit);
  if (known !== undefined) return known;
  const text = JSON.stringify(limit);
  limitTexts.set(limit, text);
  return text;
}

const isSameRule = ({ limit: a }: LimitInForce, { limit: b }: LimitInForce) =>
  a === b || textOf(a) === textOf(b);

/** Notes down every subject that a rule speaks of and a material of the plan holds. */
function noteSubjects(ground: Ground, entries: readonly GroundMaterial[]) {
  const limits: LimitInForce[][] = [];
  const declarables: Declarable[][] = [];
  const run = ++ground.run;
  const add = (slot: number): number => {
    if (ground.seenIn[slot] !== run) {
      ground.seenIn[slot] = run;
      ground.placeOf[slot] = limits.length;
      limits.push(ground.limits[slot]!);
      declarables.push(ground.declarables[slot]!);
    }
    return ground.placeOf[slot]!;
  };
  entries.forEach((entry, i) => {
    for (const slot of entry.ruledSlots) add(slot);
    if (entry.own.length === 0 || entries.indexOf(entry) !== i) return;
    for (const { slot, rule } of entry.own) {
      const place = add(slot);
      // A mix brings the limits of its parts, which may stand on other lines as well.
      if (!limits[place]!.some((known) => isSameRule(known, rule))) limits[place] = [...limits[place]!, rule];
    }
  });
  return { limits, declarables };
}

/** A material's own limit on several constituents together is only known once every material was looked at. */
function groundEntries(ground: Ground, { materials }: Plan): GroundMaterial[] {
  const known = ground.together.length;
  const entries = materials.map((material) => groundMaterial(ground, material));
  return ground.together.length === known
    ? entries
    : materials.map((material) => groundMaterial(ground, material));
}

/** Finds the subjects that matter for the plan under the ground's rules. */
export function findSubjects(ground: Ground, plan: Plan): Subjects {
  const entries = groundEntries(ground, plan);
  const { limits, declarables } = noteSubjects(ground, entries);
  const found: Subjects = {
    limits,
    declarables,
    count: limits.length,
    firstOf: [],
    line: [],
    subject: [],
    low: [],
    typical: [],
    high: [],
    isCarried: new Array<boolean>(limits.length).fill(false),
    ofMaterial: [],
    ofScents: [],
  };
  const placeOf = (slot: number) => (ground.seenIn[slot] === ground.run ? ground.placeOf[slot]! : -1);
  for (let i = 0; i < entries.length; i++) {
    const { shares, scentSlots } = entries[i]!;
    found.firstOf.push(found.line.length);
    found.ofMaterial.push(placeOf(shares[0]!.slot));
    found.ofScents.push(scentSlots.map(placeOf));
    for (const share of shares) {
      if (ground.seenIn[share.slot] !== ground.run) continue;
      const k = ground.placeOf[share.slot]!;
      found.isCarried[k] = true;
      found.line.push(i);
      found.subject.push(k);
      found.low.push(share.low);
      found.typical.push(share.typical);
      found.high.push(share.high);
    }
  }
  found.firstOf.push(found.line.length);
  return found;
}

/** The entries of every subject, as indexes into the subjects' lists. */
export type SubjectEntries = readonly (readonly number[])[];

/** Gathers the entries of every subject. */
export function entriesBySubject(subjects: Subjects): SubjectEntries {
  const entries: number[][] = Array.from({ length: subjects.count }, () => []);
  subjects.subject.forEach((k, e) => entries[k]!.push(e));
  return entries;
}

/** The masses of one section, grams. */
export interface SectionMasses {
  /** Share of the common batter, 1 for the whole. */
  share: number;
  fatsG: number;
  pourG: number;
  waterG: number;
  curedG: number;
}

/** A section with what it holds of every subject. */
export interface Section extends SectionMasses {
  /** Grams of subject k at the low end, nominal and at the high end. */
  low: number[];
  nominal: number[];
  high: number[];
  /** How far the lines that hold subject k are themselves above or below their nominal mass. */
  lowShift: number[];
  highShift: number[];
  /** The same, of fats and waxes alone. */
  lowFatShift: number[];
  highFatShift: number[];
}

/** The part of line i that stands in a section: all of it, none, or its share of the common batter. */
export function partInSection(plan: Plan, section: number, line: number): number {
  if (section === WHOLE) return 1;
  const portion = plan.portionOf[line]!;
  if (portion === -1) return plan.portions[section - 1]!.share;
  return portion === section - 1 ? 1 : 0;
}

/** The masses of the whole batch (section 0) or of a portion. */
export function sectionMasses(plan: Plan, batch: Balance, index: number): SectionMasses {
  if (index === WHOLE) {
    const { fatsG, pourG, waterG, curedG } = batch;
    return { share: 1, fatsG, pourG, waterG, curedG };
  }
  const { share } = plan.portions[index - 1]!;
  let pourG = share * batch.alkaliG;
  let waterG = share * batch.reactionWaterG;
  for (let i = 0; i < plan.count; i++) {
    const mass = partInSection(plan, index, i) * batch.massG[i]!;
    pourG += mass;
    waterG += mass * plan.waterShare[i]!;
  }
  return { share, fatsG: share * batch.fatsG, pourG, waterG, curedG: curedMass(plan, pourG, waterG) };
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
  const numbers = () => new Array<number>(subjects.count).fill(0);
  const all: Section[] = [];
  for (let index = 0; index <= plan.portions.length; index++) {
    const { share, fatsG, pourG, waterG, curedG } = sectionMasses(plan, batch, index);
    const section: Section = {
      share,
      fatsG,
      pourG,
      waterG,
      curedG,
      low: numbers(),
      nominal: numbers(),
      high: numbers(),
      lowShift: numbers(),
      highShift: numbers(),
      lowFatShift: numbers(),
      highFatShift: numbers(),
    };
    fillSubjects(plan, subjects, batch, section, index);
    all.push(section);
  }
  return all;
}

/** The mass a basis stands for in a section, grams. */
export function basisMass(section: SectionMasses, basis: LimitBasis): number {
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
