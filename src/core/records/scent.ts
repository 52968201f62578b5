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

export interface ScentDeskData {
  blends: CupboardEntry[];
  /** Single scents of the cupboard, with the lots of them that hold some. */
  scents: Pick<CupboardEntry, 'material' | 'lots'>[];
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
