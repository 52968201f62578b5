/** What the scent desk needs: scents and blends, the bars to try them in, and the rules. */
import { isScentBlend } from '../../../core/formula/mix';
import { purposeFormula } from '../../../core/formula/purposes';
import { PLAIN_BAR, type ScentDeskData, type TryBar } from '../../../core/records/scent';
import { rulebook } from '../../../rulebook';
import type { House } from '../../house';
import { productNames } from '../../repositories/products';
import { materialsOf, snapshotOf } from '../../store/snapshot';
import { cupboardEntries } from '../../store/materials';
import { requireProduct } from '../../store/products';

const PLAIN_NAME = 'a plain bar';

/** A bar to try a blend in, with the materials it holds; 404 where there is none. */
export async function tryBar({ db, today }: House, id: string): Promise<TryBar> {
  const snapshot = await snapshotOf(db, today);
  const { product, version } = await requireProduct(db, id);
  const { name, markets, firstPlacedOn } = product;
  const { formula } = version;
  return { id, name, formula, markets, firstPlacedOn, materials: materialsOf(formula, snapshot) };
}

/** Gathers the scent desk with a blend on it: the one that is asked for, else the first by name. */
export async function scentDeskData(house: House, asked: string | null = null): Promise<ScentDeskData> {
  const { db, today } = house;
  const snapshot = await snapshotOf(db, today);
  const entries = await cupboardEntries(house, ({ material }, { own }) =>
    isScentBlend(own.get(material.id) ?? material),
  );
  const blends = entries.filter(({ mix }) => mix !== null);
  const scents = entries.filter(({ mix }) => mix === null);
  const opened = blends.find(({ material }) => material.id === asked) ?? blends[0] ?? null;
  const isIn = new Set(opened?.mix?.map(({ material }) => material));
  const formula = purposeFormula('plain', PLAIN_NAME);
  return {
    blends: blends.map(({ material: { id, name }, usedIn }) => ({ id, name, usedIn })),
    opened,
    scents: scents.map(({ material: { id, name } }) => ({ id, name })),
    known: scents
      .filter(({ material }) => isIn.has(material.id))
      .map(({ material, lots }) => ({ material, lots })),
    bars: [{ id: PLAIN_BAR, name: PLAIN_NAME }, ...(await productNames(db))],
    first: {
      id: PLAIN_BAR,
      name: PLAIN_NAME,
      formula,
      markets: ['EU', 'UK'],
      firstPlacedOn: {},
      materials: materialsOf(formula, snapshot),
    },
    rules: { limits: snapshot.limits, declarables: snapshot.declarables },
    rulebookEdition: rulebook().edition,
    peroxides: rulebook().peroxides,
    onDate: today,
  };
}
