/** Fills an empty database with the made-up demo. */
import type { DemoThings } from '../core/records/house';
import type { Knex } from 'knex';
import { durabilityFrom } from '../core/labels/content';
import { momentOn } from '../core/quantities/day';
import type { Lot } from '../core/making/cost';
import { libraryMaterial } from '../library';
import { addToInbox } from '../server/repositories/inbox';
import { addLot, addMovement, findLot } from '../server/repositories/lots';
import { addDocument, addMaterial, addMix } from '../server/repositories/materials';
import { addProduct } from '../server/repositories/products';
import type { Wrap } from '../core/records/wrap';
import { findSetting, putSetting } from '../server/repositories/settings';
import { putWrap } from '../server/repositories/wraps';
import { wrapData } from '../server/services/wrap/desk';
import { writing } from '../server/store/writing';
import { demoProducts } from './bars';
import { seedBatches } from './batches';
import { DEMO_MAKER, demoMaterials } from './materials';
import { demoPapers } from './papers';
import { DEMO_MIXES, DEMO_MOULDS, demoLots } from './stores';

const KEEPS_MONTHS = 24;

/** The durability the makers state: two years from the day, to the month. */
function keepsFrom(today: string): Wrap['durability'] {
  return durabilityFrom({ months: KEEPS_MONTHS, endsOn: null }, today);
}

/** What is left of a lot on the shelf: the batches took some, the rest went before they were kept here. */
async function countDown(trx: Knex, { id, leftG, receivedOn }: Lot, zone: string): Promise<void> {
  const massG = (await findLot(trx, id))!.leftG - leftG;
  if (massG <= 0) return;
  const reason = 'Poured before batches were kept here';
  const at = momentOn(receivedOn, zone);
  await addMovement(trx, { lot: id, massG, at, batch: null, event: null, reason });
}

/** Ids of all that is on file: what can be taken out again later. */
async function everythingHere(trx: Knex): Promise<DemoThings> {
  const idsOf = async (table: string) =>
    (await trx(table).select<{ id: string }[]>('id')).map(({ id }) => id);
  return {
    bars: await idsOf('products'),
    materials: await idsOf('materials'),
    batches: await idsOf('batches'),
    papers: await idsOf('inbox'),
  };
}

/** Seeds the demo as of a day unless there are products already. True when it seeded. */
export async function seedDemo(db: Knex, today: string, zone: string): Promise<boolean> {
  const [{ count }] = (await db('products').count({ count: '*' })) as [{ count: number }];
  if (count > 0) return false;
  // Taken out again by its maker: it does not come back by itself.
  if ((await findSetting(db, 'demo')).revision > 0) return false;
  const papers = await Promise.all(
    demoPapers(today).map(async (paper) => ({ ...paper, bytes: await paper.make() })),
  );
  await writing(db, async (trx) => {
    await putSetting(trx, 'maker', DEMO_MAKER);
    await putSetting(trx, 'moulds', [...DEMO_MOULDS]);
    for (const { material, supplier, documents } of demoMaterials(today, libraryMaterial)) {
      await addMaterial(trx, material, supplier);
      for (const document of documents) await addDocument(trx, document);
    }
    for (const { id, name, parts } of DEMO_MIXES) await addMix(trx, id, name, [...parts]);
    for (const lot of demoLots(today)) await addLot(trx, lot);
    for (const { id, fileName, mime, receivedOn, bytes } of papers) {
      await addToInbox(trx, { id, fileName, mime, receivedOn, filedOn: null }, bytes);
    }
    const savedAt = momentOn(today, zone, '08:00');
    for (const { product, formula } of demoProducts(today)) {
      await addProduct(trx, product, formula, savedAt);
      const { wrap } = (await wrapData({ db: trx, today, now: savedAt, zone }, product.id)).stored;
      await putWrap(trx, product.id, {
        revision: 1,
        savedAt,
        wrap: { ...wrap, durability: keepsFrom(today) },
      });
    }
    await seedBatches({ db: trx, today, zone });
    for (const lot of demoLots(today)) await countDown(trx, lot, zone);
    await putSetting(trx, 'demo', await everythingHere(trx));
  });
  return true;
}
