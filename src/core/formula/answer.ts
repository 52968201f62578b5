/** The shapes of an assessment's answer (`proportia.assessment/1`). */
import type { Amount, Force, InciRole, LimitBasis, Market, Subject } from './types';
import type { Unit } from '../quantities/units';

/** From worst to best. */
export const VERDICTS = ['over', 'unproven', 'atRisk', 'tight', 'clear'] as const;
export type Verdict = (typeof VERDICTS)[number];

export interface Masses {
  fatsG: number;
  alkaliG: number;
  alkaliPureG: number;
  liquidG: number;
  waterG: number;
  pourG: number;
  curedG: number;
  soapG: number;
  glycerinG: number;
  freeFatG: number;
  acidSaltsG: number;
  reactionWaterG: number;
  /** Pure alkali that nothing took up. */
  unreactedAlkaliG: number;
  /** What of the weighed alkali is not sodium hydroxide. */
  alkaliImpurityG: number;
}

export interface AssessedLine {
  id: string;
  massG: number;
  lowG: number;
  highG: number;
  pctFats: number;
  pctPour: number;
  pctCured: number;
  maxG: number | null;
  boundBy: string | null;
  /** The largest load in the line's own unit; null where nothing binds. */
  maxInUnit: { value: number; unit: Unit } | null;
  /** The same within the craft's advice alone, which binds nobody; null where none speaks of the line. */
  advised: {
    maxG: number | null;
    boundBy: string | null;
    maxInUnit: { value: number; unit: Unit } | null;
  } | null;
}

export interface AssessedLimit {
  id: string;
  subject: Subject;
  market: Market;
  force: Force;
  basis: LimitBasis;
  maxPct: number;
  lowPct: number;
  nominalPct: number;
  highPct: number;
  /** 100 x (1 - high / limit); null where the limit is zero and no ratio exists. */
  headroomPct: number | null;
  verdict: Verdict;
  /** The portion the figures are of; null is the whole batch. */
  portion: string | null;
  contributors: { line: string; sharePct: number }[];
  source: string | null;
}

export interface AssessedDeclarable {
  market: Market;
  id: string;
  name: string;
  thresholdPct: number;
  lowPct: number;
  highPct: number;
  declare: boolean;
  certain: boolean;
}

export type ItemRole = InciRole | 'alkali' | 'soap' | 'glycerin' | 'allergen';
export type School = 'added' | 'formed';

export interface IngredientItem {
  name: string;
  massG: number;
  pct: number;
  role: ItemRole;
}

export interface IngredientList {
  market: Market;
  school: School;
  /** Markets that call everything alike share one array. */
  items: readonly Readonly<IngredientItem>[];
  text: string;
}

export interface Note {
  code: string;
  severity: 'danger' | 'caution' | 'info';
  line: string | null;
  text: string;
}

export interface AssessedPortion {
  id: string;
  share: number;
  fatsG: number;
  pourG: number;
  waterG: number;
  curedG: number;
  /** What the portion holds of every line, in the lines' order. */
  loads: { line: string; massG: number; pctCured: number }[];
}

/** Craft advice that the rest of the formula does not meet. */
export interface Advice {
  id: string;
  /** What the subject holds, percent of the basis. */
  foundPct: number;
  abovePct: number;
  basis: 'fats' | 'liquid';
  unmet: { what: 'lauricFats' | 'superfat'; wantedPct: number; foundPct: number }[];
  reason: string;
  source: string | null;
}

/** How one line's amount becomes its part of a concentration. */
export interface ExplainedTerm {
  line: string;
  material: string;
  amount: Amount;
  /** Grams of the line in the section looked at, nominal and at both ends of its doubt. */
  massG: number;
  lowG: number;
  highG: number;
  /** Share of the subject in the line, percent. */
  lowSharePct: number;
  sharePct: number;
  highSharePct: number;
  /** massG x sharePct / 100, and the same at the high end. */
  broughtG: number;
  broughtHighG: number;
}

/** The chain from amounts to a verdict: terms, their sum, what it is held against, the result. */
export interface Explanation {
  id: string;
  subject: Subject;
  markets: Market[];
  portion: string | null;
  terms: ExplainedTerm[];
  subjectG: number;
  subjectHighG: number;
  basis: LimitBasis;
  /** How the basis mass comes about, as a running account; the last entry is the basis itself. */
  basisSteps: { what: 'fats' | 'pour' | 'water' | 'dry' | 'cured'; massG: number }[];
  /** The basis at the high end: with the doubt of the lines that bring the subject. */
  basisHighG: number;
  nominalPct: number;
  highPct: number;
  maxPct: number;
  verdict: Verdict;
  force: Force;
  source: string | null;
}

export interface Assessment {
  format: string;
  verdict: Verdict;
  markets: { market: Market; verdict: Verdict }[];
  masses: Masses;
  superfat: { nominalPct: number | null; effectivePct: number | null };
  portions: AssessedPortion[];
  lines: AssessedLine[];
  limits: AssessedLimit[];
  unproven: { line: string; market: Market }[];
  declarables: AssessedDeclarable[];
  ingredients: IngredientList[];
  notes: Note[];
  advice: Advice[];
  /** Only where the request asks for it. */
  explanations?: Explanation[];
}
