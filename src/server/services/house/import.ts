/** Bars out of a maker's own spreadsheet: names matched to materials, every bar looked at, all taken or none. */
import type { Formula } from '../../../core/formula/types';
import type { ImportedBar, ImportResult } from '../../../core/records/import';
import { matchName, namedMaterials, type Match } from '../../../core/sheets/match';
import { withLesson, type SheetLesson } from '../../../core/sheets/sheet-lessons';
import { LIBRARY } from '../../../library';
import type { House } from '../../house';
import { onThread } from '../../jobs/threads';
import { findSetting, putSetting } from '../../repositories/settings';
import { addProduct, productNames } from '../../repositories/products';
import { sharedSetting } from '../../store/shared';
import { snapshotOf } from '../../store/snapshot';
import { writing } from '../../store/writing';
import { makeBackup } from './backups';
import { freshProduct } from '../../store/products';

const LIMIT_MS = 60_000;
const CHUNK = 25;

/** The material each name most likely is, in the order of the names; null where none answers. */
export async function matchNames({ db, today }: House, names: readonly string[]): Promise<(Match | null)[]> {
  const snapshot = await snapshotOf(db, today);
  const shipped = LIBRARY.filter(({ id }) => !snapshot.own.has(id));
  const materials = namedMaterials([...snapshot.own.values(), ...shipped]);
  return names.map((name) => matchName(name, materials));
}

interface Bar {
  name: string;
  note: string;
  formula: Formula;
}

async function lookedAt(house: House, bars: readonly Bar[]): Promise<ImportedBar[]> {
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

/** Looks at bars of a spreadsheet, and takes them where `preview` is not asked for and none has a fault: all or none. */
export async function importBars(
  house: House,
  bars: readonly Bar[],
  { preview, lesson }: { preview: boolean; lesson: SheetLesson | null },
): Promise<ImportResult> {
  const found = await lookedAt(house, bars);
  if (preview || found.some(({ fault }) => fault !== null)) return { taken: 0, bars: found };
  await makeBackup(house.db, 'beforeImport');
  await writing(house.db, async (trx) => {
    for (const { name, note, formula } of bars)
      await addProduct(trx, { ...(await freshProduct(trx, name)), note }, formula, house.now);
    if (lesson) {
      const { value: known } = await findSetting(trx, 'sheetLessons');
      await putSetting(trx, 'sheetLessons', withLesson(known, lesson));
    }
  });
  return { taken: bars.length, bars: found };
}
