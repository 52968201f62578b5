/** What the scent desk and the server know together. */
import type { PeroxideCondition } from '../scent/storage';
import type { Formula, Market, Material, Stored } from '../formula/types';
import type { CupboardEntry } from './cupboard';

/** A bar that a blend can be tried in, with the materials it holds. */
export interface TryBar {
  id: string;
  name: string;
  formula: Formula;
  markets: Market[];
  firstPlacedOn: Partial<Record<Market, string>>;
  materials: Material[];
}

/** A single scent with the lots of it. */
export type Scent = Pick<CupboardEntry, 'material' | 'lots'>;

/** A blend as one line of the desk. */
export interface BlendRow {
  id: string;
  name: string;
  /** How many bars use it. */
  usedIn: number;
}

export interface ScentDeskData {
  blends: BlendRow[];
  /** The blend that lies on the desk at first; null where there is none. */
  opened: CupboardEntry | null;
  /** Single scents of the cupboard by name; what they hold is asked for when they go into a blend. */
  scents: { id: string; name: string }[];
  /** What the opened blend is made of. */
  known: Scent[];
  /** Every bar by name; its formula is asked for when it is chosen. */
  bars: { id: string; name: string }[];
  /** The bar to begin with. */
  first: TryBar;
  rules: Pick<Stored, 'limits' | 'declarables'>;
  rulebookEdition: string;
  peroxides: readonly PeroxideCondition[];
  onDate: string;
}

/** Id of the plain bar that is always there to try a blend in. */
export const PLAIN_BAR = '';
