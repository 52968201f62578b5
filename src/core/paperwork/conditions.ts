/** What only a paper shows of a material: what is asked, where, and whether a paper on file shows it. Pure. */
import { isColourPart } from '../formula/colours';
import { membersOf } from '../formula/subject';
import type { Limit, Market, Material } from '../formula/types';
import { plainNumber } from '../quantities/amount';

/** What a market asks of a material that only its paper can show. */
export interface AskedCondition {
  id: string;
  /** What it speaks of. */
  of: Limit['subject'];
  asks: string;
  /** A figure that a paper may state, and the most it may be. */
  most?: number;
  unit?: 'ppm' | 'kDa' | '%' | 'pH';
  markets: Market[];
  source: string;
  /** It is asked of the finished bar. */
  ofProduct?: boolean;
  /** Soap that is sold only as soap stands outside it. */
  unlessSoap?: boolean;
}

/** What a paper shows, as the maker wrote it down. */
export interface ShownCondition {
  condition: string;
  /** The figure it states; null where none is asked. */
  value: number | null;
  /** The paper, by its number and issuer. */
  paper: string;
  on: string;
  /** The last day it counts; null where it has none. */
  until: string | null;
}

export const CONDITION_STATES = ['open', 'notMet', 'met'] as const;
export type ConditionState = (typeof CONDITION_STATES)[number];

/** How a condition stands for a material on a day. */
export interface ConditionStand {
  condition: AskedCondition;
  material: string;
  name: string;
  state: ConditionState;
  by: ShownCondition | null;
}

/** Whether a condition speaks of a material, itself or a part of it. */
export function speaksOf({ of }: Pick<AskedCondition, 'of'>, material: Material): boolean {
  const id = of.id.trim().toLowerCase();
  const parts = material.inci ?? [];
  switch (of.type) {
    case 'material':
      return material.id === of.id || (material.madeOf ?? []).some((part) => part.material === of.id);
    case 'kind':
      return material.kind === of.id || (material.madeOf ?? []).some((part) => part.kind === of.id);
    case 'constituent': {
      const members = membersOf(of);
      return (material.constituents ?? []).some((one) => members.includes(one.id) && one.highPct > 0);
    }
    case 'inci':
      return parts.some(({ name }) => name.trim().toLowerCase() === id);
    case 'colour':
      return parts.some(
        (part) => isColourPart(material, part) && (part.colour ?? part.name).trim().toLowerCase() === id,
      );
  }
}

function stateOf({ most, unit }: AskedCondition, by: ShownCondition | null): ConditionState {
  if (!by) return 'open';
  if (most === undefined) return 'met';
  if (by.value === null) return 'open';
  // A pH has to lie under it; of all else so much is allowed.
  return (unit === 'pH' ? by.value < most : by.value <= most) ? 'met' : 'notMet';
}

/**
 * Every condition that speaks of a material in some markets, with the newest paper that counts on the day.
 *
 * @example
 * conditionsOf(peanutOil, rulebook().conditions, [], { markets: ['EU'], onDate })[0].state; // 'open'
 */
export function conditionsOf(
  material: Material,
  conditions: readonly AskedCondition[],
  shown: readonly ShownCondition[],
  { markets, onDate }: { markets: readonly Market[]; onDate: string },
): ConditionStand[] {
  return conditions
    .filter((one) => !one.ofProduct && one.markets.some((market) => markets.includes(market)))
    .filter((one) => speaksOf(one, material))
    .map((condition) => {
      const counting = shown
        .filter((one) => one.condition === condition.id && (one.until === null || onDate <= one.until))
        .sort((a, b) => b.on.localeCompare(a.on));
      const by = counting[0] ?? null;
      const { id, name } = material;
      return { condition, material: id, name, state: stateOf(condition, by), by };
    });
}

/**
 * How a condition stands, in a sentence.
 *
 * @example
 * conditionSaid(stand); // 'Peanut oil: peanut protein at most 0.5 ppm. No paper on file shows it; ask the supplier.'
 */
export function conditionSaid({ condition, name, state, by }: ConditionStand): string {
  const asks = `${name}: ${condition.asks.charAt(0).toLowerCase()}${condition.asks.slice(1)}.`;
  const figure =
    by?.value == null ? '' : ` states ${plainNumber(by.value, 4)} ${condition.unit ?? ''}`.trimEnd();
  const paper = by ? `${by.paper}, ${by.on}` : '';
  switch (state) {
    case 'open':
      return by
        ? `${asks} ${paper} states no figure; ask the supplier.`
        : `${asks} No paper on file shows it; ask the supplier.`;
    case 'met':
      return `${asks} Shown by ${paper}${figure && `, which${figure}`}.`;
    case 'notMet':
      return `${asks} ${paper}${figure || ' states otherwise'}: it is not met.`;
  }
}
