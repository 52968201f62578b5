/** Bars as they stand. */
import type { Knex } from 'knex';
import type { ProductWithFormula } from '../../core/records/product';
import { fault } from '../http';
import { findProduct } from '../repositories/products';

/** A product with its working version; 404 where there is none. */
export async function requireProduct(db: Knex, id: string): Promise<ProductWithFormula> {
  const found = await findProduct(db, id);
  if (!found) throw fault(404, 'unknown-product', `There is no product "${id}".`, 'id');
  return found;
}
