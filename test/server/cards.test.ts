/** A batch told to whoever buys it: page, stall's card, rows and data, and the code on its label, read back by another reader. */
import { expect } from 'chai';
import jsQR from 'jsqr';
import Papa from 'papaparse';
import type { CardPart } from '../../src/core/labels/card';
import type { Layout } from '../../src/core/labels/layout';
import type { PricingData } from '../../src/core/records/pricing';
import type { Wrap } from '../../src/core/records/wrap';
import { findSetting, putSetting } from '../../src/server/repositories/settings';
import { labelFile } from '../../src/server/services/wrap/labels';
import { gather, labelFor, saveProductWrap } from '../../src/server/services/wrap/wrap';
import { listBatches } from '../../src/server/store/batches';
import { caller } from './call';
import { useDemo } from './database';

const go = caller({
  label: () => import('../../src/pages/api/v1/products/[id]/label/index'),
  price: () => import('../../src/pages/api/v1/products/[id]/price'),
  settings: () => import('../../src/pages/api/v1/settings'),
});

const PX_PER_MM = 8;

/** What a camera would read from the dark squares of a label; null where there is nothing to read. */
function readCode({ bars, widthMm, heightMm }: Layout): string | null {
  const [width, height] = [Math.ceil(widthMm * PX_PER_MM), Math.ceil(heightMm * PX_PER_MM)];
  const pixels = new Uint8ClampedArray(4 * width * height).fill(255);
  for (const bar of bars) {
    const [left, right] = [bar.xMm, bar.xMm + bar.widthMm].map((mm) => Math.round(mm * PX_PER_MM));
    const [top, bottom] = [bar.yMm, bar.yMm + bar.heightMm].map((mm) => Math.round(mm * PX_PER_MM));
    for (let y = top!; y < bottom!; y++)
      for (let x = left!; x < right!; x++) pixels.fill(0, 4 * (y * width + x), 4 * (y * width + x) + 3);
  }
  return jsQR(pixels, width, height)?.data ?? null;
}

describe('a batch for the buyer', () => {
  const demo = useDemo();
  const ID = 'night-mail';
  const released = async () =>
    (await listBatches(demo.house, { state: null, product: ID })).find(({ state }) => state === 'released')!;
  const ask = async (as: string, batch: string | null, market = 'EU') => {
    const query = `?market=${market}&as=${as}${batch === null ? '' : `&batch=${batch}`}`;
    const answer = await go<ArrayBuffer & { errors: { path: string }[] }>('label', 'GET', {
      params: { id: ID },
      query,
    });
    const { body } = answer;
    const text = body instanceof ArrayBuffer ? Buffer.from(body).toString('utf8') : String(body);
    return { ...answer, text };
  };
  const change = async (more: Partial<Wrap>) => {
    const { revision, wrap } = (await gather(demo.house, ID)).stored;
    await saveProductWrap(demo.house, ID, revision, { ...wrap, ...more });
  };
  const show = (shown: CardPart[]) => change({ card: { shown } });

  it('is one static page of what was chosen and nothing else', async () => {
    const { id, code } = await released();
    await change({ description: 'Coal & violets <for> the night.' });
    await show(['description', 'ingredients', 'cured', 'batch']);
    const { text } = await ask('card', id);
    const file = await labelFile(demo.house, ID, 'EU', 'card', { batch: id });
    expect(file.name).to.equal(`${code.toLowerCase()}.html`);
    expect(text).to.contain('Coal &amp; violets &lt;for&gt; the night.');
    expect(text)
      .to.contain(code)
      .and.to.match(/Cured for \d+ days/);
    expect(text).not.to.match(/<script|<img|<link|src=|href=|@import|url\(/i);
    expect(text.match(/data-part="(\w+)"/g)).to.deep.equal([
      'data-part="description"',
      'data-part="ingredients"',
      'data-part="cured"',
      'data-part="batch"',
    ]);
    await show(['ingredients']);
    const less = (await ask('card', id)).text;
    expect(less).not.to.contain(code);
    expect(less).not.to.contain('Coal &amp;');
  });

  it('tells the days from its pour to its release, its lightest bar, and the list as weighed', async () => {
    const { id } = await released();
    const { ofBatch, assessment } = await gather(demo.house, ID, id);
    const days = (Date.parse(ofBatch!.releasedOn!) - Date.parse(ofBatch!.madeOn)) / 86_400_000;
    await show(['cured', 'lightest', 'ingredients', 'net']);
    const { text } = await ask('card-text', id);
    expect(text).to.contain(`Cured for ${days} days`);
    expect(text).to.contain(`Lightest bar: ${Math.floor(ofBatch!.lightestG!)} g`);
    const list = assessment.ingredients.find(({ market, school }) => market === 'EU' && school === 'formed')!;
    expect(text).to.contain(list.text);
  });

  it('comes as a row for a shop, as data with price and mass, and as a card for the stall', async () => {
    const { id, code } = await released();
    await show(['net', 'price', 'batch']);
    const { revision, pricing } = (await go<PricingData>('price', 'GET', { params: { id: ID } })).body;
    const body = { revision, ...pricing, price: 7.5 };
    expect((await go('price', 'PUT', { params: { id: ID }, body })).status).to.equal(200);
    expect((await go('price', 'PUT', { params: { id: ID }, body })).status).to.equal(409);
    const rows = Papa.parse<Record<string, string>>((await ask('card-csv', id)).text, { header: true }).data;
    expect(rows[0]).to.include({ name: 'Night Mail', description: '', ingredients: '' });
    expect(rows[0]!.price).to.match(/7\.50/);
    const data = (await ask('card-data', id)).body as unknown as Record<string, object>;
    expect(data.offers).to.deep.equal({ '@type': 'Offer', price: '7.50', priceCurrency: 'EUR' });
    expect(data.weight).to.include({ unitCode: 'GRM' });
    expect(JSON.stringify(data)).to.contain(code).and.not.to.contain('ngredients');
    const stall = (await ask('price', id)).text;
    expect(stall).to.contain('€7.50').and.to.contain('Ingredients');
  });

  it('is of a batch: without one it is refused, as is an address that is none', async () => {
    const none = await ask('card', null);
    expect([none.status, none.body.errors[0]!.path]).to.deep.equal([422, 'batch']);
    const { id } = await released();
    const nowhere = await ask('qr', id);
    expect([nowhere.status, nowhere.body.errors[0]!.path]).to.deep.equal([422, 'as']);
    const { revision, value } = await findSetting(demo.db, 'house');
    for (const cardsAt of [
      'signalbox',
      'ftp://a/b',
      'https://a b',
      `https://x/${'y'.repeat(90)}`,
      'https://a/?b',
    ]) {
      const body = { revision, currency: 'EUR', ...value, cardsAt };
      const answer = await go<{ errors: { path: string }[] }>('settings', 'PUT', { body });
      expect([answer.status, answer.body.errors[0]!.path], cardsAt).to.deep.equal([422, 'cardsAt']);
    }
  });

  it('is where the code on its label leads, as a camera reads it; a label without an address says so', async () => {
    const { id, code } = await released();
    await change({ barcode: 'page' });
    const made = () => labelFor(demo.house, ID, 'EU', 'layout', { batch: id });
    expect((await made()).layout.findings.map(({ message }) => message).join()).to.contain(
      'Say it in the House',
    );
    const { value } = await findSetting(demo.db, 'house');
    await putSetting(demo.db, 'house', { ...value, cardsAt: 'https://signalbox.example/batches/' });
    const { layout } = await made();
    expect(layout.findings.filter(({ element }) => element === 'barcode')).to.deep.equal([]);
    expect(readCode(layout)).to.equal(`https://signalbox.example/batches/${code.toLowerCase()}.html`);
    const { text } = await ask('qr', id);
    expect(text).to.match(/^<svg/);
  });
});
