/** What a maker says of a bar. */
import type { Product } from '../records/product';
import type { Wrap } from '../records/wrap';

/** Everything a maker says of a bar, as one text. */
export function wordsOfWrap(product: Pick<Product, 'name'>, wrap: Wrap): string {
  const { description, back, identity, use } = wrap;
  return [product.name, description, back, ...Object.values(identity), ...Object.values(use)].join('\n');
}
