/**
 * A scent blend as a linear programme. The oils stand as lines in grams in a bar's formula; what every limit
 * leaves free there is affine in their masses, so the programme is read off the same reckoning that assesses:
 * once with a gram of each oil, and once more for every oil with a second gram.
 */
import { checkRequest } from '../formula/check';
import type { AssessmentRequest, Formula, LimitBasis, Market, RequestError, Stored } from '../formula/types';
import { reckon, requestGround, type Reckoning } from '../assess';
import { binds } from '../loads/limits';
import { basisMass, WHOLE } from '../loads/sections';
import { DEFAULT_MARGIN_PCT } from '../loads/plan';

/** An oil of the blend: its line in the bar's formula and its parts against the others. */
export interface BlendOil {
  line: string;
  parts: number;
}

export interface BlendDemand {
  /** `nearest`: the wanted total, parts moved as little as possible; `largest`: as much as the limits allow. */
  mode: 'nearest' | 'largest';
  /** Wanted total in percent of the fats, for `nearest`. */
  totalPctFats: number;
  /** How far each part may move against the others, percent of itself; null lets it move freely. */
  leewayPct: number | null;
  /** Whether the maker's margin below every limit is kept as well. */
  keepMargin: boolean;
  /** Names whose share has to stay under the threshold at which they are declared. */
  stayUnder: readonly { market: Market; id: string }[];
}

/** What a row of the programme stands for. */
export type RowMeaning =
  | {
      kind: 'limit';
      id: string;
      subject: { type: string; id: string };
      markets: Market[];
      maxPct: number;
      basis: LimitBasis;
      portion: string | null;
      source: string | null;
    }
  | { kind: 'threshold'; id: string; name: string; market: Market; maxPct: number; portion: string | null };

/** Grams of the subject less what its maximum allows: the sum of coefficient times mass, plus constant, is at most 0. */
export interface ProgrammeRow {
  key: string;
  meaning: RowMeaning;
  coefficients: number[];
  constant: number;
  /** What ten percent more of the maximum would add to what is allowed, likewise. */
  looser: { coefficients: number[]; constant: number };
}

export interface Programme {
  oils: BlendOil[];
  fatsG: number;
  rows: ProgrammeRow[];
}

/** How much a limit is loosened to show what that would buy. */
export const LOOSENED_BY = 0.1;
/** Kept free below every maximum, so that rounding an answer's amounts does not lift it over. */
const ROUNDING_GUARD = 3e-4;
const PER_HUNDRED = 1 / 100;

export type ProgrammeResult = { ok: true; programme: Programme } | { ok: false; errors: RequestError[] };

/** The formula with each oil of the blend at a mass in grams. */
export function withBlendMasses(
  formula: Formula,
  oils: readonly BlendOil[],
  masses: readonly number[],
): Formula {
  const massOf = new Map(oils.map(({ line }, index) => [line, masses[index]!]));
  return {
    ...formula,
    lines: formula.lines.map((line) =>
      massOf.has(line.id) ? { ...line, amount: { value: massOf.get(line.id)!, unit: 'g' } } : line,
    ),
  };
}

interface Held {
  key: string;
  meaning: RowMeaning;
  subjectG: number;
  allowedG: number;
}

/** What each demand holds and allows in a reckoned bar, in grams, section by section. */
function heldBy(
  reckoning: Reckoning,
  demand: Pick<BlendDemand, 'keepMargin' | 'stayUnder'>,
  margin: number,
): Held[] {
  const { plan, subjects, all } = reckoning;
  const held: Held[] = [];
  all.forEach((section, index) => {
    const portion = index === WHOLE ? null : plan.portions[index - 1]!.id;
    const allowed = (k: number, basis: LimitBasis, maxPct: number) => {
      const shift = basis === 'fats' ? section.highFatShift[k]! : section.highShift[k]!;
      return maxPct * PER_HUNDRED * (basisMass(section, basis) + shift);
    };
    for (let k = 0; k < subjects.count; k++) {
      const subjectG = section.high[k]!;
      for (const { limit, markets } of subjects.limits[k]!) {
        if (!binds(limit.force) || !subjects.isCarried[k]) continue;
        const { id, subject, basis, maxPct } = limit;
        const source = limit.source ?? null;
        const meaning: RowMeaning = {
          kind: 'limit',
          id,
          subject,
          markets: [...markets],
          maxPct,
          basis,
          portion,
          source,
        };
        const effective = maxPct * (1 - (demand.keepMargin ? margin : 0));
        held.push({
          key: `${index} ${k} ${id} ${markets.join()} ${maxPct}`,
          meaning,
          subjectG,
          allowedG: allowed(k, basis, effective),
        });
      }
      for (const { id, name, thresholdPct, markets } of subjects.declarables[k]!) {
        const wanted = demand.stayUnder.find((entry) => entry.id === id && markets.includes(entry.market));
        if (!wanted) continue;
        const meaning: RowMeaning = {
          kind: 'threshold',
          id,
          name,
          market: wanted.market,
          maxPct: thresholdPct,
          portion,
        };
        held.push({
          key: `${index} ${k} under ${id} ${wanted.market}`,
          meaning,
          subjectG,
          allowedG: allowed(k, 'cured', thresholdPct),
        });
      }
    }
  });
  return held;
}

/** Grams that each binding limit finds of its subject, at the high end, and that it allows less a margin, 0 to 1, section by section. */
export const heldIn = (
  reckoning: Reckoning,
  margin = 0,
): readonly { meaning: RowMeaning; subjectG: number; allowedG: number }[] =>
  heldBy(reckoning, { keepMargin: true, stayUnder: [] }, margin);

function rowsFrom(states: readonly Held[][]): ProgrammeRow[] {
  const [first, ...stepped] = states;
  return first!.map((at, index) => {
    const overAt = (held: Held) => held.subjectG - held.allowedG * (1 - ROUNDING_GUARD);
    const moreAt = (held: Held) => LOOSENED_BY * held.allowedG;
    const affine = (value: (held: Held) => number) => {
      const coefficients = stepped.map((state) => value(state[index]!) - value(at));
      return { coefficients, constant: value(at) - coefficients.reduce((sum, step) => sum + step, 0) };
    };
    return { key: at.key, meaning: at.meaning, ...affine(overAt), looser: affine(moreAt) };
  });
}

/**
 * Reads the programme of a blend off a request whose formula holds the oils as lines. Errors as `assess` tells
 * them. A limit of 0 % leaves nothing free and so forbids its oil.
 */
export function blendProgramme(
  request: AssessmentRequest,
  stored: Stored,
  oils: readonly BlendOil[],
  demand: BlendDemand,
): ProgrammeResult {
  const checked = checkRequest(request, stored);
  if (!checked.ok) return checked;
  const ground = requestGround(request, stored);
  const margin = (request.formula.marginPct ?? DEFAULT_MARGIN_PCT) * PER_HUNDRED;
  const states: Held[][] = [];
  let fatsG = 0;
  for (let step = -1; step < oils.length; step++) {
    const masses = oils.map((_, index) => (index === step ? 2 : 1));
    const reckoning = reckon(withBlendMasses(request.formula, oils, masses), checked.materials, ground);
    if (typeof reckoning === 'string') {
      const message = 'The bar this blend is tried in does not reckon. Put its formula right first.';
      return { ok: false, errors: [{ path: 'formula', code: reckoning, message }] };
    }
    fatsG = reckoning.batch.fatsG;
    states.push(heldBy(reckoning, demand, margin));
  }
  return { ok: true, programme: { oils: [...oils], fatsG, rows: rowsFrom(states) } };
}
