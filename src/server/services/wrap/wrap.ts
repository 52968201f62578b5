/** A bar's wrap: gathering what the screen needs, laying labels out, and keeping it. */
import { wordsOfWrap } from '../../../core/claims/words';
import { findClaims } from '../../../core/claims/read';
import type { OwnPhrase } from '../../../core/claims/types';
import {
  countryAsks,
  languagesOf,
  type Country,
  type LabelLanguage,
  type OwnLabelWords,
} from '../../../core/labels/languages';
import type { School } from '../../../core/formula/answer';
import { MARKETS, type Market, type Material } from '../../../core/formula/types';
import { proposeCautions } from '../../../core/labels/cautions';
import { cardAddress } from '../../../core/labels/card';
import { labelContent, type LabelContent, type Words as LabelWords } from '../../../core/labels/content';
import { USUAL_FORMATS } from '../../../core/labels/formats';
import { netFromBars } from '../../../core/labels/heights';
import { standingIn, type Standing } from '../../../core/labels/standing';
import type { Product } from '../../../core/records/product';
import { type IssuedLabel, type Maker, type StoredWrap, type Wrap } from '../../../core/records/wrap';
import { claimReader } from '../../../rulebook/claims';
import { marketRules } from '../../../rulebook/markets';
import type { House } from '../../house';
import { HttpFault } from '../../http';
import { onThread } from '../../jobs/threads';
import { told } from '../../jobs/told';
import type { LabelForm, MadeLabel } from '../../labels/label-job';
import { findMaker, findSetting } from '../../repositories/settings';
import { findLogo, findWrap, putWrap } from '../../repositories/wraps';
import { snapshotOf } from '../../store/snapshot';
import { writing } from '../../store/writing';
import { assessBatchEverywhere, wrapOfBatch, type OfBatch } from './batch-label';
import { assessEverywhere, type AssessedProduct } from '../../store/assessed';
import { papersStanding } from '../../store/papers';
import { requireProduct } from '../../store/products';

const FRENCH_SOAP = 'Savon';

/** What a wrap starts from. */
function startingWrap(
  product: Product,
  cautions: Required<LabelWords>,
  languages: readonly LabelLanguage[],
): Wrap {
  const spoken = new Set<LabelLanguage>(['en', 'fr', ...languages]);
  return {
    description: product.note,
    back: '',
    identity: { en: product.identity, fr: FRENCH_SOAP },
    use: {},
    cautions: Object.fromEntries([...spoken].map((language) => [language, cautions[language]])),
    markets: Object.fromEntries(
      MARKETS.map((market) => [
        market,
        { school: marketRules(market).usualSchool, format: USUAL_FORMATS.band },
      ]),
    ),
    look: { paper: '#ffffff', ink: '#18222d', nameFace: 'display', logo: false },
    barcode: 'none',
    gtin: '',
    weighedG: [],
    netMassG: product.netMassG,
    batchCode: product.batchCode,
    durability: null,
    ticked: [],
  };
}

export interface Gathered extends AssessedProduct {
  stored: StoredWrap;
  /** The batch whose label it is; null for the formula's. */
  ofBatch: OfBatch | null;
  proposedCautions: Required<LabelWords>;
  /** What labels in the EU speak. */
  labelLanguages: LabelLanguage[];
  labelCountries: Country[];
  ownWords: OwnLabelWords;
  /** Where the pages of batches stand; empty for nowhere. */
  cardsAt: string;
  ownPhrases: OwnPhrase[];
  phrasesRevision: number;
}

export async function gather(
  house: House,
  productId: string,
  batchId: string | null = null,
): Promise<Gathered> {
  const assessed =
    batchId === null
      ? { ...(await assessEverywhere(house, productId)), ofBatch: null }
      : await assessBatchEverywhere(house, productId, batchId);
  const proposedCautions = proposeCautions(assessed.materials);
  const {
    labelLanguages: chosen = [],
    labelCountries = [],
    labelWords: ownWords = {},
    cardsAt = '',
  } = (await findSetting(house.db, 'house')).value;
  const labelLanguages = [...new Set([...languagesOf(labelCountries), ...chosen])];
  const stored = (await findWrap(house.db, productId)) ?? {
    revision: 0,
    savedAt: '',
    wrap: startingWrap(assessed.product, proposedCautions, labelLanguages),
  };
  const { value: ownPhrases, revision: phrasesRevision } = await findSetting(house.db, 'ownPhrases');
  const spoken = { labelLanguages, labelCountries, ownWords, cardsAt };
  return { ...assessed, ...spoken, stored, proposedCautions, ownPhrases, phrasesRevision };
}

/** What a cured bar is predicted to weigh, grams. */
export function predictedBar({ assessment, version }: AssessedProduct): number {
  return assessment.masses.curedG / (version.formula.bars || 1);
}

/** The net content: of the lightest weighed bar, else as the maker states it, else as it is predicted. */
export function netOf(gathered: Gathered, wrap: Wrap): number {
  return netFromBars(wrap.weighedG) ?? wrap.netMassG ?? Math.floor(predictedBar(gathered));
}

/** What a bar is in a market, by its formula and its words. */
export function standingOf(
  { product, assessment, ownPhrases }: Gathered,
  wrap: Wrap,
  market: Market,
): Standing {
  const claims = findClaims(wordsOfWrap(product, wrap), claimReader(ownPhrases));
  return standingIn(market, claims, assessment);
}

const schoolOf = (wrap: Wrap, market: Market): School =>
  wrap.markets[market]?.school ?? marketRules(market).usualSchool;

interface Words {
  wrap: Wrap;
  market: Market;
  maker: Maker | null;
  school?: School;
  /** Of the EU: the country it is made for; left out, all that the house speaks to. */
  country?: Country | null;
}

/** Who answers in a market, as the label says it: whoever is named for it, else the maker. */
function responsibleIn(maker: Maker | null, market: Market): string[] {
  const one = maker?.elsewhere?.find((there) => there.market === market) ?? maker;
  return one ? [one.name, ...one.addressLines] : [];
}

export function contentOf(
  gathered: Gathered,
  { wrap, market, maker, school = schoolOf(wrap, market), country = null }: Words,
): LabelContent {
  const { product, assessment } = gathered;
  const list = assessment.ingredients.find((one) => one.market === market && one.school === school);
  return labelContent({
    market,
    regime: standingOf(gathered, wrap, market).regime,
    name: product.name,
    identity: wrap.identity,
    use: wrap.use,
    cautions: wrap.cautions,
    languages: country === null ? gathered.labelLanguages : countryAsks(country).languages,
    ownWords: gathered.ownWords,
    text: wrap.back,
    ingredients: list?.text ?? '',
    netMassG: netOf(gathered, wrap),
    responsible: responsibleIn(maker, market),
    batchCode: wrap.batchCode,
    durability: wrap.durability,
  });
}

/** Where the page of a batch stands; null where nothing says it, or there is no code. */
export const addressOf = ({ cardsAt }: Pick<Gathered, 'cardsAt'>, { batchCode }: Pick<Wrap, 'batchCode'>) =>
  cardsAt === '' || batchCode.trim() === '' ? null : cardAddress(cardsAt, batchCode);

export interface Label extends MadeLabel {
  content: LabelContent;
  gathered: Gathered;
}

/** What a label is made of, where it is not the saved wrap around the formula. */
export interface LabelOf {
  wrap?: Wrap;
  /** A batch, whose label answers for what was weighed. */
  batch?: string | null;
  /** Of the EU: the country it is made for. */
  country?: Country | null;
  /** Words beside it on paper. */
  note?: string | null;
}

/** A label as the saved wrap has it, or as a wrap on the screen would; 404 and 422 as faults. */
export async function labelFor(
  house: House,
  productId: string,
  market: Market,
  form: LabelForm,
  { wrap: wrapOnScreen, batch = null, country = null, note = null }: LabelOf = {},
): Promise<Label> {
  const gathered = await gather(house, productId, batch);
  const wrap = wrapOfBatch(wrapOnScreen ?? gathered.stored.wrap, gathered.ofBatch);
  const maker = await findMaker(house.db);
  const content = contentOf(gathered, { wrap, market, maker, country });
  const otherSchool = schoolOf(wrap, market) === 'added' ? 'formed' : 'added';
  const made = await told(
    onThread('makeLabel', {
      content,
      other: wrap.markets[market]
        ? {
            school: otherSchool,
            content: contentOf(gathered, { wrap, market, maker, country, school: otherSchool }),
          }
        : null,
      format: wrap.markets[market]?.format ?? null,
      look: wrap.look,
      code: {
        ...{ barcode: wrap.barcode, gtin: wrap.gtin, batchCode: wrap.batchCode },
        pageAt: addressOf(gathered, wrap),
      },
      logo: wrap.look.logo ? await findLogo(house.db) : null,
      netMassG: netOf(gathered, wrap),
      title: `${gathered.product.name}, ${market}, batch ${wrap.batchCode}`,
      note,
      form,
    }),
    'wrap',
  );
  return { ...made, content, gathered };
}

/** A label that can be printed; 422 with everything that stands in the way. */
export async function printableLabel(
  house: House,
  productId: string,
  market: Market,
  form: LabelForm,
  of: Omit<LabelOf, 'wrap'> = {},
): Promise<Label> {
  const made = await labelFor(house, productId, market, form, of);
  if (made.layout.findings.length > 0) {
    const errors = made.layout.findings.map(({ element, code, message }) => ({
      path: element,
      code,
      message,
    }));
    throw new HttpFault(422, errors);
  }
  return made;
}

/** Saves a wrap made from a revision, 0 before the first; the newer one comes back where it is stale. */
export async function saveProductWrap(
  house: House,
  productId: string,
  revision: number,
  wrap: Wrap,
): Promise<{ saved: StoredWrap } | { stale: StoredWrap }> {
  const { stored: starting } = await gather(house, productId);
  return writing(house.db, async (trx) => {
    await requireProduct(trx, productId);
    const known = (await findWrap(trx, productId)) ?? starting;
    if (known.revision !== revision) return { stale: known };
    const saved: StoredWrap = { revision: revision + 1, savedAt: house.now, wrap };
    await putWrap(trx, productId, saved);
    return { saved };
  });
}

/** The papers that count for the materials of a formula today. */
export async function papersFor(
  { db, today }: House,
  materials: readonly Material[],
): Promise<IssuedLabel['papers']> {
  const ids = new Set(
    materials.flatMap(({ id, madeOf }) => [id, ...(madeOf ?? []).map((part) => part.material)]),
  );
  const { stored } = await snapshotOf(db, today);
  return stored
    .filter(({ material }) => ids.has(material.id))
    .flatMap(({ material, documents }) => {
      const { certificate, allergens } = papersStanding(documents, today);
      return [certificate, allergens].flatMap((governing) => {
        if (!governing) return [];
        const { number, issuer, issuedOn } = governing.paper;
        return [{ material: material.name, number, issuer, issuedOn }];
      });
    });
}

/** The school of a bar's list in a market, chosen anywhere: it is the wrap's, for there is one. 404 and 422 as faults. */
export function chooseSchool(
  house: House,
  productId: string,
  market: Market,
  school: School,
): Promise<StoredWrap> {
  return writing(house.db, async (trx) => {
    const { stored } = await gather({ ...house, db: trx }, productId);
    const { wrap, revision } = stored;
    const settings = wrap.markets[market] ?? { school, format: USUAL_FORMATS.band };
    const chosen: Wrap = { ...wrap, markets: { ...wrap.markets, [market]: { ...settings, school } } };
    const saved: StoredWrap = { revision: revision + 1, savedAt: house.now, wrap: chosen };
    await putWrap(trx, productId, saved);
    return saved;
  });
}
