/** Saponification values as they are told: of sodium or potassium hydroxide, in grams or milligrams for a gram of fat. */

export const ALKALIS = ['NaOH', 'KOH'] as const;
export type Alkali = (typeof ALKALIS)[number];

/** Grams of potassium hydroxide that do what a gram of sodium hydroxide does: the ratio of their molar masses. */
const KOH_PER_NAOH = 56.106 / 39.997;
/** What fats take up, grams of sodium hydroxide a gram; a value outside is of another unit, or of a wax. */
export const USUAL_NAOH = { least: 0.08, most: 0.26 } as const;
/** Values above this are milligrams. */
export const MOST_GRAMS = 1;

/**
 * Grams of sodium hydroxide for a gram of fat, of a value of either alkali in grams or milligrams.
 *
 * @example naohOf(134, 'NaOH') // 0.134
 */
export const naohOf = (value: number, alkali: Alkali): number =>
  (value > MOST_GRAMS ? value / 1000 : value) / (alkali === 'KOH' ? KOH_PER_NAOH : 1);
