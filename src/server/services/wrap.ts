/** A bar's wrap: gathering what the screen needs, laying labels out, and issuing them. */
import type { Knex } from 'knex';
import { findClaims } from '../../core/claims/find';
import type { Assessment } from '../../core/formula/answer';
import type { TraitMaterial } from '../../core/formula/traits';
import { MARKETS, type Market, type Material } from '../../core/formula/types';
import { proposeCautions } from '../../core/labels/cautions';
import { labelContent, type LabelContent } from '../../core/labels/content';
import { USUAL_FORMATS } from '../../core/labels/formats';
import { netFromBars } from '../../core/labels/heights';
import { layoutLabel } from '../../core/labels/label';
import type { Layout } from '../../core/labels/layout';
import { standingIn, type Standing } from '../../core/labels/standing';
import { claimPatterns } from '../../rulebook/claims';
import { marketRules } from '../../rulebook/markets';
import { rulebook } from '../../rulebook';
import { today } from '../config';
import { fault, HttpFault } from '../http';
import { barcodeFor } from '../labels/barcode';
import { fontMetrics } from '../labels/fonts';
import type { Picture } from '../labels/svg';
import { allMaterials } from '../repositories/materials';
import { allProducts, type Product, type WorkingVersion } from '../repositories/products';
import { findMaker, findOwnPhrases, type Maker } from '../repositories/settings';
import type { OwnPhrase } from '../../core/claims/types';
import {
  findLogo,
  findWrap,
  issuedLabels,
  saveWrap,
  type IssuedLabel,
  type StoredWrap,
  type Wrap,
} from '../repositories/wraps';
import { assessEverywhere } from './products';
import { papersStanding } from './materials';

/** What the wrap's screen needs; claims and checklists follow from it on the spot. */
export interface WrapData {
  product: Product;
  version: Pick<WorkingVersion, 'revision' | 'formula'>;
  stored: StoredWrap;
  assessment: Assessment;
  materials: Material[];
  maker: Maker | null;
  hasLogo: boolean;
  predictedBarG: number;
  proposedCautions: { en: string; fr: string };
  /** Phrases the maker added to those that ship. */
  ownPhrases: OwnPhrase[];
  issued: (IssuedLabel & { differs: string[] })[];
  onDate: string;
  rulebookEdition: string;
}

const FRENCH_SOAP = 'Savon';

/** What a wrap starts from. */
function startingWrap(product: Product, cautions: { en: string; fr: string }): Wrap {
  return {
    description: product.note,
    back: '',
    identity: { en: product.identity, fr: FRENCH_SOAP },
    use: {},
    cautions: { en: cautions.en, fr: cautions.fr },
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

interface Gathered {
  product: Product;
  version: WorkingVersion;
  assessment: Assessment;
  materials: Material[];
  stored: StoredWrap;
  proposedCautions: { en: string; fr: string };
  ownPhrases: OwnPhrase[];
}

async function gather(db: Knex, productId: string): Promise<Gathered> {
  const { product, version, assessment, materials } = await assessEverywhere(db, productId);
  const proposedCautions = proposeCautions(materials as TraitMaterial[]);
  const stored = (await findWrap(db, productId)) ?? {
    revision: 0,
    savedAt: '',
    wrap: startingWrap(product, proposedCautions),
  };
  const ownPhrases = await findOwnPhrases(db);
  return { product, version, assessment, materials, stored, proposedCautions, ownPhrases };
}

/** Everything a maker says of a bar, as one text. */
export function wordsOfWrap(product: Pick<Product, 'name'>, wrap: Wrap): string {
  const { description, back, identity, use } = wrap;
  return [product.name, description, back, ...Object.values(identity), ...Object.values(use)].join('\n');
}

/** What a cured bar is predicted to weigh, grams. */
function predictedBar({ assessment, version }: Pick<Gathered, 'assessment' | 'version'>): number {
  return assessment.masses.curedG / (version.formula.bars || 1);
}

/** The net content: of the lightest weighed bar, else as the maker states it, else as it is predicted. */
export function netOf(gathered: Gathered, wrap: Wrap): number {
  return netFromBars(wrap.weighedG) ?? wrap.netMassG ?? Math.floor(predictedBar(gathered));
}

function standingOf({ product, assessment, ownPhrases }: Gathered, wrap: Wrap, market: Market): Standing {
  const claims = findClaims(wordsOfWrap(product, wrap), claimPatterns(ownPhrases));
  return standingIn(market, claims, assessment);
}

function contentOf(gathered: Gathered, wrap: Wrap, market: Market, maker: Maker | null): LabelContent {
  const { product, assessment } = gathered;
  const school = wrap.markets[market]?.school ?? marketRules(market).usualSchool;
  const list = assessment.ingredients.find((one) => one.market === market && one.school === school);
  return labelContent({
    market,
    regime: standingOf(gathered, wrap, market).regime,
    name: product.name,
    identity: wrap.identity,
    use: wrap.use,
    cautions: wrap.cautions,
    text: wrap.back,
    ingredients: list?.text ?? '',
    netMassG: netOf(gathered, wrap),
    responsible: maker ? [maker.name, ...maker.addressLines] : [],
    batchCode: wrap.batchCode,
    durability: wrap.durability ? { ...wrap.durability, endsOn: wrap.durability.endsOn ?? null } : null,
  });
}

export interface MadeLabel {
  layout: Layout;
  content: LabelContent;
  pictures: ReadonlyMap<string, Picture>;
  title: string;
}

const LOGO_KEY = 'logo';

async function makeLabel(db: Knex, gathered: Gathered, wrap: Wrap, market: Market): Promise<MadeLabel> {
  const content = contentOf(gathered, wrap, market, await findMaker(db));
  const logo = wrap.look.logo ? await findLogo(db) : null;
  const barcode = barcodeFor(wrap);
  const layout = layoutLabel(
    content,
    wrap.markets[market]?.format ?? USUAL_FORMATS.band,
    {
      paper: wrap.look.paper,
      ink: wrap.look.ink,
      nameFace: wrap.look.nameFace,
      logo: logo && { key: LOGO_KEY, widthOverHeight: logo.widthOverHeight },
      barcode: barcode.ok ? barcode.bars : null,
    },
    netOf(gathered, wrap),
    fontMetrics,
  );
  if (!barcode.ok) layout.findings.push({ element: 'barcode', code: 'barcode', message: barcode.message });
  const pictures = new Map<string, Picture>(
    logo ? [[LOGO_KEY, { mime: logo.mime, data: Buffer.from(logo.bytes) }]] : [],
  );
  const title = `${gathered.product.name}, ${market}, batch ${wrap.batchCode}`;
  return { layout, content, pictures, title };
}

/** Where the list does not fit, whether the other school's would, as one more way out. */
async function withOtherSchool(
  db: Knex,
  gathered: Gathered,
  wrap: Wrap,
  market: Market,
  layout: Layout,
): Promise<void> {
  const lacking = layout.findings.find(
    ({ element, code }) => element === 'ingredients' && code === 'does-not-fit',
  );
  const settings = wrap.markets[market];
  if (!lacking || !settings) return;
  const school = settings.school === 'added' ? 'formed' : 'added';
  const other = { ...wrap, markets: { ...wrap.markets, [market]: { ...settings, school } } };
  const { layout: tried } = await makeLabel(db, gathered, other, market);
  if (!tried.findings.some(({ code }) => code === 'does-not-fit'))
    lacking.waysOut = [`the list as ${school}, which fits`, ...(lacking.waysOut ?? [])];
}

/** A label as the saved wrap has it, or as a wrap on the screen would; 404 and 422 as faults. */
export async function labelFor(
  db: Knex,
  productId: string,
  market: Market,
  wrap?: Wrap,
): Promise<MadeLabel & { gathered: Gathered }> {
  const gathered = await gather(db, productId);
  const used = wrap ?? gathered.stored.wrap;
  const made = await makeLabel(db, gathered, used, market);
  await withOtherSchool(db, gathered, used, market, made.layout);
  return { ...made, gathered };
}

/** A label that can be printed; 422 with everything that stands in the way. */
export async function printableLabel(db: Knex, productId: string, market: Market) {
  const made = await labelFor(db, productId, market);
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

/** Gathers the wrap of a bar; 404 where there is none. */
export async function wrapData(db: Knex, productId: string): Promise<WrapData> {
  const gathered = await gather(db, productId);
  const { product, version, assessment, materials, stored, proposedCautions, ownPhrases } = gathered;
  const maker = await findMaker(db);
  const issued = (await issuedLabels(db, productId)).map((label) => {
    const wrap: Wrap = {
      ...stored.wrap,
      markets: { ...stored.wrap.markets, [label.market]: { school: label.school, format: label.format } },
    };
    const verdict = assessment.markets.find(({ market }) => market === label.market)!.verdict;
    return { ...label, differs: differences(label, contentOf(gathered, wrap, label.market, maker), verdict) };
  });
  return {
    product,
    version: { revision: version.revision, formula: version.formula },
    stored,
    assessment,
    materials,
    maker,
    hasLogo: (await findLogo(db)) !== null,
    predictedBarG: predictedBar(gathered),
    proposedCautions,
    ownPhrases,
    issued,
    onDate: today(),
    rulebookEdition: rulebook().edition,
  };
}

/** Saves a wrap; 409 is told by the newer one coming back. */
export async function saveProductWrap(
  db: Knex,
  productId: string,
  revision: number,
  wrap: Wrap,
): Promise<{ saved: StoredWrap } | { stale: StoredWrap }> {
  await assessEverywhere(db, productId);
  return saveWrap(db, productId, revision, wrap, new Date().toISOString());
}

/** The papers that count for the materials of a formula today. */
export async function papersFor(db: Knex, materials: readonly Material[]): Promise<IssuedLabel['papers']> {
  const ids = new Set(
    materials.flatMap(({ id, madeOf }) => [id, ...(madeOf ?? []).map((part) => part.material)]),
  );
  const stored = (await allMaterials(db)).filter(({ material }) => ids.has(material.id));
  return stored.flatMap(({ material, documents }) => {
    const { certificate, allergens } = papersStanding(documents);
    return [certificate, allergens].flatMap((governing) =>
      governing
        ? [
            {
              material: material.name,
              number: governing.paper.number,
              issuer: governing.paper.issuer,
              issuedOn: governing.paper.issuedOn,
            },
          ]
        : [],
    );
  });
}

/** A fault for a sheet that not one label fits on. */
export function tooLargeForSheet(): HttpFault {
  return fault(422, 'too-large', 'Not one label of this size fits on that sheet. Print it one up.', 'as');
}

export { standingOf };

/** What every bar is in every market, and how many labels were issued for it; null where it does not reckon. */
export async function wrapOverview(
  db: Knex,
): Promise<
  { id: string; name: string; regimes: Partial<Record<Market, Standing['regime']>>; issued: number }[]
> {
  const rows = [];
  for (const { product } of await allProducts(db)) {
    const gathered = await gather(db, product.id).catch((error: unknown) => {
      if (error instanceof HttpFault) return null;
      throw error;
    });
    const regimes = Object.fromEntries(
      gathered
        ? MARKETS.map((market) => [market, standingOf(gathered, gathered.stored.wrap, market).regime])
        : [],
    );
    const issued = (await issuedLabels(db, product.id)).length;
    rows.push({ id: product.id, name: product.name, regimes, issued });
  }
  return rows;
}
