/** The codes of batches. Pure. */

const MOST_LETTERS = 4;

/**
 * Letters that stand for a bar in the codes of its batches: the first of each word, or two of a single one; accents make no
 * word of their own.
 *
 * @example batchLetters('Crème brûlée') // 'CB'
 */
export function batchLetters(name: string): string {
  const plain = name.normalize('NFKD').replace(/\p{M}/gu, '').toUpperCase();
  const words = plain.match(/[A-Z0-9]+/g) ?? ['B'];
  if (words.length === 1) return words[0].slice(0, 2);
  return words
    .map((word) => word[0])
    .join('')
    .slice(0, MOST_LETTERS);
}
