/** What each market asks of a bar, item by item, with source and standing. */
import type { School } from '../core/formula/answer';
import type { Market } from '../core/formula/types';
import type { Regime } from '../core/labels/standing';
import type { Standing } from '../core/records/cupboard';
import file from './markets.json';

/** What the application can see for itself of an item; the rest the maker ticks off. */
export type ItemCheck =
  | 'limits'
  | 'colours'
  | 'claims'
  | 'evidence'
  | 'list'
  | 'responsible'
  | 'net'
  | 'batch'
  | 'durability'
  | 'french'
  | 'soapProper';

export interface MarketItem {
  id: string;
  text: string;
  when: Regime[];
  source: string;
  standing: Standing;
  check: ItemCheck | null;
}

export interface MarketRules {
  market: Market;
  usualSchool: School;
  schoolNote: string;
  regimes: Record<Regime, string>;
  items: MarketItem[];
}

const RULES = new Map((file.markets as MarketRules[]).map((rules) => [rules.market, rules]));

/** The day these notes were made. */
export const MARKET_RULES_AS_OF = file.asOf;

/** What a market asks. */
export function marketRules(market: Market): MarketRules {
  return RULES.get(market)!;
}
