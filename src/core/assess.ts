/**
 * The one door to the computation: `assess(request, stored)` answers what a formula weighs, holds, must
 * declare and is made of, and within which limits. Pure: dates and data come in, nothing is read or kept.
 */
import { batchNotes, superfat } from './chemistry/notes';
import type {
  Assessment,
  AssessedLine,
  AssessedPortion,
  IngredientList,
  Masses,
  Verdict,
} from './formula/answer';
import { checkRequest } from './formula/check';
import {
  ASSESSMENT_FORMAT,
  type AssessmentRequest,
  type Limit,
  type Market,
  type Material,
  type RequestError,
  type Rules,
  type Stored,
} from './formula/types';
import { ingredientLister } from './ingredients/list';
import { addedParts, formedBar, type FormedBar } from './ingredients/parts';
import { balance, type Balance } from './loads/balance';
import { isTooComplex } from './loads/complexity';
import { assessDeclarables } from './loads/declarables';
import { unmetDemands } from './loads/demands';
import { explain } from './loads/explain';
import { createGround, type Ground } from './loads/ground';
import { largestLoad } from './loads/largest';
import {
  effectOnProduct,
  findAll,
  limitRows,
  marketStands,
  unprovenPairs,
  worseVerdict,
  worstVerdict,
  type MarketStand,
} from './loads/limits';
import { planFormula, type Plan } from './loads/plan';
import {
  entriesBySubject,
  findSubjects,
  partInSection,
  sections,
  WHOLE,
  type Section,
  type SubjectEntries,
  type Subjects,
} from './loads/sections';

export type Result = { ok: true; assessment: Assessment } | { ok: false; errors: RequestError[] };

/** A formula reckoned through: what every part of the answer is read from. */
export interface Reckoning {
  plan: Plan;
  batch: Balance;
  subjects: Subjects;
  all: Section[];
}

/** A maker's own craft figure takes the place of the stored one of the same id. */
function withOwnCraft(base: readonly Limit[], own: readonly Limit[]): Limit[] {
  const replaced = new Set(own.filter(({ force }) => force === 'craft').map(({ id }) => id));
  return [...base.filter(({ id, force }) => force !== 'craft' || !replaced.has(id)), ...own];
}

/** Grounds of one store kept at a time: a few days and sets of markets that are asked for by turns. */
const MOST_GROUNDS = 8;

/** The grounds made from a store's rules, found from both of its lists: another list is another store. */
const storedGrounds = new WeakMap<readonly Limit[], WeakMap<Stored['declarables'], Map<string, Ground>>>();

/** The ground of the stored rules alone. The store is only read, so the same store gives the same ground. */
function storedGround({ limits, declarables }: Stored, markets: readonly Market[], onDate: string): Ground {
  const byDeclarables =
    storedGrounds.get(limits) ?? new WeakMap<Stored['declarables'], Map<string, Ground>>();
  storedGrounds.set(limits, byDeclarables);
  const grounds = byDeclarables.get(declarables) ?? new Map<string, Ground>();
  byDeclarables.set(declarables, grounds);
  const key = `${onDate} ${markets.join(' ')}`;
  const known = grounds.get(key);
  if (known) return known;
  const ground = createGround({ limits, declarables }, markets, onDate);
  if (grounds.size >= MOST_GROUNDS) grounds.delete([...grounds.keys()][0]!);
  grounds.set(key, ground);
  return ground;
}

/** The ground of a request: its own rules with, or in place of, the stored ones. */
export function requestGround(request: AssessmentRequest, stored: Stored): Ground {
  const own: Rules | null | undefined = request.rules;
  if (!own) return storedGround(stored, request.markets, request.onDate);
  const base = own.replace ? { limits: [], declarables: [] } : stored;
  const limits = withOwnCraft(base.limits, own.limits ?? []);
  const declarables = [...base.declarables, ...(own.declarables ?? [])];
  return createGround({ limits, declarables }, request.markets, request.onDate);
}

/** Why a checked formula cannot be reckoned. */
const FAILURES = {
  'fats-zero': 'The fats weigh nothing. Give at least one fat a mass.',
  'no-solution':
    'The lines in percent of the liquid, the pour or the cured bar leave no batch that satisfies them all. Lower them.',
};

/** Reckons a checked formula; answers why where it cannot be. */
export function reckon(
  formula: AssessmentRequest['formula'],
  materials: readonly Material[],
  ground: Ground,
): Reckoning | keyof typeof FAILURES {
  const plan = planFormula(formula, materials);
  const batch = balance(plan);
  if (batch.fatsG === 0) return 'fats-zero';
  if (!batch.solved) return 'no-solution';
  const subjects = findSubjects(ground, plan);
  return { plan, batch, subjects, all: sections(plan, subjects, batch) };
}

function masses(batch: Balance, bar: FormedBar): Masses {
  const takenUpG =
    batch.neutralised * batch.acidG + batch.saponified * (batch.cookDemandG + batch.milkDemandG);
  return {
    fatsG: batch.fatsG,
    alkaliG: batch.alkaliG,
    alkaliPureG: batch.alkaliPureG,
    liquidG: batch.liquidG,
    waterG: batch.waterG,
    pourG: batch.pourG,
    curedG: batch.curedG,
    soapG: bar.soapG,
    glycerinG: bar.glycerinG,
    freeFatG: bar.freeFatG,
    acidSaltsG: bar.acidSaltsG,
    reactionWaterG: batch.reactionWaterG,
    unreactedAlkaliG: Math.max(0, batch.alkaliPureG - takenUpG),
    alkaliImpurityG: batch.alkaliG - batch.alkaliPureG,
  };
}

function assessLines(reckoning: Reckoning, entries: SubjectEntries): AssessedLine[] {
  const { plan, batch } = reckoning;
  const reckoned = { ...reckoning, entries };
  const percent = (massG: number, wholeG: number) => (wholeG > 0 ? (100 * massG) / wholeG : 0);
  return plan.lines.map((line, i) => {
    const massG = batch.massG[i]!;
    return {
      id: line.id,
      massG,
      lowG: massG * (1 + plan.doubtLow[i]!),
      highG: massG * (1 + plan.doubtHigh[i]!),
      pctFats: percent(massG, batch.fatsG),
      pctPour: percent(massG, batch.pourG),
      pctCured: percent(massG, batch.curedG),
      ...largestLoad(reckoned, i),
    };
  });
}

function assessPortions({ plan, batch, all }: Reckoning): AssessedPortion[] {
  return plan.portions.map(({ id, share }, index) => {
    const { fatsG, pourG, waterG, curedG } = all[index + 1]!;
    const loads = plan.lines.map((line, i) => {
      const massG = partInSection(plan, index + 1, i) * batch.massG[i]!;
      return { line: line.id, massG, pctCured: curedG > 0 ? (100 * massG) / curedG : 0 };
    });
    return { id, share, fatsG, pourG, waterG, curedG, loads };
  });
}

function ingredientLists(
  { plan, batch, subjects, all }: Reckoning,
  bar: FormedBar,
  markets: readonly Market[],
  declarables: Assessment['declarables'],
): IngredientList[] {
  const scentNaming = plan.formula.scentNaming ?? 'parfum';
  const added = ingredientLister(addedParts(plan, batch), 'added', scentNaming, batch.pourG);
  const formed = ingredientLister(bar.parts, 'formed', scentNaming, batch.curedG);
  const typicalG = new Map<string, number>();
  subjects.declarables.forEach((rules, k) => {
    for (const { id } of rules) typicalG.set(id, all[WHOLE]!.nominal[k]!);
  });
  return markets.flatMap((market) => {
    const allergens = declarables
      .filter((row) => row.market === market && row.declare)
      .map(({ id, name }) => ({ id, name, massG: typicalG.get(id) ?? 0 }));
    return [added(market, allergens), formed(market, allergens)];
  });
}

/** The part of an answer that says within which limits a bar is, and nothing else. */
export type Verdicts = Pick<Assessment, 'verdict' | 'markets' | 'limits' | 'unproven'>;

interface Judged extends Verdicts {
  findings: ReturnType<typeof findAll>;
  entries: SubjectEntries;
}

function judge({ markets }: Ground, { plan, batch, subjects, all }: Reckoning): Judged {
  const findings = findAll(plan, subjects, all);
  const entries = entriesBySubject(subjects);
  const unproven = unprovenPairs(plan, subjects, batch.massG, markets.length).map(({ line, market }) => ({
    line: plan.lines[line]!.id,
    market: markets[market]!,
  }));
  const limits = limitRows(plan, subjects, entries, batch.massG, findings, unproven);
  const byMarket = markets.map((market) => {
    let verdict: Verdict = unproven.some((entry) => entry.market === market) ? 'unproven' : 'clear';
    for (const row of limits)
      if (row.market === market) verdict = worseVerdict(verdict, effectOnProduct(row.force, row.verdict));
    return { market, verdict };
  });
  const verdict = worstVerdict(byMarket.map((entry) => entry.verdict));
  return { verdict, markets: byMarket, limits, unproven, findings, entries };
}

/** What a label and a verdict are made of, without the account of every line. */
export type Outline = Verdicts & Pick<Assessment, 'declarables' | 'ingredients'>;

/** The declarables of a reckoning and its lists. */
function listed(
  request: AssessmentRequest,
  { markets, onDate }: Pick<Ground, 'markets' | 'onDate'>,
  reckoning: Reckoning,
) {
  const { plan, batch, subjects, all } = reckoning;
  const declarables = assessDeclarables(subjects, all, markets, {
    onDate,
    firstPlacedOn: request.firstPlacedOn ?? {},
    placedOn: request.placedOn ?? {},
  });
  const bar = formedBar(plan, batch);
  return { bar, declarables, ingredients: ingredientLists(reckoning, bar, markets, declarables) };
}

function answer(
  request: AssessmentRequest,
  stored: Stored,
  ground: Ground,
  reckoning: Reckoning,
): Assessment {
  const { plan, batch, subjects, all } = reckoning;
  const { findings, entries, verdict, markets: byMarket, limits, unproven } = judge(ground, reckoning);
  const { bar, declarables, ingredients } = listed(request, ground, reckoning);
  const fat = superfat(batch);
  return {
    format: ASSESSMENT_FORMAT,
    verdict,
    markets: byMarket,
    masses: masses(batch, bar),
    superfat: fat,
    portions: assessPortions(reckoning),
    lines: assessLines(reckoning, entries),
    limits,
    unproven,
    declarables,
    ingredients,
    notes: batchNotes(plan, batch, fat),
    advice: unmetDemands(request.rules?.replace ? [] : (stored.demands ?? []), plan, batch, fat.effectivePct),
    ...(request.explain
      ? { explanations: findings.map((finding) => explain(plan, subjects, batch, all, finding)) }
      : {}),
  };
}

/** Reckons a request through; errors come back as values. */
function reckonRequest(
  request: AssessmentRequest,
  stored: Stored,
): { ok: true; ground: Ground; reckoning: Reckoning } | { ok: false; errors: RequestError[] } {
  const checked = checkRequest(request, stored);
  if (!checked.ok) return checked;
  const ground = requestGround(request, stored);
  const reckoning = reckon(request.formula, checked.materials, ground);
  if (typeof reckoning === 'string') {
    return { ok: false, errors: [{ path: 'formula.lines', code: reckoning, message: FAILURES[reckoning] }] };
  }
  if (isTooComplex(reckoning.plan, reckoning.subjects, ground.markets.length)) {
    const message =
      'So many lines, limits and portions at once are more than one answer can hold. Ask for fewer.';
    return { ok: false, errors: [{ path: 'formula.lines', code: 'too-complex', message }] };
  }
  return { ok: true, ground, reckoning };
}

/**
 * Assesses a request that has the right shape. Errors come back as values, with path, code and remedy.
 *
 * @example
 * const result = assess({ format: REQUEST_FORMAT, formula, markets: ['EU'], onDate: '2026-11-24' }, snapshot);
 * if (result.ok) console.log(result.assessment.verdict); // 'tight'
 */
export function assess(request: AssessmentRequest, stored: Stored): Result {
  const reckoned = reckonRequest(request, stored);
  if (!reckoned.ok) return reckoned;
  return { ok: true, assessment: answer(request, stored, reckoned.ground, reckoned.reckoning) };
}

/**
 * The verdicts of a request alone, as `assess` would give them: for whoever tries many formulas and asks nothing
 * else of them. Null where it does not reckon.
 *
 * @example
 * verdictsOf({ ...request, formula: changed }, snapshot)?.verdict; // 'clear'
 */
export function verdictsOf(request: AssessmentRequest, stored: Stored): Verdicts | null {
  const reckoned = reckonRequest(request, stored);
  return reckoned.ok ? judge(reckoned.ground, reckoned.reckoning) : null;
}

/**
 * Verdicts, declarables and lists of a request, as `assess` would give them: for whoever holds thousands of formulas
 * beside each other. Null where it does not reckon.
 *
 * @example
 * outlineOf(request, snapshot)?.ingredients[0].text; // 'Sodium Olivate, Aqua, …'
 */
export function outlineOf(request: AssessmentRequest, stored: Stored): Outline | null {
  const reckoned = reckonRequest(request, stored);
  if (!reckoned.ok) return null;
  const { ground, reckoning } = reckoned;
  const { verdict, markets, limits, unproven } = judge(ground, reckoning);
  const { declarables, ingredients } = listed(request, ground, reckoning);
  return { verdict, markets, limits, unproven, declarables, ingredients };
}

/** A formula under two stores. */
export interface Beside {
  /** By market, in the order asked for. */
  before: MarketStand[];
  after: MarketStand[];
  /** What both name and list in some of the markets. */
  lists: (markets: readonly Market[]) => Pick<Assessment, 'declarables' | 'ingredients'>;
}

/**
 * How a request stands under two stores that treat its materials alike but for limits, as `assess` would tell it:
 * masses are reckoned once, and lists only where they are asked for. Null where it does not reckon.
 *
 * @example
 * standsBeside(request, today, withStricterLimit)?.after[0].verdict; // 'over'
 */
export function standsBeside(request: AssessmentRequest, stored: Stored, other: Stored): Beside | null {
  const reckoned = reckonRequest(request, stored);
  if (!reckoned.ok) return null;
  const { ground, reckoning } = reckoned;
  const { batch, subjects, all } = reckoning;
  const materials = request.formula.lines.map(({ material }) => other.material(material)!);
  const plan = { ...reckoning.plan, materials };
  const { markets } = ground;
  const otherGround = requestGround(request, other);
  const otherSubjects = findSubjects(otherGround, plan);
  if (isTooComplex(plan, otherSubjects, markets.length)) return null;
  return {
    before: marketStands(reckoning.plan, subjects, all, batch.massG, markets),
    after: marketStands(plan, otherSubjects, sections(plan, otherSubjects, batch), batch.massG, markets),
    lists: (wanted) => listed(request, { markets: wanted, onDate: ground.onDate }, reckoning),
  };
}
