/** Names and notes full of markup, formulas and direction marks come out as they went in, and never as something else. */
import { expect } from 'chai';
import { strFromU8, unzipSync } from 'fflate';
import Papa from 'papaparse';
import { rangeTable } from '../../src/core/range/arrange';
import type { RangeData } from '../../src/core/records/range';
import { search } from '../../src/server/services/range/search';
import { createProduct } from '../../src/server/services/worktable/products';
import { call, caller } from './call';
import { useDemo } from './database';

const HOSTILE = [
  '<script>alert(1)</script>',
  '"><img src=x onerror=alert(1)>',
  "=HYPERLINK('http://elsewhere','x')",
  '+1+1',
  '-2+3',
  '@SUM(A1)',
  '{{constructor}} ${7*7}',
  "Robert'); drop table products; --",
  'a\u202Eb reversed',
  '../../etc/passwd',
  '%00%2e%2e',
  'CON',
  '🧼'.repeat(20),
];

/** What is kept of one: all but the mark that turns what comes after it. */
const kept = (text: string) => text.replace('\u202E', '');

const go = caller({
  range: () => import('../../src/pages/api/v1/range'),
  archive: () => import('../../src/pages/api/v1/archive'),
  bar: () => import('../../src/pages/api/v1/products/[id]/archive'),
  label: () => import('../../src/pages/api/v1/products/[id]/label'),
  details: () => import('../../src/pages/api/v1/products/[id]/details'),
});

/** A cell that a spreadsheet would reckon with. */
const isFormula = (cell: string) => /^[=+\-@\t\r]/.test(cell) && Number.isNaN(Number(cell));

describe('hostile texts', () => {
  const test = useDemo();
  const ids = new Map<string, string>();

  before(async () => {
    for (const text of HOSTILE) {
      const { id, revision } = await createProduct(test.house, { name: text });
      ids.set(text, id);
      const body = {
        ...{ revision, name: text, identity: text, note: text, collection: text.slice(0, 60) },
        ...{ markets: ['EU'], netMassG: null, batchCode: text.slice(0, 40), firstPlacedOn: {} },
      };
      await go('details', 'PUT', { params: { id }, body });
    }
  });

  it('get ids that are names of files and parts of addresses on every system', () => {
    for (const [text, id] of ids) expect(id, text).to.match(/^[a-z0-9]+(?:-[a-z0-9]+)*$/);
  });

  it('come out of the range as they went in but for marks that turn the direction, and into its CSV as texts', async () => {
    const { rows } = (await go<RangeData>('range', 'GET')).body;
    for (const [text, id] of ids) expect(rows.find((row) => row.id === id)!.name).to.equal(kept(text));
    const csv = Papa.unparse(
      rangeTable(
        rows,
        () => [],
        () => null,
      ),
      { escapeFormulae: true },
    );
    const { data, errors } = Papa.parse<string[]>(csv);
    expect(errors).to.deep.equal([]);
    expect(data.flat().filter(isFormula)).to.deep.equal([]);
    for (const text of HOSTILE)
      expect(
        data.some(([name]) => name === kept(text) || name === `'${text}`),
        text,
      ).to.equal(true);
  });

  it('go into an archive and its lists as texts, under safe names of files', async () => {
    const files = unzipSync(new Uint8Array((await go<ArrayBuffer>('archive', 'GET')).body));
    for (const [path, bytes] of Object.entries(files)) {
      expect(path).to.match(/^(?:[\w-]+\/)?[\w.-]+$/);
      if (!path.endsWith('.csv')) continue;
      const cells = Papa.parse<string[]>(strFromU8(bytes)).data.flat();
      expect(cells.filter(isFormula), path).to.deep.equal([]);
    }
    const products = JSON.parse(strFromU8(files['data/products.json']!)) as { name: string }[];
    expect(products.map(({ name }) => name)).to.include.members(HOSTILE.map(kept));
  });

  it('name a file to hand over without leaving its folder or breaking its header', async () => {
    for (const id of ids.values()) {
      const context = import('../../src/pages/api/v1/products/[id]/archive');
      const answer = await call(context as never, 'GET', `/api/v1/products/${id}/archive`, {}, { id });
      expect(answer.status, id).to.equal(200);
    }
  });

  it('are escaped on a label drawn as SVG and written as HTML', async () => {
    for (const as of ['svg', 'html']) {
      for (const [text, id] of ids) {
        const { status, body } = await go<ArrayBuffer>('label', 'GET', {
          params: { id },
          query: `?market=EU&as=${as}`,
        });
        expect(status, `${text} ${as}`).to.be.oneOf([200, 422]);
        if (status !== 200) continue;
        const drawn = new TextDecoder().decode(body);
        expect(drawn.toLowerCase(), text).to.not.match(/<script>alert|<img src=x/);
      }
    }
  });

  it('are searched for as words, whatever they mean to an index', async () => {
    for (const text of HOSTILE) expect(await search(test.house, text), text).to.be.an('array');
    const hits = await search(test.house, 'HYPERLINK elsewhere');
    expect(hits[0]!.id).to.equal(ids.get(HOSTILE[2]!));
    expect((await test.db('products').count({ count: '*' }))[0]).to.deep.equal({
      count: 10 + HOSTILE.length,
    });
  });
});
