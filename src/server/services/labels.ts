/** What leaves the wrap: PDFs, SVG, words for a shop, the product sheet, and issued labels that never change. */
import type { Knex } from 'knex';
import type { Market } from '../../core/formula/types';
import { rulebook } from '../../rulebook';
import { today } from '../config';
import { fault } from '../http';
import { layoutPdf, sheetPdf } from '../labels/pdf';
import { productSheetPdf } from '../labels/product-sheet';
import { layoutSvg } from '../labels/svg';
import { labelHtml, labelText } from '../labels/words';
import { addIssued, isIssued, issuedPdf, type IssuedLabel } from '../repositories/wraps';
import { freeId } from './ids';
import { labelFor, netOf, papersFor, printableLabel, standingOf, tooLargeForSheet } from './wrap';

export type LabelAs = 'pdf' | 'a4' | 'letter' | 'svg' | 'text' | 'html' | 'sheet' | 'sheet-ranges';

export interface LabelFile {
  mime: string;
  extension: string;
  body: Uint8Array | string;
}

async function sheetFile(db: Knex, productId: string, market: Market, inRanges: boolean): Promise<LabelFile> {
  const { gathered, content } = await labelFor(db, productId, market);
  const { product, version, assessment, materials, stored } = gathered;
  const body = await productSheetPdf({
    name: product.name,
    identity: product.identity,
    market,
    day: today(),
    rulebookEdition: rulebook().edition,
    formula: version.formula,
    assessment,
    materials,
    content,
    standing: standingOf(gathered, stored.wrap, market),
    papers: await papersFor(db, materials),
    inRanges,
  });
  return { mime: 'application/pdf', extension: 'pdf', body };
}

/** A label in a form that leaves the house; 422 with what stands in the way of a print. */
export async function labelFile(
  db: Knex,
  productId: string,
  market: Market,
  as: LabelAs,
): Promise<LabelFile> {
  if (as === 'sheet' || as === 'sheet-ranges') return sheetFile(db, productId, market, as === 'sheet-ranges');
  if (as === 'text' || as === 'html') {
    const { content } = await labelFor(db, productId, market);
    return as === 'text'
      ? { mime: 'text/plain; charset=utf-8', extension: 'txt', body: labelText(content) }
      : { mime: 'text/html; charset=utf-8', extension: 'html', body: labelHtml(content) };
  }
  const { layout, title, pictures } = await printableLabel(db, productId, market);
  if (as === 'svg')
    return { mime: 'image/svg+xml', extension: 'svg', body: layoutSvg(layout, title, pictures, false) };
  const body =
    as === 'pdf'
      ? await layoutPdf(layout, title, pictures)
      : await sheetPdf(layout, title, as === 'a4' ? 'A4' : 'Letter', pictures);
  if (!body) throw tooLargeForSheet();
  return { mime: 'application/pdf', extension: 'pdf', body };
}

/** Issues a label: freezes its words, layout, formula, papers and PDF. 422 with what stands in the way. */
export async function issueLabel(db: Knex, productId: string, market: Market): Promise<IssuedLabel> {
  const { layout, title, pictures, content, gathered } = await printableLabel(db, productId, market);
  const { product, version, assessment, materials, stored } = gathered;
  const { wrap } = stored;
  const settings = wrap.markets[market];
  if (!settings) throw fault(422, 'no-format', 'Choose a shape for this market first.', 'market');
  const id = await freeId(`${productId} ${market} ${today()}`, 'label', (one) => isIssued(db, one));
  const label: IssuedLabel = {
    id,
    productId,
    market,
    issuedOn: today(),
    product: product.name,
    content,
    school: settings.school,
    regime: standingOf(gathered, wrap, market).regime,
    format: settings.format,
    netMassG: netOf(gathered, wrap),
    batchCode: wrap.batchCode,
    formula: version.formula,
    formulaRevision: version.revision,
    papers: await papersFor(db, materials),
    rulebookEdition: rulebook().edition,
    verdict: assessment.markets.find((entry) => entry.market === market)!.verdict,
  };
  await addIssued(db, label, await layoutPdf(layout, title, pictures));
  return label;
}

/** The PDF of an issued label, to the byte as it was issued; 404 where there is none. */
export async function reprint(db: Knex, id: string): Promise<Uint8Array> {
  const pdf = await issuedPdf(db, id);
  if (!pdf) throw fault(404, 'unknown-label', `There is no issued label "${id}".`, 'id');
  return pdf;
}
