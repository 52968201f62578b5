/** Materials and lots out of a maker's own spreadsheet: every row looked at, all taken or none. */
import { isFatty } from '../../../core/formula/fats';
import type { Knex } from 'knex';
import type { ImportedStock, LookedAtStock, StockResult } from '../../../core/records/import';
import type { StatedMaterial } from '../../../core/records/cupboard';
import { isScent } from '../../../core/formula/scents';
import { libraryMaterial } from '../../../library';
import type { House } from '../../house';
import { allLots } from '../../repositories/lots';
import { snapshotOf } from '../../store/snapshot';
import { writing } from '../../store/writing';
import { makeBackup } from './backups';
import { makeLot } from '../../store/lots';
import { makeMaterial, takeMaterial } from '../../store/materials';

/** A new material by the little that a list says of it. */
function stated({ name, kind, inci, naohPerGram }: NonNullable<ImportedStock['own']>): StatedMaterial {
  const role = isScent({ kind }) ? ('scent' as const) : ('ingredient' as const);
  return {
    name,
    kind,
    inci: inci === '' ? [] : [{ name: inci, sharePct: 100, role }],
    saponification: isFatty({ kind })
      ? { naohPerGram: naohPerGram ?? 0, as: kind === 'wax' ? 'wax' : 'triglyceride' }
      : null,
  };
}

/** Names a row's material: one on file or in the library by its id, a new one by its name, so that it is made once. */
const keyOf = ({ material, own }: ImportedStock) => material ?? `new ${own?.name.toLowerCase()}`;

/** Everything that is wrong with a row; null where nothing is. */
function faultOf(
  row: ImportedStock,
  title: string | null,
  names: ReadonlySet<string>,
  lots: Set<string>,
): string | null {
  const { material, own, lot } = row;
  if ((material === null) === (own === null)) return 'Say which material it is, or what kind of a new one.';
  if (title === null) return 'This material is not known here.';
  if (own && names.has(own.name.toLowerCase())) return 'There is a material by this name already. Choose it.';
  if (own && isFatty(own) && own.naohPerGram === null) return 'Say how it saponifies.';
  if (!lot) return null;
  if (lot.leftG > lot.quantityG) return 'No more can be left than was bought.';
  const key = `${keyOf(row)} ${lot.code}`;
  if (lots.has(key)) return `There is a lot ${lot.code} of it already.`;
  lots.add(key);
  return null;
}

async function lookedAt({ db, today }: House, rows: readonly ImportedStock[]): Promise<LookedAtStock[]> {
  const snapshot = await snapshotOf(db, today);
  const names = new Set(snapshot.stored.map(({ material }) => material.name.toLowerCase()));
  const lots = new Set((await allLots(db)).map(({ material, code }) => `${material} ${code}`));
  return rows.map((row): LookedAtStock => {
    const { material, own } = row;
    const isThere = material !== null && snapshot.own.has(material);
    const known = material === null ? null : (snapshot.own.get(material) ?? libraryMaterial(material));
    const title = own?.name ?? known?.name ?? null;
    return {
      row: row.row,
      title: title ?? row.name,
      what: own ? 'new' : isThere ? 'there' : 'library',
      fault: faultOf(row, title, names, lots),
    };
  });
}

async function take(trx: Knex, house: House, rows: readonly ImportedStock[]): Promise<void> {
  const made = new Map<string, string>();
  for (const row of rows) {
    const key = keyOf(row);
    const supplier = row.supplier || null;
    const id =
      made.get(key) ??
      (row.own
        ? await makeMaterial(trx, stated(row.own), supplier)
        : await takeMaterial(trx, row.material!, supplier));
    made.set(key, id);
    if (row.lot) await makeLot(trx, house, id, row.lot);
  }
}

/** Looks at rows of a list, and takes them where `preview` is not asked for and none has a fault: all or none. */
export async function importStock(
  house: House,
  rows: readonly ImportedStock[],
  preview: boolean,
): Promise<StockResult> {
  const found = await lookedAt(house, rows);
  if (preview || rows.length === 0 || found.some(({ fault }) => fault !== null))
    return { taken: 0, rows: found };
  await makeBackup(house.db, 'beforeImport');
  await writing(house.db, (trx) => take(trx, house, rows));
  return { taken: rows.length, rows: found };
}
