/** What age does to an opened bottle of scent. */
import type { TraitMaterial } from '../formula/traits';

/** Opened longer ago than this, oils that take up oxygen are worth a caution, months; usual among makers. */
const OPENED_MONTHS = 12;
const DAYS_PER_MONTH = 365.25 / 12;
const MS_PER_DAY = 24 * 3600 * 1000;

/** The most peroxide that oils of some plants, or with some constituents, may hold. */
export interface PeroxideCondition {
  /** First words of ingredient names. */
  genera: readonly string[];
  constituents: readonly string[];
  mostMmolPerL: number;
  source: string;
}

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
  const held = new Set(
    (material.constituents ?? []).filter(({ highPct }) => highPct > 0).map(({ id }) => id),
  );
  const spoken = rules.filter(
    ({ genera, constituents }) =>
      genera.some((genus) => first.includes(genus)) || constituents.some((id) => held.has(id)),
  );
  return spoken.sort((a, b) => a.mostMmolPerL - b.mostMmolPerL)[0] ?? null;
}

/**
 * A caution where an oil that takes up oxygen (citrus, pine) was opened long ago: its limonene, linalool or
 * pinene form peroxides, which sensitise. What the law asks for stands unproven then. Null where there is nothing
 * to say.
 */
export function storageCaution(
  material: Partial<TraitMaterial> & { name: string },
  openedOn: string | null,
  today: string,
  rules: readonly PeroxideCondition[],
): string | null {
  if (!openedOn || !material.concerns?.includes('oxidises')) return null;
  const months = monthsBetween(openedOn, today);
  if (months < OPENED_MONTHS) return null;
  const condition = peroxideCondition(material, rules);
  const asked = condition
    ? ` The EU and the UK ask for under ${condition.mostMmolPerL} mmol/l, unproven for so old a bottle.`
    : '';
  return `opened ${months} months ago. Such oils form peroxides that sensitise.${asked} Have it tested or use a fresh bottle.`;
}
