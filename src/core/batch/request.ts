/** The assessment request of what was really weighed (batch page). */
import type { AssessmentRequest, Formula, Line, Market, Material, Measure, Stored } from '../formula/types';
import { REQUEST_FORMAT } from '../formula/types';
import { measureDoubt } from '../loads/plan';
import { ALKALI_LINE, BUCKET_LINE, LYE_STOCK_LINE, WATER_PCT } from '../making/run-sheet-types';
import type { Batch, BatchLine, Weighing } from './types';

export interface BatchRequestOptions {
  markets: Market[];
  /** The day whose rules and papers count. */
  onDate: string;
  firstPlacedOn?: AssessmentRequest['firstPlacedOn'];
  placedOn?: AssessmentRequest['placedOn'];
  /**
   * `frozen`: the materials as they were copied when the batch was begun; `stored`: as they are on file. What was
   * added comes from the file either way. Left out, frozen.
   */
  materials?: 'frozen' | 'stored';
}

/** States in which what was not weighed is not yet known to be missing. */
const isPouring = ({ state }: Batch) => state === 'pouring';

/** Of a spoon that its maker has weighed, percent. */
type SpoonPct = number | null | undefined;
type Doubt = Pick<Line, 'measuredBy' | 'uncertaintyPct' | 'doubtPct'>;

const isGuess = ({ readabilityG }: Weighing) => readabilityG === null;
const sum = (weighings: readonly Weighing[]) => weighings.reduce((total, { massG }) => total + massG, 0);

/** Doubt below and above of some weighings, grams. */
function doubtG(weighings: readonly Weighing[], spoonPct: SpoonPct): readonly [number, number] {
  let [low, high] = [0, 0];
  for (const { massG, readabilityG, how } of weighings) {
    const [down, up] = readabilityG === null ? measureDoubt(how as Measure, spoonPct) : [0, 0];
    low += readabilityG ?? -down * massG;
    high += readabilityG ?? up * massG;
  }
  return [low, high];
}

/** How unsure a line's mass is: by the scale, by the way it was guessed, or by both. */
function doubtOf(weighings: readonly Weighing[], massG: number, spoonPct: SpoonPct): Doubt {
  const [low, high] = doubtG(weighings, spoonPct);
  if (!weighings.some(isGuess)) return { measuredBy: 'scale', uncertaintyPct: (100 * low) / massG };
  const { how } = weighings[0]!;
  if (weighings.every((one) => isGuess(one) && one.how === how)) return { measuredBy: how as Measure };
  return {
    measuredBy: how === 'typed' ? 'scale' : how,
    doubtPct: { low: (100 * low) / massG, high: (100 * high) / massG },
  };
}

/** What a line really came to, grams; while it is poured and not begun, what it is to come to. */
function cameTo({ lines, state, scale }: Batch, of: string): number {
  const found = lines.find(({ line }) => line === of);
  if (!found) return 0;
  const isPlanned = state === 'pouring' && found.weighings.length === 0 && found.skipped === null;
  return isPlanned ? (found.plannedG ?? 0) * scale : found.massG;
}

/** What a bucket of fats really brought, grams by line, in the proportions of its parts. */
function bucketFats(batch: Batch): ReadonlyMap<string, number> {
  const { bucket } = batch.sheet;
  if (!bucket || bucket.massG <= 0) return new Map();
  const grown = cameTo(batch, BUCKET_LINE) / bucket.massG;
  return new Map(bucket.parts.map(({ line, massG }) => [line, massG * grown]));
}

/** Water that the lye stock really brought, grams, shared out over the lines it stands for. */
function stockWater(batch: Batch): ReadonlyMap<string, number> {
  const { sheet, formula, materials } = batch;
  if (!sheet.lyeStock) return new Map();
  const waterG = cameTo(batch, LYE_STOCK_LINE) * (1 - sheet.lyeStock.concentrationPct / 100);
  if (waterG <= 0) return new Map();
  const isWater = (id: string) => {
    const material = materials.find((one) => one.id === id);
    return material?.kind === 'liquid' && (material.waterPct ?? 0) >= WATER_PCT;
  };
  const waters = formula.lines.filter(({ stage, material }) => stage === 'liquid' && isWater(material));
  return new Map(waters.map(({ id }) => [id, waterG / waters.length]));
}

/** The portions that a line's weighings went into; the line's own where they say nothing. */
function parts(line: BatchLine): { portion: string | null; weighings: Weighing[] }[] {
  const of = (one: Weighing) => line.portion ?? one.portion;
  const portions = [...new Set(line.weighings.map(of))];
  return portions.map((portion) => ({
    portion,
    weighings: line.weighings.filter((one) => of(one) === portion),
  }));
}

function weighedLines(line: BatchLine, plain: Line, extraG: number, spoonPct: SpoonPct): Line[] {
  const split = parts(line);
  if (split.length === 0 && extraG > 0)
    return [{ ...plain, amount: { value: extraG, unit: 'g' }, measuredBy: 'scale' }];
  return split.flatMap(({ portion, weighings }, at): Line[] => {
    const weighedG = sum(weighings);
    const massG = weighedG + (at === 0 ? extraG : 0);
    if (massG <= 0) return [];
    return [
      {
        ...plain,
        id: at === 0 ? plain.id : `${plain.id}:${portion ?? 'common'}`,
        amount: { value: massG, unit: 'g' },
        ...doubtOf(weighings, massG, spoonPct),
        ...(portion === null ? {} : { portion }),
      },
    ];
  });
}

/**
 * What a line that was begun is still to be topped up by since the day was scaled or the pot put right, grams: while it is
 * poured, it will be.
 */
function toCome(batch: Batch, { line, plannedG, weighings, skipped }: BatchLine): number {
  const settledG = batch.wantedG[line];
  if (!isPouring(batch) || skipped !== null) return 0;
  if (settledG !== undefined) return Math.max(0, settledG - sum(weighings));
  return batch.scale === 1 || plannedG === null ? 0 : Math.max(0, plannedG * batch.scale - sum(weighings));
}

/** What is weighed under a name of its own and stands in the formula as something else. */
const NO_LINES: ReadonlySet<string> = new Set([ALKALI_LINE, LYE_STOCK_LINE, BUCKET_LINE]);

function linesOf(batch: Batch): Line[] {
  const brought = new Map([...stockWater(batch), ...bucketFats(batch)]);
  return batch.lines.flatMap((line): Line[] => {
    if (NO_LINES.has(line.line)) return [];
    const planned = batch.formula.lines.find(({ id }) => id === line.line);
    const plain: Line = {
      id: line.line,
      material: line.material,
      stage: line.stage ?? 'trace',
      amount: { value: 0, unit: 'g' },
      ...(line.portion === null ? {} : { portion: line.portion }),
    };
    const extraG = brought.get(line.line) ?? 0;
    const spoonPct = batch.materials.find(({ id }) => id === line.material)?.spoonPct;
    if (line.weighings.length > 0) return weighedLines(line, plain, extraG + toCome(batch, line), spoonPct);
    if (line.skipped !== null || !isPouring(batch))
      return extraG > 0 ? weighedLines(line, plain, extraG, spoonPct) : [];
    const plannedG = batch.wantedG[line.line] ?? (line.plannedG ?? 0) * batch.scale;
    if (plannedG + extraG <= 0) return [];
    const stated: Doubt = {
      measuredBy: planned?.measuredBy ?? null,
      uncertaintyPct: planned?.uncertaintyPct ?? null,
    };
    return [{ ...plain, ...stated, amount: { value: plannedG + extraG, unit: 'g' } }];
  });
}

/** The alkali as it was weighed, dry and in a stock; while pouring, as planned until any of it is weighed. */
function alkaliG(batch: Batch): number {
  const { lines, sheet } = batch;
  const share = (sheet.lyeStock?.concentrationPct ?? 0) / 100;
  const massOf = (id: string) => lines.find(({ line }) => line === id);
  const [dry, stock] = [massOf(ALKALI_LINE), massOf(LYE_STOCK_LINE)];
  const touched = [dry, stock].some((line) => line && (line.weighings.length > 0 || line.skipped !== null));
  const settledG = batch.wantedG[ALKALI_LINE];
  const plannedG = settledG ?? sheet.alkaliG * batch.scale;
  if (!touched && isPouring(batch)) return plannedG;
  const weighedG = (dry?.massG ?? 0) + (stock?.massG ?? 0) * share;
  // Of a day that was scaled what is begun will be topped up.
  const grows = isPouring(batch) && (batch.scale !== 1 || settledG !== undefined);
  return grows ? Math.max(weighedG, plannedG) : weighedG;
}

/** The batch's formula in grams as weighed. */
export function batchFormula(batch: Batch): Formula {
  const { formula, portions } = batch;
  const { superfatPct: _planned, ...alkali } = formula.alkali;
  return {
    ...formula,
    fatsMassG: null,
    alkali: { ...alkali, massG: alkaliG(batch) },
    portions: portions ?? formula.portions,
    bars: batch.cut?.bars ?? batch.sheet.bars ?? formula.bars,
    lines: linesOf(batch),
  };
}

/**
 * The request that assesses a batch as it was weighed: masses as corrected, with the scale's or the guess's doubt;
 * what was skipped or never touched left out once it is poured, and as planned before.
 *
 * @example
 * assess(batchRequest(batch, snapshot, { markets: ['EU'], onDate: '2026-11-24' }), snapshot);
 */
export function batchRequest(
  batch: Batch,
  stored: Pick<Stored, 'material'>,
  { markets, onDate, firstPlacedOn, placedOn, materials = 'frozen' }: BatchRequestOptions,
): AssessmentRequest {
  const formula = batchFormula(batch);
  const frozen = new Map<string, Material>(batch.materials.map((material) => [material.id, material]));
  const ids = [...new Set(formula.lines.map(({ material }) => material))];
  return {
    format: REQUEST_FORMAT,
    formula,
    materials: ids.flatMap((id) => {
      const [first, second] =
        materials === 'frozen'
          ? [frozen.get(id), stored.material(id)]
          : [stored.material(id), frozen.get(id)];
      return first ?? second ?? [];
    }),
    markets,
    onDate,
    ...(firstPlacedOn ? { firstPlacedOn } : {}),
    ...(placedOn ? { placedOn } : {}),
  };
}
