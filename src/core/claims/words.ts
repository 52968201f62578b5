/** What a maker says of a bar. */
import type { Product } from '../records/product';
import type { Wrap } from '../records/wrap';
import type { ReadSentence } from './read';

/** Everything a maker says of a bar, as one text. */
export function wordsOfWrap(product: Pick<Product, 'name'>, wrap: Wrap): string {
  const { description, back, identity, use } = wrap;
  return [product.name, description, back, ...Object.values(identity), ...Object.values(use)].join('\n');
}

/** The sentences of a wrap's words that are the maker's own: its name, what the shop says, and what stands on the back. */
export function ownSentences(
  { description, back }: Pick<Wrap, 'description' | 'back'>,
  { name }: Pick<Product, 'name'>,
  sentences: readonly ReadSentence[],
): ReadSentence[] {
  const end = [name, description, back].join('\n').length;
  return sentences.filter(({ from }) => from < end);
}

/** The words of sentences that only a reader can class. */
export const unknownOf = (sentences: readonly ReadSentence[]): string[] =>
  sentences.filter(({ reading }) => reading === 'unknown').map(({ words }) => words);
