/** What a change is, in the maker's words. */
import type { Change } from '../../../core/change/types';
import { spoken } from '../../../core/spoken';
import type { House } from '../../house';
import { findLot } from '../../repositories/lots';
import { findProduct } from '../../repositories/products';
import { snapshotOf } from '../../store/snapshot';

/** One line that says what a change is. */
export async function changeWords({ db, today }: House, change: Change): Promise<string> {
  const snapshot = await snapshotOf(db, today);
  const name = (id: string) => snapshot.material(id)?.name ?? id;
  const bar = async (id: string) => (await findProduct(db, id))?.product.name ?? id;
  switch (change.kind) {
    case 'paper': {
      const { type, number, issuer, issuedOn } = change.paper;
      const what = type === 'certificate' ? 'Certificate' : 'Allergen declaration';
      return `${what} ${number} of ${issuer}, ${issuedOn}, for ${name(change.material)}`;
    }
    case 'edition':
      return `Rulebook edition ${typeof change.edition === 'string' ? change.edition : change.edition.edition}`;
    case 'day':
      return `The day becomes ${change.onDate}`;
    case 'swap': {
      const where = change.products ? `${change.products.length} bars` : 'every bar that holds it';
      const how = change.by === 'mass' ? 'gram for gram' : 'at the same share of its limit';
      return `${name(change.to)} for ${name(change.from)} in ${where}, ${how}`;
    }
    case 'lot': {
      const lot = await findLot(db, change.lot);
      const what = `Lot ${lot?.code ?? change.lot} of ${name(lot?.material ?? '')}`;
      return change.quarantine === null
        ? `${what} is free again`
        : `${what} into quarantine: ${change.quarantine}`;
    }
    case 'limit': {
      const { subject, maxPct, basis } = change.limit;
      const what = subject.type === 'material' ? name(subject.id) : spoken(subject.id);
      return `Own limit: ${what} at most ${maxPct} % of the ${basis === 'cured' ? 'cured bar' : basis === 'fats' ? 'fats' : 'poured batter'}`;
    }
    case 'market':
      return `${await bar(change.product)} comes to ${change.market}`;
  }
}
