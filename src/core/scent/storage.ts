/** What age does to an opened bottle of scent. */
import type { TraitMaterial } from '../formula/traits';
import type { Lot } from '../making/cost';
import { MS_PER_DAY } from '../quantities/day';

/** Opened longer ago than this, oils that take up oxygen are worth a caution, months; usual among makers. */
const OPENED_MONTHS = 12;
const DAYS_PER_MONTH = 365.25 / 12;

/** The most peroxide that oils of some plants, or with some constituents, may hold. */
export interface PeroxideCondition {
  /** First words of ingredient names. */
  genera: readonly string[];
  constituents: readonly string[];
  /** Constituents count where the material is that substance. */
  asSubstance?: boolean;
  mostMmolPerL: number;
  source: string;
}

/** From so much of a substance on a material is that substance, percent. */
const IS_THE_SUBSTANCE_PCT = 90;

/** Whole months between two days. */
export function monthsBetween(from: string, to: string): number {
  return Math.floor((Date.parse(to) - Date.parse(from)) / MS_PER_DAY / DAYS_PER_MONTH);
}

/** The strictest peroxide condition that speaks of a material; null where none does. */
export function peroxideCondition<Rule extends PeroxideCondition>(
  material: Partial<TraitMaterial>,
  rules: readonly Rule[],
): Rule | null {
  const first = (material.inci ?? []).map(({ name }) => name.split(' ')[0]!);
  const held = (leastPct: number) =>
    new Set(
      (material.constituents ?? [])
        .filter(({ typicalPct, highPct }) => (leastPct > 0 ? typicalPct >= leastPct : highPct > 0))
        .map(({ id }) => id),
    );
  const [all, itself] = [held(0), held(IS_THE_SUBSTANCE_PCT)];
  const spoken = rules.filter(
    ({ genera, constituents, asSubstance }) =>
      genera.some((genus) => first.includes(genus)) ||
      constituents.some((id) => (asSubstance ? itself : all).has(id)),
  );
  return spoken.sort((a, b) => a.mostMmolPerL - b.mostMmolPerL)[0] ?? null;
}

/** How a lot was kept, and what a paper says of the peroxide in it. */
export type StoredLot = Pick<Lot, 'openedOn' | 'receivedOn' | 'peroxideMmolPerL' | 'peroxideOn'>;

/** A value that was measured counts for as long as a bottle may stand open; null where there is none that counts. */
function peroxideOf({ peroxideMmolPerL, peroxideOn, receivedOn }: StoredLot, today: string) {
  if (peroxideMmolPerL == null) return null;
  const on = peroxideOn ?? receivedOn;
  return monthsBetween(on, today) < OPENED_MONTHS ? { mmolPerL: peroxideMmolPerL, on } : null;
}

/** Whether a lot holds as much peroxide as the law asks it to stay under, or more. */
export function hasTooMuchPeroxide(
  material: Partial<TraitMaterial>,
  lot: StoredLot,
  today: string,
  rules: readonly PeroxideCondition[],
): boolean {
  const measured = peroxideOf(lot, today);
  const condition = peroxideCondition(material, rules);
  return measured !== null && condition !== null && measured.mmolPerL >= condition.mostMmolPerL;
}

/**
 * A caution where an oil that takes up oxygen (citrus, pine) holds too much peroxide by its paper, or was opened long
 * ago: its limonene, linalool or pinene form peroxides, which sensitise. What the law asks for stands unproven then,
 * unless a value was measured since. Null where there is nothing to say.
 */
export function storageCaution(
  material: Partial<TraitMaterial> & { name: string },
  lot: StoredLot,
  today: string,
  rules: readonly PeroxideCondition[],
): string | null {
  const { openedOn } = lot;
  const condition = peroxideCondition(material, rules);
  const measured = peroxideOf(lot, today);
  if (measured && condition) {
    if (measured.mmolPerL < condition.mostMmolPerL) return null;
    return `held ${measured.mmolPerL} mmol/l of peroxide on ${measured.on}; the EU and the UK ask for under ${condition.mostMmolPerL}. Peroxides sensitise: use a fresh bottle.`;
  }
  if (!openedOn || !material.concerns?.includes('oxidises')) return null;
  const months = monthsBetween(openedOn, today);
  if (months < OPENED_MONTHS) return null;
  const asked = condition
    ? ` The EU and the UK ask for under ${condition.mostMmolPerL} mmol/l, unproven for so old a bottle.`
    : '';
  return `opened ${months} months ago. Such oils form peroxides that sensitise.${asked} Have it tested or use a fresh bottle.`;
}
