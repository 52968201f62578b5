/** Bars as they stand. */
import type { Knex } from 'knex';
import type { ProductWithFormula, Product, ProductDetails } from '../../core/records/product';
import { fault } from '../http';
import { findProduct, putProduct } from '../repositories/products';
import type { House } from '../house';
import { findSetting } from '../repositories/settings';
import { takenIds, writing } from './writing';
import { freeId } from './ids';

/** A product with its working version; 404 where there is none. */
export async function requireProduct(db: Knex, id: string): Promise<ProductWithFormula> {
  const found = await findProduct(db, id);
  if (!found) throw fault(404, 'unknown-product', `There is no product "${id}".`, 'id');
  return found;
}

export function freeProductId(trx: Knex, name: string): Promise<string> {
  return freeId(name, 'bar', (base) => takenIds(trx, 'products', base));
}

/** A bar as it begins, under an id of its own. */
export async function freshProduct(trx: Knex, name: string): Promise<Product> {
  return {
    id: await freeProductId(trx, name),
    name,
    identity: 'Soap',
    note: '',
    markets: (await findSetting(trx, 'house')).value.markets,
    netMassG: null,
    batchCode: '',
    firstPlacedOn: {},
    revision: 1,
    putAwayOn: null,
  };
}

/** Changes a product's details; the newer ones come back where they were changed in between. */
export function changeDetails(
  { db }: House,
  id: string,
  revision: number,
  details: ProductDetails,
): Promise<{ product: Product } | { stale: Product }> {
  return writing(db, async (trx) => {
    const { product } = await requireProduct(trx, id);
    if (product.revision !== revision) return { stale: product };
    const { name, identity, note, markets, netMassG, batchCode, firstPlacedOn } = details;
    // A door that says nothing of the collection leaves it as it is.
    const collection = details.collection?.trim() ?? product.collection ?? '';
    const stated = { name, identity, note, collection, markets, netMassG, batchCode, firstPlacedOn };
    const changed = { ...product, ...stated, revision: revision + 1 };
    await putProduct(trx, changed);
    return { product: changed };
  });
}
