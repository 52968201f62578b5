/** What a batch and a bar cost in materials, from the prices of the lots on file. */
import type { Assessment } from '../formula/answer';
import type { Formula } from '../formula/types';

/** A delivery of a material: which bottle of which delivery. Masses in grams, price for the whole lot. */
export interface Lot {
  id: string;
  material: string;
  supplier: string;
  code: string;
  receivedOn: string;
  openedOn: string | null;
  bestBefore: string | null;
  quantityG: number;
  /** What was received less all movements; below zero only where somebody said why. */
  leftG: number;
  /** What a paper says it held of peroxide, mmol per litre, and when that was measured. */
  peroxideMmolPerL?: number | null;
  peroxideOn?: string | null;
  /** Why nothing is to be taken of it; null where it is free. */
  quarantine: string | null;
  price: number | null;
  /** The batch it was made from; absent or null for what was bought. */
  ofBatch?: string | null;
  /** Of a lye stock: how much hydroxide it holds, percent. */
  strengthPct?: number | null;
  /** Counts every change; a change names the revision it was made from. */
  revision: number;
}

/** Material id under which the sodium hydroxide is bought. */
export const ALKALI_MATERIAL = 'sodium-hydroxide';
/** Material id under which a lye stock stands on the shelf. */
export const LYE_STOCK_MATERIAL = 'lye-stock';
/** Parts of a mix cost what they cost by themselves. */
export interface Shares {
  material: string;
  sharePct: number;
}

export interface CostLine {
  /** Line id, or null for the alkali. */
  line: string | null;
  material: string;
  massG: number;
  /** Null where a price is missing. */
  cost: number | null;
}

export interface Cost {
  lines: CostLine[];
  /** The sum of what has a price. */
  total: number;
  perBar: number | null;
  /** Materials used without a price on file. */
  unpriced: string[];
}

/**
 * The lot to take next, at the scale as in the cost: one that holds some and that nothing speaks against, what is opened
 * first and of those the older; null where there is none. With a day (YYYY-MM-DD), none that is past its own.
 *
 * @example
 * nextLot(lots, '2026-11-24')?.code; // the bottle that is open
 */
export function nextLot(lots: readonly Lot[], today: string | null = null): Lot | null {
  const holding = lots.filter(
    ({ leftG, quarantine, bestBefore }) =>
      leftG > 0 && quarantine === null && (today === null || bestBefore === null || bestBefore >= today),
  );
  const order = (lot: Lot) => `${lot.openedOn ? 0 : 1} ${lot.receivedOn} ${lot.id}`;
  return [...holding].sort((a, b) => (order(a) < order(b) ? -1 : 1))[0] ?? null;
}

/** Price of a gram: of the lot in use, else of the newest that had a price; null where there is none. */
export function pricePerGram(lots: readonly Lot[]): number | null {
  const priced = lots.filter(({ price, quantityG }) => price !== null && quantityG > 0);
  const inUse = nextLot(priced);
  const newest = [...priced].sort((a, b) => (a.receivedOn < b.receivedOn ? 1 : -1))[0];
  const lot = inUse ?? newest;
  return lot ? lot.price! / lot.quantityG : null;
}

/**
 * Costs every line that the assessment knows and the alkali. `price` gives a gram's price, `partsOf` the parts of
 * a mix that has no price of its own.
 *
 * @example
 * costOf(formula, assessment, (id) => pricePerGram(lotsOf(id)), () => []); // by line, in all, and a bar
 */
export function costOf(
  formula: Formula,
  assessment: Assessment,
  price: (material: string) => number | null,
  partsOf: (material: string) => readonly Shares[],
): Cost {
  const unpriced = new Set<string>();
  const costOfMass = (material: string, massG: number): number | null => {
    const own = price(material);
    if (own !== null) return own * massG;
    const parts = partsOf(material);
    if (parts.length === 0) {
      if (massG > 0) unpriced.add(material);
      return null;
    }
    const costs = parts.map((part) => costOfMass(part.material, (massG * part.sharePct) / 100));
    return costs.includes(null) ? null : costs.reduce<number>((sum, cost) => sum + cost!, 0);
  };
  // The assessment may be the last good one, of a formula with other lines in another order.
  const massOf = new Map(assessment.lines.map(({ id, massG }) => [id, massG]));
  const masses = [
    ...formula.lines.flatMap(({ id, material }) => {
      const massG = massOf.get(id);
      return massG === undefined ? [] : [{ line: id, material, massG }];
    }),
    { line: null, material: ALKALI_MATERIAL, massG: assessment.masses.alkaliG },
  ];
  const lines = masses.map((entry) => ({ ...entry, cost: costOfMass(entry.material, entry.massG) }));
  const total = lines.reduce((sum, { cost }) => sum + (cost ?? 0), 0);
  const perBar = formula.bars ? total / formula.bars : null;
  return { lines, total, perBar, unpriced: [...unpriced] };
}
