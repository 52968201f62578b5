/** What lye does to fats and acids: molar masses and the share of each product. */

/** Molar mass of sodium hydroxide, g/mol (assessment page, step 6). */
const NAOH_MOLAR_MASS = 39.997;
/** Molar mass of glycerin, g/mol. */
const GLYCERIN_MOLAR_MASS = 92.094;
/** Molar mass of water, g/mol. */
const WATER_MOLAR_MASS = 18.015;
/** A triglyceride frees one glycerin for three sodium hydroxides. */
const NAOH_PER_GLYCERIN = 3;

/** Grams of glycerin freed for each gram of sodium hydroxide that a triglyceride takes up. */
export const GLYCERIN_PER_NAOH = GLYCERIN_MOLAR_MASS / (NAOH_PER_GLYCERIN * NAOH_MOLAR_MASS);
/** Grams of water freed for each gram of sodium hydroxide that a free acid takes up. */
export const WATER_PER_NAOH = WATER_MOLAR_MASS / NAOH_MOLAR_MASS;

export interface Products {
  soapG: number;
  glycerinG: number;
  waterG: number;
  freeG: number;
}

/**
 * What becomes of a fat, a free acid or a wax of which the share `saponified` (0 to 1) reacts.
 * `massG` is the fat without its own water; `demandG` is the pure sodium hydroxide its whole would take up.
 * Soap + glycerin + water + free = mass + sodium hydroxide taken up.
 */
export function saponify(
  massG: number,
  demandG: number,
  saponifiesAs: 'triglyceride' | 'freeAcid' | 'wax',
  saponified: number,
): Products {
  const takenUpG = saponified * demandG;
  const glycerinG = saponifiesAs === 'triglyceride' ? takenUpG * GLYCERIN_PER_NAOH : 0;
  const waterG = saponifiesAs === 'freeAcid' ? takenUpG * WATER_PER_NAOH : 0;
  return {
    soapG: saponified * massG + takenUpG - glycerinG - waterG,
    glycerinG,
    waterG,
    freeG: (1 - saponified) * massG,
  };
}
