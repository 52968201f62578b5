/** What leaves the wrap: PDFs, SVG, words for a shop, the product sheet, and issued labels that never change. */
import { openHold } from '../../../core/batch/held';
import type { Market } from '../../../core/formula/types';
import { cardName, cardOf, USUAL_PARTS, type Card, type CardInput } from '../../../core/labels/card';
import { countryAsks, type Country } from '../../../core/labels/languages';
import type { IssuedLabel } from '../../../core/records/wrap';
import { rulebook } from '../../../rulebook';
import type { House } from '../../house';
import { fault } from '../../http';
import { onThread } from '../../jobs/threads';
import { cardCsv, cardData, cardHtml, cardText, priceHtml } from '../../labels/card';
import { qrSvg } from '../../labels/qr';
import { labelHtml, labelText } from '../../labels/words';
import { findSetting } from '../../repositories/settings';
import { findBatchByCode } from '../../repositories/batches';
import { addIssued, findIssued, issuedPdf } from '../../repositories/wraps';
import { once, takenIds, writing } from '../../store/writing';
import { requireBatch } from '../../store/batches';
import { wrapOfBatch } from './batch-label';
import { freeId } from '../../store/ids';
import { addressOf, labelFor, netOf, papersFor, printableLabel, standingOf } from './wrap';
import { told } from '../../jobs/told';

/** What is told of a batch to whoever buys it. */
type CardAs = 'card' | 'price' | 'card-text' | 'card-csv' | 'card-data' | 'qr';
export type LabelAs = CardAs | 'pdf' | 'a4' | 'letter' | 'svg' | 'text' | 'html' | 'sheet' | 'sheet-ranges';

export interface LabelFile {
  mime: string;
  extension: string;
  body: Uint8Array | string;
  /** Its name where it has one of its own. */
  name?: string;
}

/** What a label is of: a batch, and in the EU a country. */
interface Of {
  batch: string | null;
  country: Country | null;
}

async function sheetFile(
  house: House,
  productId: string,
  market: Market,
  { batch, country }: Of,
  inRanges: boolean,
): Promise<LabelFile> {
  const { gathered, content } = await labelFor(house, productId, market, 'layout', { batch, country });
  const { product, version, assessment, materials, stored } = gathered;
  const sheet = onThread('productSheetPdf', {
    name: product.name,
    identity: product.identity,
    market,
    day: house.today,
    rulebookEdition: rulebook().edition,
    formula: version.formula,
    assessment,
    materials,
    content,
    standing: standingOf(gathered, stored.wrap, market),
    papers: await papersFor(house, materials),
    inRanges,
  });
  return { mime: 'application/pdf', extension: 'pdf', body: await told(sheet, 'as') };
}

/** Forms of a batch's card, with what makes each. */
const CARDS: Record<
  Exclude<CardAs, 'qr'>,
  { mime: string; extension: string; body: (card: Card, input: CardInput, netMassG: number | null) => string }
> = {
  card: { mime: 'text/html; charset=utf-8', extension: 'html', body: cardHtml },
  price: { mime: 'text/html; charset=utf-8', extension: 'html', body: priceHtml },
  'card-text': { mime: 'text/plain; charset=utf-8', extension: 'txt', body: cardText },
  'card-csv': { mime: 'text/csv; charset=utf-8', extension: 'csv', body: cardCsv },
  'card-data': { mime: 'application/ld+json', extension: 'json', body: cardData },
};
const isCard = (as: LabelAs): as is CardAs => as === 'qr' || as in CARDS;

const NO_BATCH = 'This is told of one batch. Choose one.';
const NO_PLACE = 'Nothing says where the page of a batch stands. Say it in the House first.';

/** What is told of a batch to whoever buys it, in one of its forms. */
async function cardFile(
  house: House,
  productId: string,
  market: Market,
  as: CardAs,
  { batch, country }: Of,
): Promise<LabelFile> {
  if (batch === null) throw fault(422, 'no-batch', NO_BATCH, 'batch');
  const { gathered, content } = await labelFor(house, productId, market, 'layout', { batch, country });
  const { stored, ofBatch, labelLanguages } = gathered;
  const wrap = wrapOfBatch(stored.wrap, ofBatch);
  if (as === 'qr') {
    const address = addressOf(gathered, wrap);
    if (address === null) throw fault(422, 'no-place', NO_PLACE, 'as');
    return { mime: 'image/svg+xml', extension: 'svg', body: qrSvg(address) };
  }
  const choice = wrap.card ?? { shown: [...USUAL_PARTS] };
  const languages = country === null ? labelLanguages : countryAsks(country).languages;
  const input: CardInput = {
    content,
    language: (market === 'EU' ? languages[0] : undefined) ?? 'en',
    description: wrap.description,
    madeOn: ofBatch!.madeOn,
    releasedOn: ofBatch!.releasedOn,
    lightestG: ofBatch!.lightestG,
    price: (await findSetting(house.db, 'pricing')).value.prices[productId] ?? null,
    currency: (await findSetting(house.db, 'currency')).value,
    // A card for the stall shows its price whatever the page does.
    choice: as === 'price' ? { ...choice, shown: ['net', 'ingredients', 'price'] } : choice,
  };
  const { mime, extension, body } = CARDS[as];
  return {
    ...{ mime, extension, body: body(cardOf(input), input, netOf(gathered, wrap)) },
    // The page is found by its batch's code, wherever it is put.
    ...(as === 'card' ? { name: cardName(wrap.batchCode) } : {}),
  };
}

const DRAFT_NOTE = 'DRAFT of the formula, of no batch';
const TOO_LARGE = 'Not one label of this size fits on that sheet. Print it one up.';

/** A label in a form that leaves the house; 422 with what stands in the way of a print. */
export async function labelFile(
  house: House,
  productId: string,
  market: Market,
  as: LabelAs,
  { batch = null, country = null }: Partial<Of> = {},
): Promise<LabelFile> {
  if (isCard(as)) return cardFile(house, productId, market, as, { batch, country });
  if (as === 'sheet' || as === 'sheet-ranges')
    return sheetFile(house, productId, market, { batch, country }, as === 'sheet-ranges');
  if (as === 'text' || as === 'html') {
    const { content } = await labelFor(house, productId, market, 'layout', { batch, country });
    return as === 'text'
      ? { mime: 'text/plain; charset=utf-8', extension: 'txt', body: labelText(content) }
      : { mime: 'text/html; charset=utf-8', extension: 'html', body: labelHtml(content) };
  }
  // What is of no batch is told as such on paper too, outside the trim.
  const note = batch === null ? DRAFT_NOTE : null;
  const { file } = await printableLabel(house, productId, market, as, { batch, country, note });
  if (file === null) throw fault(422, 'too-large', TOO_LARGE, 'as');
  return as === 'svg'
    ? { mime: 'image/svg+xml', extension: 'svg', body: file }
    : { mime: 'application/pdf', extension: 'pdf', body: file };
}

/** A batch that is held for a lot in it gets no label before that is decided on; 422. */
async function refuseHeld(house: House, id: string): Promise<void> {
  const { batch } = await requireBatch(house, id);
  const open = openHold(batch);
  if (!open) return;
  const message = `Batch ${batch.code} is held: ${open.reason} Free the lot or decide on the batch first, then issue its label.`;
  throw fault(422, 'held', message, 'batch');
}

/** Issues a label: freezes its words, layout, formula, papers and PDF. 422 with what stands in the way. */
export async function issueLabel(
  house: House,
  productId: string,
  market: Market,
  key: string | null = null,
  { batch = null, country: asked = null }: Partial<Of> = {},
): Promise<IssuedLabel> {
  const country = market === 'EU' ? asked : null;
  if (batch !== null) await refuseHeld(house, batch);
  const { file, content, gathered } = await printableLabel(house, productId, market, 'pdf', {
    ...{ batch, country },
  });
  const { product, version, assessment, materials, stored } = gathered;
  const wrap = wrapOfBatch(stored.wrap, gathered.ofBatch);
  const settings = wrap.markets[market];
  if (!settings) throw fault(422, 'no-format', 'Choose a shape for this market first.', 'market');
  const { today, now } = house;
  const papers = await papersFor(house, materials);
  return writing(house.db, (trx) =>
    once(trx, key, 'issued label', now, async () => {
      const taken = (base: string) => takenIds(trx, 'issued_labels', base);
      const label: IssuedLabel = {
        id: await freeId(`${productId} ${market} ${today}`, 'label', taken),
        productId,
        market,
        issuedOn: today,
        product: product.name,
        content,
        school: settings.school,
        regime: standingOf(gathered, wrap, market).regime,
        format: settings.format,
        netMassG: netOf(gathered, wrap),
        batchCode: wrap.batchCode,
        ...(country === null ? {} : { country }),
        formula: version.formula,
        formulaRevision: version.revision,
        papers,
        rulebookEdition: rulebook().edition,
        verdict: assessment.markets.find((entry) => entry.market === market)!.verdict,
      };
      await addIssued(trx, label, file as Uint8Array);
      return label;
    }),
  );
}

/** How an issued label is printed again: to the byte as it was, or so many of it on sheets. */
export interface Reprint {
  as: 'pdf' | 'a4' | 'letter';
  /** Null for one sheet full. */
  copies: number | null;
}

/** Labels for the bars of a batch in quarantine are not printed before that is decided on; 422, 404 where there is no such label. */
export async function refuseWaiting({ db }: House, id: string): Promise<void> {
  const label = await findIssued(db, id);
  if (!label) throw fault(404, 'unknown-label', `There is no issued label "${id}".`, 'id');
  const batch = await findBatchByCode(db, label.batchCode);
  if (!batch?.isQuarantined) return;
  const message = `Batch ${batch.code} is in quarantine. Decide on it first, then print labels for its bars.`;
  throw fault(422, 'held', message, 'id');
}

/** The PDF of an issued label; 404 where there is none, 422 where not one fits on a sheet. */
export async function reprint(house: House, id: string, { as, copies }: Reprint): Promise<Uint8Array> {
  const pdf = await issuedPdf(house.db, id);
  if (!pdf) throw fault(404, 'unknown-label', `There is no issued label "${id}".`, 'id');
  if (as === 'pdf') return pdf;
  await refuseWaiting(house, id);
  const task = { pdf, sheet: as === 'a4' ? 'A4' : 'Letter', copies, title: `${id}, sheets` } as const;
  const sheets = await told(onThread('sheetsOfIssued', task), 'as');
  if (!sheets) throw fault(422, 'too-large', TOO_LARGE, 'as');
  return sheets;
}
