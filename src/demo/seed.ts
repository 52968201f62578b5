/** Fills an empty database with the made-up demo. */
import type { Knex } from 'knex';
import { libraryMaterial } from '../library';
import { addDocument, putMaterial } from '../server/repositories/materials';
import { addProduct } from '../server/repositories/products';
import { putMaker } from '../server/repositories/settings';
import { demoProducts } from './bars';
import { DEMO_MAKER, demoMaterials } from './materials';

/** Seeds the demo as of a day unless there are products already. True when it seeded. */
export async function seedDemo(db: Knex, today: string): Promise<boolean> {
  const [{ count }] = (await db('products').count({ count: '*' })) as [{ count: number }];
  if (count > 0) return false;
  await db.transaction(async (trx) => {
    await putMaker(trx, DEMO_MAKER);
    for (const { material, supplier, documents } of demoMaterials(today, libraryMaterial)) {
      await putMaterial(trx, material, supplier);
      for (const document of documents) await addDocument(trx, document);
    }
    for (const { product, formula } of demoProducts(today)) {
      await addProduct(trx, product, formula, `${today}T08:00:00.000Z`);
    }
  });
  return true;
}
