/** Recipes in parts: "5 parts olive, 3 coconut, 1 castor" are shares of the fats. Pure. */
import { folded } from '../folded';
import type { SheetLine } from './cells';
import { isFatName } from './words';

const PARTS = /^(?:parts?|teile|parties|partes|parti|delen)\b/;
/** Whether the head of a column says that its numbers are parts. */
export const isInParts = (head: string): boolean => PARTS.test(folded(head));

const DECIMALS = 4;

/** Turns bare numbers of a bar from parts into percents of its fats; a bar without fats stays as it is. */
export function shareParts(lines: readonly SheetLine[]): void {
  const inParts = lines.filter(({ amount, said }) => amount.unit === '%' && !said.includes('%'));
  const fats = inParts.filter(({ name }) => isFatName(name));
  const sum = fats.reduce((total, { amount }) => total + amount.value, 0);
  if (sum <= 0) return;
  for (const { amount } of inParts) amount.value = Number(((100 * amount.value) / sum).toFixed(DECIMALS));
}
