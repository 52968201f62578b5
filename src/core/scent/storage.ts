/** What age does to an opened bottle of scent. */
import type { TraitMaterial } from '../formula/traits';

/** Opened longer ago than this, oils that take up oxygen are worth a caution, months; usual among makers. */
const OPENED_MONTHS = 12;
const DAYS_PER_MONTH = 365.25 / 12;
const MS_PER_DAY = 24 * 3600 * 1000;

/** Peroxide values asked for in the EU and the UK (rules by market), mmol/l. */
const PEROXIDES: readonly (readonly [pattern: RegExp, mmolPerL: number])[] = [
  [/pine|pinus|abies|fir|turpentine/i, 10],
  [/./, 20],
];

/** Whole months between two days. */
export function monthsBetween(from: string, to: string): number {
  return Math.floor((Date.parse(to) - Date.parse(from)) / MS_PER_DAY / DAYS_PER_MONTH);
}

/**
 * A caution where an oil that takes up oxygen (citrus, pine) was opened long ago: its limonene, linalool or
 * pinene form peroxides, which sensitise. Null where there is nothing to say.
 */
export function storageCaution(
  material: Partial<TraitMaterial> & { name: string },
  openedOn: string | null,
  today: string,
): string | null {
  if (!openedOn || !material.concerns?.includes('oxidises')) return null;
  const months = monthsBetween(openedOn, today);
  if (months < OPENED_MONTHS) return null;
  const [, most] = PEROXIDES.find(([pattern]) => pattern.test(material.name))!;
  return `opened ${months} months ago. Such oils form peroxides that sensitise; the EU and the UK ask for under ${most} mmol/l. Have it tested or use a fresh bottle.`;
}
