/** What the scent desk needs: scents and blends, the bars to try them in, and the rules. */
import type { Knex } from 'knex';
import { isScentBlend } from '../../core/formula/mix';
import type { Formula, Market, Material, Stored } from '../../core/formula/types';
import { rulebook } from '../../rulebook';
import { today } from '../config';
import { allProducts } from '../repositories/products';
import { storedFor } from './cupboard';
import { cupboardEntries, type CupboardEntry } from './materials';
import { starterFormula } from './products';

/** A bar that a blend can be tried in. */
export interface TryBar {
  id: string;
  name: string;
  formula: Formula;
  markets: Market[];
  firstPlacedOn: Partial<Record<Market, string>>;
}

export interface ScentDeskData {
  blends: CupboardEntry[];
  /** Single scents of the cupboard. */
  scents: CupboardEntry[];
  bars: TryBar[];
  /** Every material that the bars hold. */
  materials: Material[];
  rules: Pick<Stored, 'limits' | 'declarables'>;
  rulebookEdition: string;
  onDate: string;
}

/** Id of the plain bar that is always there to try a blend in. */
export const PLAIN_BAR = '';

/** Gathers the scent desk. */
export async function scentDeskData(db: Knex): Promise<ScentDeskData> {
  const entries = await cupboardEntries(db);
  const stored = await storedFor(db);
  const isScent = ({ material }: CupboardEntry) =>
    isScentBlend(material.madeOf?.length ? material.madeOf.map(({ kind }) => kind) : [material.kind]);
  const products = await allProducts(db);
  const bars: TryBar[] = [
    {
      id: PLAIN_BAR,
      name: 'a plain bar',
      formula: starterFormula('a plain bar'),
      markets: ['EU', 'UK'],
      firstPlacedOn: {},
    },
    ...products.map(({ product: { id, name, markets, firstPlacedOn }, version }) => ({
      id,
      name,
      formula: version.formula,
      markets,
      firstPlacedOn,
    })),
  ];
  const ids = new Set(bars.flatMap(({ formula }) => formula.lines.map(({ material }) => material)));
  return {
    blends: entries.filter((entry) => entry.mix && isScent(entry)),
    scents: entries.filter((entry) => !entry.mix && isScent(entry)),
    bars,
    materials: [...ids].flatMap((id) => stored.material(id) ?? []),
    rules: { limits: stored.limits, declarables: stored.declarables },
    rulebookEdition: rulebook().edition,
    onDate: today(),
  };
}
