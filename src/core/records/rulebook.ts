/** The rulebook as screens and server know it. */
import type { Limit, Market } from '../formula/types';

/** A rule with what its subject is called. */
export interface RuleRow extends Limit {
  name: string;
  isOwn: boolean;
}

/** Names that a market asks for, by the list they stand in. */
export interface ListRow {
  market: Market;
  names: string[];
  thresholdPct: number;
  newFrom: string | null;
  allFrom: string | null;
  per: 'product' | 'unit';
}

/** What a maker wrote at a rule, by its id: "confirmed with my assessor, 12 March". */
export type RuleNotes = Record<string, string>;

export interface RulebookData {
  edition: string;
  inForce: string;
  editions: string[];
  onDate: string;
  limits: RuleRow[];
  lists: ListRow[];
  notes: RuleNotes;
  /** Of the notes. */
  revision: number;
}
