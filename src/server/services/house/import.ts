/** Bars out of a maker's own spreadsheet: names matched to materials, every bar looked at, all taken or none. */
import type { Formula } from '../../../core/formula/types';
import type { ImportedBar, ImportResult, TakenBatch } from '../../../core/records/import';
import { matchName, namedMaterials, type Match } from '../../../core/sheets/match';
import { withLesson, type SheetLesson } from '../../../core/sheets/sheet-lessons';
import { LIBRARY } from '../../../library';
import type { House } from '../../house';
import { HttpFault } from '../../http';
import { onThread } from '../../jobs/threads';
import { findSetting, putSetting } from '../../repositories/settings';
import { addProduct, productNames } from '../../repositories/products';
import { sharedSetting } from '../../store/shared';
import { snapshotOf } from '../../store/snapshot';
import { writing } from '../../store/writing';
import { makeBackup } from './backups';
import { freshProduct } from '../../store/products';
import { addLogged } from '../../store/logged';

const LIMIT_MS = 60_000;
const CHUNK = 25;

/** The material each name most likely is, in the order of the names; null where none answers. */
export async function matchNames({ db, today }: House, names: readonly string[]): Promise<(Match | null)[]> {
  const snapshot = await snapshotOf(db, today);
  const shipped = LIBRARY.filter(({ id }) => !snapshot.own.has(id));
  const materials = namedMaterials([...snapshot.own.values(), ...shipped]);
  return names.map((name) => matchName(name, materials));
}

/** A bar of a sheet as it is taken in, with the batches that its log says were made of it. */
export interface BarOfSheet {
  name: string;
  note: string;
  formula: Formula;
  batches?: TakenBatch[];
}

async function lookedAt(house: House, bars: readonly BarOfSheet[]): Promise<ImportedBar[]> {
  const {
    value: { markets },
  } = await findSetting(house.db, 'house');
  const setting = sharedSetting(await snapshotOf(house.db, house.today));
  const known = new Set((await productNames(house.db)).map(({ name }) => name));
  const found: ImportedBar[] = [];
  for (let at = 0; at < bars.length; at += CHUNK) {
    const chunk = bars.slice(at, at + CHUNK);
    const inputs = chunk.map(({ formula }) => ({
      ...{ formula, markets, firstPlacedOn: {}, onDate: house.today, words: '', issued: [] },
    }));
    const overviews = await onThread('overviews', { setting, bars: inputs }, { limitMs: LIMIT_MS });
    chunk.forEach(({ name }, index) => {
      const { verdict, fault } = overviews[index]!;
      const isTwice = known.has(name) || bars.filter((one) => one.name === name).length > 1;
      found.push({ name, verdict, fault: isTwice ? 'There is a bar by this name already.' : fault });
    });
  }
  return found;
}

/** Does what may be refused; a refusal says of what it is. */
async function within<T>(path: string, name: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof HttpFault)) throw error;
    const told = error.errors.map(({ code, message }) => ({
      path,
      code,
      message: `${name.trim()}: ${message}`,
    }));
    throw new HttpFault(error.status, told);
  }
}

/** Looks at bars of a spreadsheet, and takes them where `preview` is not asked for and none has a fault: all or none. */
export async function importBars(
  house: House,
  bars: readonly BarOfSheet[],
  { preview, lesson }: { preview: boolean; lesson: SheetLesson | null },
): Promise<ImportResult> {
  const found = await lookedAt(house, bars);
  if (preview || found.some(({ fault }) => fault !== null)) return { taken: 0, bars: found };
  await makeBackup(house.db, 'beforeImport');
  await writing(house.db, async (trx) => {
    for (const [at, { name, note, formula, batches = [] }] of bars.entries()) {
      const product = { ...(await freshProduct(trx, name)), note };
      await addProduct(trx, product, formula, house.now);
      for (const [index, batch] of batches.entries())
        await within(`bars.${at}.batches.${index}`, `${name} ${batch.code}`, () =>
          addLogged({ ...house, db: trx }, product.id, batch, lesson?.learntFrom ?? 'a sheet'),
        );
    }
    if (lesson) {
      const { value: known } = await findSetting(trx, 'sheetLessons');
      await putSetting(trx, 'sheetLessons', withLesson(known, lesson));
    }
  });
  const made = bars.reduce((sum, { batches = [] }) => sum + batches.length, 0);
  return { taken: bars.length, bars: found, batches: made };
}
