/**
 * Rescue at the pot: the smallest additions that bring superfat, lye and every limit back within their bounds in what the
 * moulds hold, found by the linear solver and held against the full reckoning before they are shown. Pure.
 */
import { assess, reckon, requestGround } from '../assess';
import type { Assessment } from '../formula/answer';
import { isFatty } from '../formula/fats';
import type { AssessmentRequest, Formula, Line, Material, Stored } from '../formula/types';
import { ALKALI_LINE, LYE_STOCK_LINE } from '../making/run-sheet-types';
import { batterVolume } from '../making/size';
import { heldIn } from '../scent/programme';
import type { LinearProblem, Solve } from '../numerics/highs';
import { canGrow } from './joined';
import { batchRequest } from './request';
import type { Batch } from './types';

/** What is added to a line; `alkali` for hydroxide. */
export interface Addition {
  line: string;
  material: string;
  massG: number;
}

/** What the batch would be. */
export interface Becomes {
  superfatPct: number | null;
  /** Alkali in alkali and liquid, percent. */
  lyePct: number;
  verdict: Assessment['verdict'];
  volumeMl: number;
}

export type Rescue =
  /** Nothing is out of bounds. */
  | { outcome: 'fine'; becomes: Becomes }
  /** `totalsG`: what lines come to in all, those with nothing added too: what ran over is then wanted. */
  | { outcome: 'found'; additions: Addition[]; totalsG: Record<string, number>; becomes: Becomes }
  /** No way back; `roomMl` is what the moulds would have to hold more for one, null where more room would not help. */
  | { outcome: 'nothing'; becomes: Becomes; roomMl: number | null };

export interface RescueAsk {
  batch: Batch;
  stored: Stored;
  markets: AssessmentRequest['markets'];
  onDate: string;
  /** What the moulds that stand ready hold, millilitres; null where nobody knows. */
  holdsMl: number | null;
}

/** Superfat and lye may end so far from the plan, percentage points. */
const SUPERFAT_WITHIN = 1;
const LYE_WITHIN = 3;
/** Whatever was planned, never less superfat, nor a lye that hardly dissolves or hardly reacts; usual among makers. */
const LEAST_SUPERFAT_PCT = 2;
const LYE_PCT = [22, 42] as const;
/** Amounts are rounded up to what a scale tells. */
const FINE_BELOW_G = 50;
const MOST_ROUNDS = 8;
/** Kept free on each side of a bound so that rounding does not leave it, as a share of it; more at each round. */
const GUARD = 2e-3;
const PER_HUNDRED = 1 / 100;

interface Bounds {
  superfatPct: readonly [number, number];
  lyePct: readonly [number, number] | null;
}

interface Pot {
  request: AssessmentRequest;
  stored: Stored;
  materials: Map<string, Material>;
  bounds: Bounds;
  holdsMl: number | null;
  /** What may be added, in this order. */
  ways: { line: string; material: string }[];
  isLyeBegun: boolean;
  /** The line of water that may be added; null for none. */
  water: string | null;
}

const withAdded = (formula: Formula, ways: Pot['ways'], grams: readonly number[]): Formula => {
  const added = new Map(ways.map(({ line }, at) => [line, grams[at]!]));
  return {
    ...formula,
    alkali: { ...formula.alkali, massG: (formula.alkali.massG ?? 0) + (added.get(ALKALI_LINE) ?? 0) },
    lines: formula.lines.map((line) => ({
      ...line,
      amount: { ...line.amount, value: line.amount.value + (added.get(line.id) ?? 0) },
    })),
  };
};

const liquidOf = (assessment: Assessment, formula: Formula) =>
  formula.lines.reduce(
    (sum, { stage }, at) =>
      stage === 'liquid' || stage === 'heldBack' ? sum + assessment.lines[at]!.massG : sum,
    0,
  );

function becomesOf({ request, stored, materials }: Pot, formula: Formula): Becomes | null {
  const result = assess({ ...request, formula }, stored);
  if (!result.ok) return null;
  const { assessment } = result;
  const { alkaliG } = assessment.masses;
  const together = alkaliG + liquidOf(assessment, formula);
  return {
    superfatPct: assessment.superfat.nominalPct,
    lyePct: together > 0 ? (100 * alkaliG) / together : 0,
    verdict: assessment.verdict,
    volumeMl: batterVolume(formula, assessment, (id) => materials.get(id)).volumeMl,
  };
}

const gramsOf = ({ ways }: Pot, grams: readonly number[], line: string | null) =>
  grams[ways.findIndex((way) => way.line === line)] ?? 0;

/** How far each bound is passed at some additions, grams or millilitres: at most 0 is within. */
function passed(pot: Pot, grams: readonly number[], guard: number, hasRoom: boolean): number[] | null {
  const formula = withAdded(pot.request.formula, pot.ways, grams);
  const request = { ...pot.request, formula };
  const ground = requestGround(request, pot.stored);
  const lines = formula.lines.map(({ material }) => pot.materials.get(material)!);
  const reckoning = reckon(formula, lines, ground);
  const becomes = becomesOf(pot, formula);
  if (typeof reckoning === 'string' || !becomes) return null;
  const { alkaliPureG, acidG, cookDemandG, alkaliG } = reckoning.batch;
  const soapG = alkaliPureG - acidG;
  const [least, most] = pot.bounds.superfatPct;
  const rows = [
    soapG - (1 - (least + guard) * PER_HUNDRED) * cookDemandG,
    (1 - most * PER_HUNDRED) * cookDemandG - soapG,
  ];
  if (pot.bounds.lyePct) {
    const wholeG = becomes.lyePct > 0 ? (100 * alkaliG) / becomes.lyePct : 0;
    const [low, high] = pot.bounds.lyePct;
    rows.push(alkaliG - high * PER_HUNDRED * (1 - guard) * wholeG, low * PER_HUNDRED * wholeG - alkaliG);
  }
  for (const { subjectG, allowedG } of heldIn(reckoning)) rows.push(subjectG - allowedG * (1 - guard));
  // Hydroxide that comes after the lye was made is dissolved by itself, in as much water at least.
  if (pot.isLyeBegun) rows.push(gramsOf(pot, grams, ALKALI_LINE) - gramsOf(pot, grams, pot.water));
  if (hasRoom && pot.holdsMl !== null) rows.push(becomes.volumeMl - pot.holdsMl * (1 - guard));
  return rows;
}

/** The programme around some additions: every bound as it changes with a gram more of each. */
function programme(
  pot: Pot,
  around: readonly number[],
  guard: number,
  hasRoom: boolean,
): LinearProblem | null {
  const base = passed(pot, around, guard, hasRoom);
  if (!base) return null;
  const stepped = pot.ways.map((_, way) =>
    passed(
      pot,
      around.map((g, at) => g + Number(at === way)),
      guard,
      hasRoom,
    ),
  );
  if (stepped.some((one) => one?.length !== base.length)) return null;
  const rows = base.map((value, row) => {
    const slopes = stepped.map((one) => one![row]! - value);
    const constant = value - slopes.reduce((sum, slope, at) => sum + slope * around[at]!, 0);
    const size = Math.max(Math.abs(constant), ...slopes.map(Math.abs)) || 1;
    return {
      terms: slopes.map((slope, at) => [at, slope / size] as const),
      relation: '<=' as const,
      right: -constant / size,
    };
  });
  return { variables: pot.ways.length, cost: pot.ways.map(() => 1), rows };
}

const roundedUp = (g: number) => {
  if (g < 1e-4) return 0;
  const step = g < FINE_BELOW_G ? 0.1 : 1;
  return Number((Math.ceil(g / step - 1e-6) * step).toFixed(1));
};

const within = (rows: readonly number[] | null) => rows !== null && rows.every((value) => value <= 1e-6);

/** The smallest additions, rounded and held against the full reckoning; null where there are none. */
function smallest(pot: Pot, solve: Solve, hasRoom: boolean): number[] | null {
  let around = pot.ways.map(() => 0);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const problem = programme(pot, around, GUARD * (1 + round), hasRoom);
    if (!problem) return null;
    const answer = solve(problem);
    if (answer.status !== 'optimal') return null;
    const grams = answer.values.map(roundedUp);
    if (within(passed(pot, grams, 0, hasRoom))) return grams;
    around = answer.values;
  }
  return null;
}

/** The line of the first liquid; null for none. */
const liquidLine = ({ formula }: Pick<AssessmentRequest, 'formula'>, materials: Pot['materials']) =>
  formula.lines.find(
    ({ stage, material }) => stage === 'liquid' && materials.get(material)?.kind === 'liquid',
  ) ?? null;

/**
 * What may still be added, of what the run sheet weighs: hydroxide and liquid until the lye is in the fats, but neither to
 * a lye stock; fats as long as it is poured.
 */
function waysOf(
  { sheet, stepsDone }: Batch,
  { formula }: Pick<AssessmentRequest, 'formula'>,
  materials: Pot['materials'],
  water: Line | null,
): Pot['ways'] {
  const weighed = new Set(sheet.steps.flatMap(({ weigh }) => weigh.map(({ line }) => line)));
  const isFat = ({ id, material, stage }: Line) =>
    weighed.has(id) &&
    isFatty(materials.get(material) ?? { kind: 'other' }) &&
    stage !== 'afterCook' &&
    stage !== 'top';
  const of = ({ id, material }: Line) => ({ line: id, material });
  const fats = formula.lines.filter(isFat).map(of);
  if (!canGrow({ stepsDone }) || sheet.lyeStock) return fats;
  const alkali = { line: ALKALI_LINE, material: ALKALI_LINE };
  return [alkali, ...fats, ...(water ? [of(water)] : [])];
}

/** The batch as it will be where what was begun is weighed to its end; of a line whose steps are done nothing more comes. */
function foretold(batch: Batch): Batch {
  const { sheet, lines, stepsDone, scale, wantedG } = batch;
  const isDone = (step: string) => stepsDone.some((one) => one.step === step);
  const totals = lines.flatMap(({ line, massG, weighings }): [string, number][] => {
    const own = sheet.steps.filter(({ weigh }) => weigh.some((one) => one.line === line));
    if (weighings.length === 0 || line in wantedG || own.every(({ id }) => isDone(id))) return [];
    const weigh = own.flatMap((step) => step.weigh.filter((one) => one.line === line));
    return [
      [
        line,
        Math.max(
          massG,
          weigh.reduce((sum, one) => sum + one.massG * scale, 0),
        ),
      ],
    ];
  });
  return { ...batch, wantedG: { ...Object.fromEntries(totals), ...wantedG } };
}

/** What lines come to, grams: those that may be added to, and the alkali, in a stock as it was weighed. */
function totalsOf({ sheet, lines }: Batch, formula: Formula, ways: Pot['ways']): Record<string, number> {
  const stockG = lines.find(({ line }) => line === LYE_STOCK_LINE)?.massG ?? 0;
  const alkali: Record<string, number> = sheet.lyeStock ? {} : { [ALKALI_LINE]: formula.alkali.massG! };
  if (sheet.lyeStock && stockG > 0) alkali[LYE_STOCK_LINE] = Math.max(stockG, sheet.lyeStock.massG);
  const added = formula.lines.filter(({ id }) => ways.some(({ line }) => line === id));
  return { ...alkali, ...Object.fromEntries(added.map(({ id, amount }) => [id, amount.value])) };
}

function boundsOf({ batch, stored, markets, onDate }: RescueAsk): Bounds {
  const planned = assess(
    {
      ...batchRequest(batch, stored, { markets, onDate }),
      formula: batch.formula,
    },
    stored,
  );
  const superfatPct = planned.ok ? (planned.assessment.superfat.nominalPct ?? 0) : 0;
  const liquidG = planned.ok ? liquidOf(planned.assessment, batch.formula) : 0;
  const alkaliG = planned.ok ? planned.assessment.masses.alkaliG : 0;
  const lyePct = (100 * alkaliG) / Math.max(1e-9, alkaliG + liquidG);
  return {
    superfatPct: [Math.max(LEAST_SUPERFAT_PCT, superfatPct - SUPERFAT_WITHIN), superfatPct + SUPERFAT_WITHIN],
    lyePct: canGrow(batch)
      ? [Math.max(LYE_PCT[0], lyePct - LYE_WITHIN), Math.min(LYE_PCT[1], lyePct + LYE_WITHIN)]
      : null,
  };
}

/**
 * The way back for a batch in the pot. What it proposes was put in and reckoned: it lies within every bound, and never
 * brings more lye than the fats take up. Null where the batch does not reckon at all.
 *
 * @example
 * rescue({ batch, stored, markets: ['EU'], onDate, holdsMl: 3000 }, solve)?.outcome; // 'found'
 */
export function rescue(ask: RescueAsk, solve: Solve): Rescue | null {
  const { batch, stored, markets, onDate, holdsMl } = ask;
  const request = batchRequest(foretold(batch), stored, { markets, onDate });
  const known = [...batch.materials, ...(request.materials ?? [])];
  const materials = new Map<string, Material>(known.map((material) => [material.id, material]));
  const bounds = boundsOf(ask);
  const liquid = liquidLine(request, materials);
  const ways = waysOf(batch, request, materials, liquid);
  const isLyeBegun = batch.lines.some(({ line, weighings }) => line === ALKALI_LINE && weighings.length > 0);
  const pot: Pot = {
    request,
    stored,
    materials,
    bounds,
    holdsMl,
    ways,
    isLyeBegun,
    water: liquid?.id ?? null,
  };
  const becomes = becomesOf(pot, request.formula);
  if (!becomes) return null;
  const none = ways.map(() => 0);
  if (within(passed(pot, none, 0, true))) return { outcome: 'fine', becomes };
  const found = smallest(pot, solve, true);
  if (found) {
    const formula = withAdded(request.formula, ways, found);
    const after = becomesOf(pot, formula);
    const additions = ways.flatMap(({ line, material }, at) =>
      found[at]! > 0 ? [{ line, material, massG: found[at]! }] : [],
    );
    return after && { outcome: 'found', additions, totalsG: totalsOf(batch, formula, ways), becomes: after };
  }
  const roomier = holdsMl === null ? null : smallest(pot, solve, false);
  const after = roomier && becomesOf(pot, withAdded(request.formula, ways, roomier));
  return { outcome: 'nothing', becomes, roomMl: after ? Math.max(0, after.volumeMl - holdsMl!) : null };
}
