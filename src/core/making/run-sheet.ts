/**
 * The run sheet: the steps of a pour day in order, with what to weigh in each (batch page). Pure; the size, the
 * scale and the day come in as options.
 */
import { assess } from '../assess';
import type { Assessment } from '../formula/answer';
import type { TraitMaterial } from '../formula/traits';
import { MARKETS, REQUEST_FORMAT, type Formula, type Limit, type RequestError } from '../formula/types';
import { DayBook, type Day } from './day-book';
import { fats, gear, join, lye, mouldAndRest, portions } from './day-steps';
import { bucketOf } from './bucket';
import { planPremixes } from './premix';
import { loadOf, type Load } from './roles';
import { batterVolume, scaleFormula } from './size';
import {
  ALKALI_LINE,
  LYE_STOCK_LINE,
  RUN_SHEET_FORMAT,
  WATER_PCT,
  type RunSheet,
  type RunSheetOptions,
  type RunSheetResult,
} from './run-sheet-types';

/** How far a weighing may be off, relative: alkali, and the rest (batch page). */
const OFF_ALKALI = 0.005;
const OFF_OTHERS = 0.02;
/** Readability of the scale where none is given, grams: a kitchen scale, and a fine one below this mass. */
const READABILITY_G = 1;
const FINE_READABILITY_G = 0.1;
const FINE_BELOW_G = 50;
/** Any day, where limits count whatever their days. */
const ANY_DAY = '2000-01-01';

const refused = (path: string, code: string, message: string): { ok: false; errors: RequestError[] } => ({
  ok: false,
  errors: [{ path, code, message }],
});

const dateless = (limit: Limit): Limit => ({ ...limit, from: null, to: null });

function assessed(formula: Formula, materials: readonly TraitMaterial[], options: RunSheetOptions) {
  const { limits = [], markets = [...MARKETS], onDate } = options;
  const dated = onDate !== undefined;
  const request = {
    format: REQUEST_FORMAT,
    formula,
    materials: dated
      ? [...materials]
      : materials.map((material) => ({ ...material, limits: material.limits?.map(dateless) })),
    markets,
    onDate: onDate ?? ANY_DAY,
  };
  const rules = { limits: dated ? limits : limits.map(dateless), declarables: [] };
  return assess(request, { material: () => undefined, ...rules });
}

const isSize = (value: number) => Number.isFinite(value) && value > 0;

/** The factor from the formula as it stands to the size of the day. */
function factorOf(
  formula: Formula,
  assessment: Assessment,
  materials: ReadonlyMap<string, TraitMaterial>,
  options: RunSheetOptions,
): number | ReturnType<typeof refused> {
  const { fatsMassG, bars, moulds, mouldsOnFile = [] } = options;
  if (fatsMassG !== undefined) {
    if (!isSize(fatsMassG))
      return refused('fatsMassG', 'out-of-range', 'Give the fats in grams, above zero.');
    return fatsMassG / assessment.masses.fatsG;
  }
  if (bars !== undefined) {
    if (!isSize(bars)) return refused('bars', 'out-of-range', 'Give the bars as a number above zero.');
    if (!formula.bars)
      return refused(
        'bars',
        'bars-unknown',
        'Say in the formula how many bars it makes, or choose another size.',
      );
    return bars / formula.bars;
  }
  if (moulds === undefined) return 1;
  let volumeMl = 0;
  for (const [at, { id, count, volumeMl: stated }] of moulds.entries()) {
    const each = stated ?? mouldsOnFile.find((mould) => mould.id === id)?.volumeMl;
    if (each === undefined)
      return refused(`moulds.${at}.id`, 'unknown-mould', `There is no mould "${id}" on file.`);
    if (!isSize(count) || !isSize(each))
      return refused(`moulds.${at}.count`, 'out-of-range', 'Give a count and a volume above zero.');
    volumeMl += each * count;
  }
  if (volumeMl === 0) return refused('moulds', 'out-of-range', 'Choose at least one mould.');
  return volumeMl / batterVolume(formula, assessment, (id) => materials.get(id)).volumeMl;
}

type Stock = Pick<Day, 'stock' | 'broughtG'>;

/** Share of the water that may come with a stock where other things have to dissolve in some of it first. */
const LEFT_TO_DISSOLVE = 0.9;

/** A lye made strong beforehand: what of it to take, and whose water it brings. */
function stockOf(
  loads: readonly Load[],
  alkaliG: number,
  { lyeStock }: RunSheetOptions,
): Stock | ReturnType<typeof refused> {
  if (!lyeStock) return { stock: null, broughtG: new Map() };
  const path = 'lyeStock.concentrationPct';
  const { concentrationPct } = lyeStock;
  if (!(concentrationPct > 0 && concentrationPct < 100))
    return refused(path, 'out-of-range', 'Give the strength of the stock in percent, above 0 and below 100.');
  const wantedG = (100 * alkaliG) / concentrationPct - alkaliG;
  const waters = loads.filter(
    ({ line, material, role }) =>
      role === 'liquid' &&
      line.stage === 'liquid' &&
      material.kind === 'liquid' &&
      (material.waterPct ?? 0) >= WATER_PCT,
  );
  const thereG = waters.reduce((sum, load) => sum + load.massG, 0);
  const liquidG = loads.filter(({ role }) => role === 'liquid').reduce((sum, load) => sum + load.massG, 0);
  const dissolves = loads.some(({ role }) => role === 'dissolved');
  const isTooMuch = wantedG > thereG * (1 + 1e-12) || (dissolves && liquidG - wantedG <= liquidG * 1e-9);
  const roomG = thereG * (dissolves ? LEFT_TO_DISSOLVE : 1);
  if (isTooMuch && !(lyeStock.restDry && roomG > 0)) {
    const least = Math.ceil((100 * alkaliG) / (alkaliG + roomG));
    const message = `The stock brings ${Math.round(wantedG)} g of water, and the formula has ${Math.round(thereG)} g to give${dissolves ? ', some of which has to dissolve other things first' : ''}. Too little liquid is left: ${
      least < 100
        ? `make the stock at least ${least} % strong, take part of the alkali dry, or raise the water of the formula.`
        : 'weigh the alkali dry, or give the formula water.'
    }`;
    return refused(path, 'too-little-liquid', message);
  }
  const waterG = isTooMuch ? roomG : wantedG;
  const massG = waterG / (1 - concentrationPct / 100);
  const dryG = isTooMuch ? alkaliG - (massG * concentrationPct) / 100 : 0;
  const broughtG = new Map(
    waters.map(({ line, massG: own }) => [line.id, thereG > 0 ? Math.min(own, (own * waterG) / thereG) : 0]),
  );
  const made = lyeStock.isMade ? { isMade: true as const } : {};
  return { stock: { concentrationPct, massG, waterG, ...(dryG > 0 ? { dryG } : {}), ...made }, broughtG };
}

/** How far each weighing may be off; above, never past what the line may hold at most. */
function tolerances({ lines }: Assessment, readabilityG: number | undefined): Day['tolerance'] {
  const byId = new Map(lines.map((line) => [line.id, line]));
  return (id, massG) => {
    const isAlkali = id === ALKALI_LINE || id === LYE_STOCK_LINE;
    const least = readabilityG ?? (massG < FINE_BELOW_G ? FINE_READABILITY_G : READABILITY_G);
    const offG = Math.max(least, massG * (isAlkali ? OFF_ALKALI : OFF_OTHERS));
    const line = byId.get(id);
    if (!line || line.maxG === null || line.massG <= 0) return { underG: offG, overG: offG };
    const roomG = (Math.max(0, line.maxG - line.massG) * massG) / line.massG;
    return { underG: offG, overG: Math.min(offG, roomG) };
  };
}

function stepsOf(day: Day) {
  const book = new DayBook(day);
  const dressed = gear(book);
  const lyeReady = lye(book, dressed);
  const pot = fats(book, dressed);
  const batter = portions(book, join(book, lyeReady, pot));
  mouldAndRest(book, batter);
  return book.steps;
}

const namedMoulds = ({ moulds = [], mouldsOnFile }: RunSheetOptions): RunSheet['moulds'] =>
  moulds.map(({ id, count, name }) => ({
    id,
    count,
    name: name ?? mouldsOnFile?.find((mould) => mould.id === id)?.name ?? id,
  }));

/**
 * The steps of the day for a formula at a size. Every line's masses over all steps add up to its assessed mass at
 * that size, the alkali to `alkaliG`; with a lye stock, its water is taken off the water of stage `liquid`.
 * Refused, with path, code and remedy, where the formula does not reckon, a size cannot be told or a lye stock
 * leaves too little liquid.
 *
 * @example
 * const sheet = runSheet(formula, materials, { bars: 28, lyeStock: { concentrationPct: 50 } });
 * if (sheet.ok) sheet.steps[0].how; // 'Goggles, gloves, …'
 */
export function runSheet(
  formula: Formula,
  materials: readonly TraitMaterial[],
  options: RunSheetOptions = {},
): RunSheetResult {
  const byId = new Map(materials.map((material) => [material.id, material]));
  const planned = assessed(formula, materials, options);
  if (!planned.ok) return planned;
  const factor = factorOf(formula, planned.assessment, byId, options);
  if (typeof factor !== 'number') return factor;
  const scaled = scaleFormula(formula, factor);
  const result = assessed(scaled, materials, options);
  if (!result.ok) return result;
  const { assessment } = result;
  const { alkaliG, fatsG, pourG } = assessment.masses;
  const parts = scaled.portions ?? [];
  const ids = new Set(parts.map(({ id }) => id));
  const loads = scaled.lines
    .map((line, at) => loadOf(line, byId.get(line.material)!, assessment.lines[at]!.massG, ids))
    .filter(({ massG }) => massG > 0);
  const stock = stockOf(loads, alkaliG, options);
  if ('ok' in stock) return stock;
  const premixes = planPremixes(loads);
  const bucket = bucketOf(loads, premixes, options.bucket);
  if (bucket && 'ok' in bucket) return bucket;
  const broughtG = new Map([
    ...stock.broughtG,
    ...(bucket?.parts ?? []).map(({ line, massG }) => [line, massG] as const),
  ]);
  const isHot = scaled.process === 'hot' || scaled.lines.some(({ stage }) => stage === 'afterCook');
  const steps = stepsOf({
    loads,
    premixes,
    portions: parts,
    isHot,
    weights: options.weights ?? 'g',
    alkali: { name: 'Sodium hydroxide', massG: alkaliG },
    stock: stock.stock,
    bucket,
    broughtG,
    tolerance: tolerances(assessment, options.readabilityG),
  });
  const sheet: RunSheet = {
    format: RUN_SHEET_FORMAT,
    formula: scaled,
    fatsG,
    pourG,
    alkaliG,
    bars: formula.bars ? Math.max(1, Math.round(formula.bars * factor)) : null,
    moulds: namedMoulds(options),
    lyeStock: stock.stock,
    ...(bucket ? { bucket } : {}),
    vessels: [...new Set(steps.flatMap(({ weigh }) => weigh.map(({ vessel }) => vessel)))],
    minutes: steps.reduce((sum, { minutes }) => sum + (minutes ?? 0), 0),
    steps,
  };
  return { ok: true, ...sheet };
}
