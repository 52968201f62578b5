/** Planning a pour: what the day wants, said before anything is melted. */
import { findSetting } from '../../repositories/settings';
import { USUAL_HABITS } from '../../../core/records/house';
import { stockSaid, type Weights } from '../../../core/quantities/say';
import { assess } from '../../../core/assess';
import { REQUEST_FORMAT } from '../../../core/formula/types';
import { groupBy } from '../../../core/group';
import { stockShare } from '../../../core/batch/draw';
import type { Lot } from '../../../core/making/cost';
import type { RunSheet } from '../../../core/making/run-sheet-types';
import type { Needed, PourPlan } from '../../../core/records/batch';
import type { NewBatch } from '../../doors/batch';
import type { House } from '../../house';
import { lotsOf } from '../../repositories/lots';
import type { StoreSnapshot } from '../../store/snapshot';
import { notesForNextTime } from './batch-notes';
import { planSheet } from '../../store/start-batch';
import { papersStanding } from '../../store/papers';
import { isScent } from '../../../core/formula/scents';

/** The day, and what the house weighs in. */
interface Ground {
  today: string;
  weights: Weights;
}

function lotWarnings(
  lots: readonly Lot[],
  neededG: number,
  { today, weights }: Ground,
): { freeG: number; warnings: string[] } {
  const holding = lots.filter(({ leftG }) => leftG > 0);
  const shut = holding.filter(({ quarantine }) => quarantine !== null);
  const past = holding.filter(
    ({ quarantine, bestBefore }) => quarantine === null && bestBefore !== null && bestBefore < today,
  );
  const free = holding.filter((lot) => !shut.includes(lot) && !past.includes(lot));
  const freeG = free.reduce((sum, { leftG }) => sum + leftG, 0);
  const warnings: string[] = [];
  if (lots.length === 0) warnings.push('No lot is on file.');
  else if (freeG < neededG) warnings.push(`Only ${stockSaid(freeG, weights)} of it are free.`);
  if (past.length > 0) warnings.push(`Past its day: ${past.map(({ code }) => code).join(', ')}.`);
  if (shut.length > 0) warnings.push(`In quarantine: ${shut.map(({ code }) => code).join(', ')}.`);
  return { freeG, warnings };
}

/** Papers of a scent: none, or one that a newer has to be asked for. */
function paperWarnings(id: string, snapshot: StoreSnapshot): string[] {
  const material = snapshot.material(id);
  if (!material || !isScent(material)) return [];
  const documents = snapshot.stored.find(({ material }) => material.id === id)?.documents ?? [];
  const { certificate } = papersStanding(documents, snapshot.onDate);
  if (!certificate) return ['No certificate is on file.'];
  return certificate.ask ? [`Certificate ${certificate.paper.number}: ${certificate.ask}`] : [];
}

/** What a sheet weighs of every material, grams; lye from stock counts as the alkali in it. */
function massesOf(sheet: RunSheet): ReadonlyMap<string, number> {
  const massOf = new Map<string, number>();
  for (const { material, massG } of sheet.steps.flatMap(({ weigh }) => weigh)) {
    const { material: id, share } = stockShare({ sheet }, material);
    massOf.set(id, (massOf.get(id) ?? 0) + massG * share);
  }
  return massOf;
}

function neededOf(
  masses: ReadonlyMap<string, number>,
  lots: ReadonlyMap<string, Lot[]>,
  snapshot: StoreSnapshot,
  ground: Ground,
): Needed[] {
  return [...masses].map(([material, neededG]) => {
    const { freeG, warnings } = lotWarnings(lots.get(material) ?? [], neededG, ground);
    const name = snapshot.material(material)?.name ?? material;
    return { material, name, neededG, freeG, warnings: [...warnings, ...paperWarnings(material, snapshot)] };
  });
}

/** What a pour would be; 404 and 422 as when it is begun. Nothing is written. */
export async function planPour(house: House, wanted: Omit<NewBatch, 'by'>): Promise<PourPlan> {
  const { product, snapshot, sheet } = await planSheet(house, wanted);
  const { weights = USUAL_HABITS.weights } = (await findSetting(house.db, 'house')).value;
  const masses = massesOf(sheet);
  const lots = groupBy(await lotsOf(house.db, [...masses.keys()]), ({ material }) => material);
  const { markets, firstPlacedOn } = product;
  const request = {
    format: REQUEST_FORMAT,
    formula: sheet.formula,
    markets,
    onDate: house.today,
    firstPlacedOn,
  };
  const result = assess(request, snapshot);
  return {
    sheet,
    notes: await notesForNextTime(house, product.id),
    needed: neededOf(masses, lots, snapshot, { today: house.today, weights }),
    verdict: result.ok ? result.assessment.verdict : null,
  };
}
