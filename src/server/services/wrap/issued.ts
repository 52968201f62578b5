/** Labels issued for a bar, each held against what would be printed today. */
import type { LabelContent } from '../../../core/labels/content';
import { dayOf } from '../../../core/quantities/day';
import type { IssuedLabel, Wrap, WrapData } from '../../../core/records/wrap';
import type { House } from '../../house';
import { HttpFault } from '../../http';
import { findMaker } from '../../repositories/settings';
import { issuedCount, issuedLabels } from '../../repositories/wraps';
import { listBatches } from '../../store/batches';
import { snapshotOf, type StoreSnapshot } from '../../store/snapshot';
import { assessAs } from '../../store/assessed';
import { wrapOfBatch } from './batch-label';
import { contentOf, gather, type Gathered } from './wrap';

/** What of an issued label would read differently today. */
function differences(label: IssuedLabel, now: LabelContent, verdict: string): string[] {
  const found: string[] = [];
  const before = new Map(label.content.info.map(({ id, text }) => [id as string, text]));
  const after = new Map(now.info.map(({ id, text }) => [id as string, text]));
  for (const id of new Set([...before.keys(), ...after.keys()]))
    if (before.get(id) !== after.get(id)) found.push(id);
  for (const key of ['name', 'identity', 'net'] as const)
    if (label.content.front[key] !== now.front[key]) found.push(key);
  if (label.verdict !== verdict) found.push(`verdict, ${label.verdict} then and ${verdict} now`);
  return found;
}

/** Issued labels that are laid out at once, to be held against what they would say today. */
const LABELS_AT_ONCE = 12;

/** A label's own formula, frozen with it, under the rules and papers of today; null where it does not reckon any more. */
function asFrozen(
  gathered: Gathered,
  { formula }: IssuedLabel,
  today: string,
  snapshot: StoreSnapshot,
): Gathered | null {
  const { product, version } = gathered;
  try {
    return { ...gathered, ...assessAs(product, { ...version, formula }, today, snapshot) };
  } catch (error) {
    if (error instanceof HttpFault) return null;
    throw error;
  }
}

/** Labels issued for a bar, newest first from a place on, each with what would read differently today. */
export async function issuedFrom(
  house: House,
  gathered: Gathered,
  from: number,
): Promise<WrapData['issued']> {
  const { product, stored, ofBatch } = gathered;
  const maker = await findMaker(house.db);
  const batches = await listBatches(house, { state: null, product: product.id });
  const labels = await issuedLabels(house.db, product.id, { from, most: LABELS_AT_ONCE });
  const snapshot = await snapshotOf(house.db, house.today);
  const ofFormula = ofBatch === null ? gathered : await gather(house, product.id);
  const listed: WrapData['issued'] = [];
  for (const label of labels) {
    const { market, school, format, netMassG, batchCode: code, country = null } = label;
    // A label of a batch is held against what one of that batch, as it was weighed, would say; any other against the formula's.
    const made = batches.find((one) => one.code === code && one.pouredAt !== null);
    const its = !made
      ? ofFormula
      : made.id === ofBatch?.id
        ? gathered
        : asFrozen(ofFormula, label, house.today, snapshot);
    if (its === null) {
      listed.push({ ...label, differs: ['its batch, which does not reckon today'] });
      continue;
    }
    const madeOn = made && dayOf(made.pouredAt!, house.zone);
    const ofIts = wrapOfBatch(stored.wrap, madeOn ? { code, madeOn, netMassG, weighedG: [] } : null);
    const wrap: Wrap = { ...ofIts, markets: { ...ofIts.markets, [market]: { school, format } } };
    const verdict = its.assessment.markets.find((entry) => entry.market === market)!.verdict;
    listed.push({
      ...label,
      differs: differences(label, contentOf(its, { wrap, market, maker, country }), verdict),
    });
  }
  return listed;
}

/** Older labels issued for a bar, from a place on; 404 where there is no such bar. */
export async function olderLabels(
  house: House,
  productId: string,
  from: number,
): Promise<Pick<WrapData, 'issued' | 'issuedCount'>> {
  const gathered = await gather(house, productId);
  return {
    issued: await issuedFrom(house, gathered, from),
    issuedCount: await issuedCount(house.db, productId),
  };
}
