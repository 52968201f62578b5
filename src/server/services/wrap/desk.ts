/** What the wrap's screen opens with. */
import { formulaFacts, takenApart } from '../../../core/claims/facts';
import { DRAFT, type Maker, type WrapData } from '../../../core/records/wrap';
import { rulebook } from '../../../rulebook';
import { hasPrinter } from '../../config';
import type { House } from '../../house';
import { priceSaid } from '../../../core/labels/card';
import { findMaker, findSetting } from '../../repositories/settings';
import { findLogo, issuedCount } from '../../repositories/wraps';
import { listBatches } from '../../store/batches';
import { MARKETS } from '../../../core/formula/types';
import { conditionsOfBar } from '../../store/conditions';
import { snapshotOf } from '../../store/snapshot';
import { batchToLabel, wrapOfBatch } from './batch-label';
import { issuedFrom } from './issued';
import { addressOf, contentOf, gather, netOf, predictedBar, type Gathered } from './wrap';

/** Where a batch's label reads otherwise than the formula's, by market. */
async function differsFromFormula(house: House, gathered: Gathered, maker: Maker | null): Promise<string[]> {
  const { product, stored, ofBatch } = gathered;
  const plain = await gather(house, product.id);
  const wrap = wrapOfBatch(stored.wrap, ofBatch);
  return product.markets.flatMap((market) => {
    const [planned, weighed] = [plain, gathered].map((one) => contentOf(one, { wrap, market, maker }));
    const texts = new Map(planned!.info.map(({ id, text }) => [id, text]));
    const ids = weighed!.info.filter(({ id, text }) => texts.get(id) !== text).map(({ id }) => id);
    return ids.map((id) => `${market}: ${id}`);
  });
}

/**
 * What the wrap opens with: for the batch that is asked for, for the formula by `draft`, and unasked for the newest batch
 * without a label.
 */
export async function wrapOpened(house: House, productId: string, asked: string | null): Promise<WrapData> {
  const batch = asked === null ? await batchToLabel(house, productId) : asked === DRAFT ? null : asked;
  return wrapData(house, productId, batch);
}

/** Gathers the wrap of a bar; 404 where there is none. */
/** The price of a bar as it is said; empty where none is. */
async function priceOf({ db }: House, productId: string): Promise<string> {
  const price = (await findSetting(db, 'pricing')).value.prices[productId];
  return price === undefined ? '' : priceSaid(price, (await findSetting(db, 'currency')).value, 'en');
}

export async function wrapData(
  house: House,
  productId: string,
  batchId: string | null = null,
): Promise<WrapData> {
  const gathered = await gather(house, productId, batchId);
  const { product, version, assessment, materials, stored, proposedCautions } = gathered;
  const [maker, snapshot] = await Promise.all([findMaker(house.db), snapshotOf(house.db, house.today)]);
  const batches = await listBatches(house, { state: null, product: productId });
  const ofBatch = wrapOfBatch(stored.wrap, gathered.ofBatch);
  return {
    product,
    version: { revision: version.revision, formula: version.formula },
    stored,
    assessment,
    materials,
    conditions: await conditionsOfBar(house.db, materials, MARKETS, house.today),
    facts: formulaFacts(takenApart(materials, (id) => snapshot.material(id))),
    maker,
    hasLogo: (await findLogo(house.db)) !== null,
    predictedBarG: predictedBar(gathered),
    proposedCautions,
    priceSaid: await priceOf(house, productId),
    cardAddress: gathered.ofBatch && addressOf(gathered, ofBatch),
    labelLanguages: gathered.labelLanguages,
    labelCountries: gathered.labelCountries,
    ownPhrases: gathered.ownPhrases,
    phrasesRevision: gathered.phrasesRevision,
    issued: await issuedFrom(house, gathered, 0),
    issuedCount: await issuedCount(house.db, productId),
    batch: gathered.ofBatch && {
      id: gathered.ofBatch.id,
      code: gathered.ofBatch.code,
      netMassG: netOf(gathered, ofBatch),
      endsOn: ofBatch.durability?.endsOn ?? null,
      lightestG: gathered.ofBatch.lightestG,
      differs: await differsFromFormula(house, gathered, maker),
    },
    batches: batches
      .filter(({ pouredAt }) => pouredAt !== null)
      .map(({ id, code, bars, isQuarantined }) => ({ id, code, bars: bars.good, isQuarantined })),
    hasPrinter: hasPrinter(),
    onDate: house.today,
    rulebookEdition: rulebook().edition,
  };
}
