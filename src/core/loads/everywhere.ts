/**
 * The nearest formula that is within every limit of several markets, on several days, with the maker's margin, and of
 * which chosen facts hold (vegan, palm free): a linear programme over all lines, fats and loads, read off the very
 * reckoning that assesses. Fats that break a fact give way to those on the table or beside it, so that the fatty acids stay
 * as near as they can; or it is said what does not go together. Pure; the solver is given.
 */
import { outlineOf, reckon, requestGround } from '../assess';
import { formulaFacts, takenApart } from '../claims/facts';
import { superfat } from '../chemistry/notes';
import { checkRequest } from '../formula/check';
import { VERDICTS } from '../formula/answer';
import { isFatty } from '../formula/fats';
import { USUAL_STAGE } from '../formula/stages';
import {
  REQUEST_FORMAT,
  type Amount,
  type AssessmentRequest,
  type FattyAcids,
  type Formula,
  type Line,
  type Market,
  type Material,
  type RequestError,
  type Stored,
} from '../formula/types';
import type { LinearProblem, Solve } from '../numerics/highs';
import { unitRule } from '../quantities/units';
import { heldIn } from '../scent/programme';
import { DEFAULT_MARGIN_PCT } from './plan';

export const WANTED_FACTS = ['vegan', 'palmFree'] as const;
export type WantedFact = (typeof WANTED_FACTS)[number];

export interface EverywhereDemand {
  markets: readonly Market[];
  /** Days whose rules have to be kept, YYYY-MM-DD. */
  dates: readonly string[];
  /** Whether the maker's margin below every limit is kept as well. */
  keepMargin: boolean;
  facts: readonly WantedFact[];
}

/** A line that moves: from so many grams to so many; 0 where it comes or goes. */
export interface Move {
  line: string;
  material: string;
  fromG: number;
  toG: number;
}

export type Everywhere =
  | {
      outcome: 'found';
      /** Empty where nothing has to move. */
      moves: Move[];
      formula: Formula;
      /** The worst of each market over all days, once it is put in. */
      verdicts: { market: Market; verdict: (typeof VERDICTS)[number] }[];
      /** Lines without a certificate: no amount proves them. */
      unproven: string[];
      /** Wanted facts that the formula cannot tell of by itself, with what leaves them open. */
      open: { fact: WantedFact; because: string[] }[];
      /** Whether the lye, which was stated by its mass, now follows from the superfat that it made: fats moved. */
      lyeFollows: boolean;
    }
  | { outcome: 'nothing'; facts: WantedFact[]; because: string[] }
  | { outcome: 'error'; errors: RequestError[] };

/** What is asked; `request` is what else of an assessment's request holds: first placed on, materials, rules of its own. */
export interface EverywhereAsked {
  request: Partial<Pick<AssessmentRequest, 'firstPlacedOn' | 'materials' | 'rules'>>;
  formula: Formula;
  stored: Stored;
  demand: EverywhereDemand;
  /** Fats that may come in: the maker's own beside the table. */
  beside: readonly Material[];
  find: (id: string) => Material | undefined;
}

/** A line that may move: what it weighs, and whether a wanted fact forbids it. */
interface Movable {
  line: Line;
  material: Material;
  massG: number;
  isFat: boolean;
  breaks: WantedFact[];
  isNew: boolean;
}

const PER_HUNDRED = 1 / 100;
/** Free below every bound, so that rounding an answer's amounts does not lift it over. */
const GUARD = 1e-3;
/** Parts of fatty acids that are kept as they are: what gives lather, hardness, mildness, and what turns early. */
const GROUPS: readonly (readonly (keyof FattyAcids)[])[] = [
  ['lauric', 'myristic'],
  ['palmitic', 'stearic'],
  ['oleic', 'ricinoleic'],
  ['linoleic', 'linolenic'],
];
/** What it costs to move: a load by its own share, fats and their acids by their share of all fats. */
const COST = { load: 1, fat: 2, newFat: 2.5, acids: 6 } as const;
/** Moves of less than this share of a line are none. */
const NOTHING_MOVED = 1e-4;
const MOST_BESIDE = 40;

function breaksOf(material: Material, { demand, find }: EverywhereAsked): WantedFact[] {
  const facts = formulaFacts(takenApart([material], find));
  return demand.facts.filter((wanted) => facts.find(({ id }) => id === wanted)?.standing === 'contradicted');
}

/** The request on a day, for a formula. */
const requestOn = (
  { request, demand }: EverywhereAsked,
  formula: Formula,
  onDate: string,
): AssessmentRequest => ({
  ...request,
  format: REQUEST_FORMAT,
  formula,
  markets: [...demand.markets],
  onDate,
});

const MOVED_STAGES = (stage: Line['stage']) => stage !== 'liquid' && stage !== 'heldBack';

/** The lines that may move, as they weigh now, and fats that may come in at nothing. */
function movables(
  asked: EverywhereAsked,
): { all: Movable[]; fatsG: number; superfatPct: number } | RequestError[] {
  const { formula, stored, demand, beside } = asked;
  const request = requestOn(asked, formula, demand.dates[0]!);
  const checked = checkRequest(request, stored);
  if (!checked.ok) return checked.errors;
  const reckoning = reckon(formula, checked.materials, requestGround(request, stored));
  if (typeof reckoning === 'string')
    return [
      { path: 'formula', code: reckoning, message: 'This formula does not reckon. Put it right first.' },
    ];
  const here = formula.lines.flatMap((line, at): Movable[] => {
    const material = checked.materials[at]!;
    if (!MOVED_STAGES(line.stage)) return [];
    const massG = reckoning.batch.massG[at]!;
    return [
      {
        line,
        material,
        massG,
        isFat: isFatty(material) && line.stage === 'fats',
        breaks: breaksOf(material, asked),
        isNew: false,
      },
    ];
  });
  const isBroken = here.some(({ isFat, breaks }) => isFat && breaks.length > 0);
  const known = new Set(formula.lines.map(({ material }) => material));
  const incoming = (isBroken ? beside : [])
    .filter((material) => material.kind === 'fat' && material.fattyAcids && !known.has(material.id))
    .filter((material) => breaksOf(material, asked).length === 0)
    .slice(0, MOST_BESIDE)
    .map((material): Movable => ({
      line: {
        id: `beside ${material.id}`,
        material: material.id,
        stage: USUAL_STAGE.fat,
        amount: { value: 1, unit: 'g' },
        measuredBy: 'scale',
      },
      ...{ material, massG: 0, isFat: true, breaks: [], isNew: true },
    }));
  const { batch } = reckoning;
  return {
    all: [...here, ...incoming],
    fatsG: batch.fatsG,
    superfatPct: superfat(batch).nominalPct ?? 0,
  };
}

/** The formula with every movable line at a mass in grams; what weighs nothing is left out unless it is kept. */
function weighing(formula: Formula, all: readonly Movable[], grams: readonly number[]): Formula {
  const gramsOf = new Map(all.map(({ line }, at) => [line.id, grams[at]!]));
  const incoming = all.filter(({ isNew }) => isNew).map(({ line }) => line);
  const lines = [...formula.lines, ...incoming].map((line) =>
    gramsOf.has(line.id) ? { ...line, amount: { value: gramsOf.get(line.id)!, unit: 'g' as const } } : line,
  );
  return { ...formula, fatsMassG: null, lines };
}

/** The store with the materials of the lines and of what may come in. */
function storeWith({ stored, find }: EverywhereAsked, all: readonly Movable[]): Stored {
  const materials = new Map(all.map(({ material }) => [material.id, material]));
  return { ...stored, material: (id) => materials.get(id) ?? find(id) };
}

/** Every bound of all days at some grams: what it finds less what it allows; null where it does not reckon. */
function boundsAt(
  asked: EverywhereAsked,
  all: readonly Movable[],
  grams: readonly number[],
): number[] | null {
  const { demand } = asked;
  const formula = weighing(asked.formula, all, grams);
  const marginPct = demand.keepMargin ? (formula.marginPct ?? DEFAULT_MARGIN_PCT) : 0;
  const seen = storeWith(asked, all);
  const rows: number[] = [];
  for (const onDate of demand.dates) {
    const request = requestOn(asked, formula, onDate);
    const checked = checkRequest({ ...request, materials: undefined }, seen);
    if (!checked.ok) return null;
    const reckoning = reckon(formula, checked.materials, requestGround(request, seen));
    if (typeof reckoning === 'string') return null;
    for (const { subjectG, allowedG } of heldIn(reckoning, marginPct * PER_HUNDRED))
      rows.push(subjectG - allowedG * (1 - GUARD));
  }
  return rows;
}

type Row = LinearProblem['rows'][number];

/** Bounds as they change with a gram more of each line, around masses that all are above nothing. */
function limitRows(asked: EverywhereAsked, all: readonly Movable[]): Row[] | null {
  const around = all.map(({ massG }) => Math.max(massG, 1));
  const base = boundsAt(asked, all, around);
  const stepped = all.map((_, at) =>
    boundsAt(
      asked,
      all,
      around.map((g, one) => g + Number(one === at)),
    ),
  );
  if (!base || stepped.includes(null)) return null;
  return base.flatMap((value, row): Row[] => {
    const factors = stepped.map((state) => state![row]! - value);
    const constant = value - factors.reduce((sum, factor, at) => sum + factor * around[at]!, 0);
    const size = Math.max(Math.abs(constant), ...factors.map(Math.abs));
    if (size === 0) return [];
    return [
      {
        terms: factors.map((factor, at) => [at, factor / size] as const),
        relation: '<=',
        right: -constant / size,
      },
    ];
  });
}

/** Two rows that keep a variable at least as large as a sum is away from what it was. */
function apart(terms: Row['terms'], was: number, by: number): Row[] {
  return [1, -1].map((side) => ({
    terms: [...terms.map(([at, factor]) => [at, side * factor] as const), [by, -1] as const],
    relation: '<=' as const,
    right: side * was,
  }));
}

/** The programme: masses, then how far each is from what it was, then how far each group of acids is. */
function problemOf(all: readonly Movable[], fatsG: number, limits: readonly Row[]): LinearProblem {
  const count = all.length;
  const cost = new Array<number>(2 * count + GROUPS.length).fill(0);
  const rows: Row[] = [...limits];
  all.forEach(({ massG, isFat, breaks, isNew }, at) => {
    const share = isFat ? (isNew ? COST.newFat : COST.fat) / fatsG : COST.load / Math.max(massG, 1e-6);
    cost[count + at] = share;
    rows.push(...apart([[at, 1]], massG, count + at));
    if (breaks.length > 0) rows.push({ terms: [[at, 1]], relation: '<=', right: 0 });
  });
  const fats = all.flatMap(({ isFat }, at) => (isFat ? [at] : []));
  rows.push({ terms: fats.map((at) => [at, 1] as const), relation: '=', right: fatsG });
  GROUPS.forEach((acids, group) => {
    const part = (at: number) =>
      acids.reduce((sum, acid) => sum + (all[at]!.material.fattyAcids?.[acid] ?? 0), 0) * PER_HUNDRED;
    const was = fats.reduce((sum, at) => sum + part(at) * all[at]!.massG, 0);
    const by = 2 * count + group;
    cost[by] = COST.acids / fatsG;
    rows.push(
      ...apart(
        fats.map((at) => [at, part(at)] as const),
        was,
        by,
      ),
    );
  });
  return { variables: cost.length, cost, rows };
}

const DIGITS = 3;
const down = (value: number) => Math.floor(value * 10 ** DIGITS + 1e-6) / 10 ** DIGITS;
const near = (value: number) => Number(value.toFixed(DIGITS));

/** An amount of so many times what a line was, in its own unit where that is a mass or a share of the fats. */
function amountOf({ line, massG, isFat }: Movable, toG: number): Amount {
  const rule = unitRule(line.amount.unit);
  const isOwn = rule !== undefined && (rule.base === 'absolute' || rule.base === 'fats') && massG > 0;
  const value = isOwn ? (line.amount.value * toG) / massG : toG;
  return { value: isFat ? near(value) : down(value), unit: isOwn ? line.amount.unit : 'g' };
}

/** The formula with what moved; fats in percent stay in percent, and what comes in is said alike. */
function withMoves(formula: Formula, all: readonly Movable[], grams: readonly number[], fatsG: number) {
  const moves: Move[] = [];
  const isInPercent = all.some(({ isFat, line, isNew }) => isFat && !isNew && line.amount.unit === '%fats');
  const taken = new Set(formula.lines.map(({ id }) => id));
  const lines = [...formula.lines];
  all.forEach((one, at) => {
    const { line, material, massG, isNew } = one;
    const toG = grams[at]! < NOTHING_MOVED * Math.max(massG, fatsG * NOTHING_MOVED) ? 0 : grams[at]!;
    if (Math.abs(toG - massG) <= NOTHING_MOVED * Math.max(massG, isNew ? fatsG : 0)) return;
    moves.push({ line: line.id, material: material.id, fromG: massG, toG });
    const place = lines.findIndex(({ id }) => id === line.id);
    if (isNew) {
      let number = lines.length + 1;
      while (taken.has(`l${number}`)) number++;
      taken.add(`l${number}`);
      const amount: Amount = isInPercent
        ? { value: near((100 * toG) / fatsG), unit: '%fats' }
        : { value: near(toG), unit: 'g' };
      lines.unshift({ ...line, id: `l${number}`, amount });
    } else if (toG === 0) lines.splice(place, 1);
    else lines[place] = { ...line, amount: amountOf(one, toG) };
  });
  return { formula: { ...formula, lines }, moves };
}

/** How the formula stands in each market, the worst of all days, and lines that nothing proves. */
function standing(asked: EverywhereAsked, formula: Formula, all: readonly Movable[]) {
  const seen = storeWith(asked, all);
  const outlines = asked.demand.dates.map((onDate) =>
    outlineOf({ ...requestOn(asked, formula, onDate), materials: undefined }, seen),
  );
  const verdicts = asked.demand.markets.map((market) => {
    const worst = outlines.map(
      (one) => one?.markets.find((found) => found.market === market)?.verdict ?? 'over',
    );
    return { market, verdict: VERDICTS[Math.min(...worst.map((verdict) => VERDICTS.indexOf(verdict)))]! };
  });
  const materialOf = new Map(all.map(({ line, material }) => [line.material, material]));
  const used = formula.lines.flatMap(
    ({ material }) => materialOf.get(material) ?? asked.find(material) ?? [],
  );
  const facts = formulaFacts(takenApart(used, asked.find));
  const open = asked.demand.facts.flatMap((fact) => {
    const found = facts.find(({ id }) => id === fact);
    return found?.standing === 'open' ? [{ fact, because: found.because }] : [];
  });
  const unproven = [...new Set(outlines.flatMap((one) => one?.unproven.map(({ line }) => line) ?? []))];
  return { verdicts, unproven, open };
}

const LYE_HEAVY: RequestError = {
  path: 'formula.alkali',
  code: 'lye-heavy',
  message: 'There is more lye than the fats can take up. Put the lye right first.',
};

/**
 * The nearest formula that is clear everywhere, as far as amounts can make it so.
 *
 * @example
 * const found = everywhere(asked, solve);
 * if (found.outcome === 'found') found.moves; // [{ line: 'l4', material: 'lavender', fromG: 35, toG: 22.1 }]
 */
export function everywhere(asked: EverywhereAsked, solve: Solve): Everywhere {
  const read = movables(asked);
  if (Array.isArray(read)) return { outcome: 'error', errors: read };
  const { all, fatsG, superfatPct } = read;
  if (superfatPct < 0) return { outcome: 'error', errors: [LYE_HEAVY] };
  const limits = limitRows(asked, all);
  if (!limits)
    return {
      outcome: 'error',
      errors: [
        {
          path: 'formula',
          code: 'no-solution',
          message: 'With other amounts this formula does not reckon. Put its lye and liquid right first.',
        },
      ],
    };
  const answer = solve(problemOf(all, fatsG, limits));
  if (answer.status !== 'optimal') {
    const broken = all.filter(({ isFat, breaks }) => isFat && breaks.length > 0);
    return {
      outcome: 'nothing',
      facts: [...new Set(broken.flatMap(({ breaks }) => breaks))],
      because: broken.map(({ material }) => material.name),
    };
  }
  const { formula, moves } = withMoves(asked.formula, all, answer.values.slice(0, all.length), fatsG);
  const isMoved = (line: string) => moves.some((move) => move.line === line);
  const { massG, purityPct } = asked.formula.alkali;
  // The same lye for other fats would be too much or too little of it.
  if (massG != null && all.some(({ isFat, line }) => isFat && isMoved(line.id))) {
    const alkali = { superfatPct, purityPct };
    const found = everywhere({ ...asked, formula: { ...asked.formula, alkali } }, solve);
    return found.outcome === 'found' ? { ...found, lyeFollows: true } : found;
  }
  return { outcome: 'found', moves, formula, lyeFollows: false, ...standing(asked, formula, all) };
}
