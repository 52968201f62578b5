/** Bars with what their formula is assessed to be. */
import { assess } from '../../core/assess';
import type { Assessment } from '../../core/formula/answer';
import {
  MARKETS,
  REQUEST_FORMAT,
  type AssessmentRequest,
  type Formula,
  type Material,
} from '../../core/formula/types';
import type { Product, WorkingVersion } from '../../core/records/product';
import type { House } from '../house';
import { HttpFault } from '../http';
import { materialsOf, snapshotOf, type StoreSnapshot } from './snapshot';
import { requireProduct } from './products';

/** The request that assesses a product's formula in the product's own markets on a day. */
export function productRequest(product: Product, formula: Formula, onDate: string): AssessmentRequest {
  const { markets, firstPlacedOn } = product;
  return { format: REQUEST_FORMAT, formula, markets, onDate, firstPlacedOn };
}

export interface AssessedProduct {
  product: Product;
  version: WorkingVersion;
  assessment: Assessment;
  materials: Material[];
}

/** A product with its saved formula's assessment in every market there is; 404 and 422 as faults. */
export async function assessEverywhere({ db, today }: House, id: string): Promise<AssessedProduct> {
  const { product, version } = await requireProduct(db, id);
  return assessAs(product, version, today, await snapshotOf(db, today));
}

/** The same for a formula that another version holds, or held; 422 as a fault. */
export function assessAs(
  product: Product,
  version: WorkingVersion,
  today: string,
  snapshot: StoreSnapshot,
): AssessedProduct {
  const request = { ...productRequest(product, version.formula, today), markets: [...MARKETS] };
  const result = assess(request, snapshot);
  if (!result.ok) throw new HttpFault(422, result.errors);
  return {
    product,
    version,
    assessment: result.assessment,
    materials: materialsOf(version.formula, snapshot),
  };
}
