/** Differences between two formulas in words. */
import type { Difference } from '../core/formula/compare';
import { MEASURE_WORDS, STAGE_WORDS } from './words';

function inWords(part: string): string {
  return { ...STAGE_WORDS, ...MEASURE_WORDS, '': 'none' }[part as 'fats'] ?? part;
}

/** One difference as a short phrase. */
export function differenceInWords(difference: Difference, materialName: (id: string) => string): string {
  switch (difference.kind) {
    case 'added':
      return `with ${materialName(difference.material)} ${difference.amount}`;
    case 'removed':
      return `without ${materialName(difference.material)} (${difference.amount})`;
    case 'amount':
      return `${materialName(difference.material)} ${difference.from} → ${difference.to}`;
    case 'line':
      return `${materialName(difference.material)}: ${inWords(difference.from)} → ${inWords(difference.to)}`;
    case 'setting':
      return `${difference.what}: ${difference.from || 'none'} → ${difference.to || 'none'}`;
  }
}
