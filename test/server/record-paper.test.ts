/** A batch's record on paper says masses and warmth as the house does. */
import { expect } from 'chai';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { SettingsData } from '../../src/core/records/house';
import { recordAsPdf } from '../../src/server/services/pour/batch-record';
import { caller } from './call';
import { useDemo } from './database';

const go = caller({ settings: () => import('../../src/pages/api/v1/settings') });

async function wordsOf(bytes: Uint8Array): Promise<string> {
  const document = await getDocument({ data: new Uint8Array(bytes) }).promise;
  const pages = await Promise.all(
    Array.from({ length: document.numPages }, async (_, at) => {
      const { items } = await (await document.getPage(at + 1)).getTextContent();
      return items.map((item) => ('str' in item ? item.str : '')).join(' ');
    }),
  );
  return pages.join(' ');
}

describe('the record on paper', () => {
  const test = useDemo();

  it('is in grams and Celsius, and in ounces and Fahrenheit with those beside where the house says so', async () => {
    const metric = await wordsOf((await recordAsPdf(test.house, 'nm-260930')).bytes);
    expect(metric)
      .to.match(/\d+(\.\d)? g/)
      .and.not.match(/ oz/);
    const { revision, currency, markets } = (await go<SettingsData>('settings', 'GET')).body;
    const body = { revision, currency, markets, weights: 'oz', degrees: 'F' };
    const put = await go('settings', 'PUT', { body });
    expect(put.status, JSON.stringify(put.body)).to.equal(200);
    const imperial = await wordsOf((await recordAsPdf(test.house, 'nm-260930')).bytes);
    expect(imperial).to.match(/\d+(\.\d+)?\soz \(\d/);
    if (/°C/.test(metric)) expect(imperial).to.match(/°F \(\d/);
  });
});
