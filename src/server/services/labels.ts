/** Making a label from the saved formula: list, layout, PDF. */
import type { Knex } from 'knex';
import type { School } from '../../core/formula/answer';
import type { Market, RequestError } from '../../core/formula/types';
import { layoutBand, STANDARD_BAND } from '../../core/labels/band';
import { fault, HttpFault } from '../http';
import { fontMetrics } from '../labels/fonts';
import { layoutPdf } from '../labels/pdf';
import { findMaker } from '../repositories/settings';
import { assessProduct } from './products';

/** What a label is made for. */
export interface LabelOrder {
  market: Market;
  school: School;
  netMassG: number;
  batchCode: string;
}

/** Markets whose band layout is made so far; the others ask for elements it does not place yet. */
const BAND_MARKETS: readonly Market[] = ['EU'];

/** The label of a product as PDF. 422 with what is missing or does not fit; then no PDF is made. */
export async function labelPdf(db: Knex, productId: string, order: LabelOrder): Promise<Uint8Array> {
  if (!BAND_MARKETS.includes(order.market)) {
    const message = `Labels can be made for ${BAND_MARKETS.join(', ')} so far. Choose one of these.`;
    throw fault(422, 'market-without-label', message, 'market');
  }
  const { product, assessment } = await assessProduct(db, productId, order.market);
  const list = assessment.ingredients.find(({ school }) => school === order.school)!;
  const maker = await findMaker(db);
  const content = {
    name: product.name,
    identity: product.identity,
    ingredients: list.text,
    netMassG: order.netMassG,
    batchCode: order.batchCode,
    responsible: maker ? [maker.name, ...maker.addressLines] : [],
  };
  const layout = layoutBand(content, STANDARD_BAND, fontMetrics);
  if (layout.findings.length > 0) {
    const errors = layout.findings.map(({ element, code, message }): RequestError => ({
      path: element,
      code,
      message,
    }));
    throw new HttpFault(422, errors);
  }
  return layoutPdf(layout, `${product.name}, ${order.market}, batch ${order.batchCode}`);
}
