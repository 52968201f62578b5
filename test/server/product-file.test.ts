/** The product's file: every market's, with what is missing first, the same bytes twice, papers and labels along. */
import { createHash } from 'node:crypto';
import { expect } from 'chai';
import { strFromU8, unzipSync } from 'fflate';
import type { ProductFile } from '../../src/core/file/types';
import { MARKETS } from '../../src/core/formula/types';
import type { StatedComplaint } from '../../src/core/records/complaints';
import type { Wrap } from '../../src/core/records/wrap';
import { issuedPdf } from '../../src/server/repositories/wraps';
import { gather } from '../../src/server/services/wrap/wrap';
import { writeComplaint } from '../../src/server/services/watch/complaints';
import { readPdfText } from '../support/pdf-text';
import { caller } from './call';
import { DAY, useDemo } from './database';

const go = caller({
  file: () => import('../../src/pages/api/v1/products/[id]/file'),
  wrap: () => import('../../src/pages/api/v1/products/[id]/wrap'),
});

describe('the product’s file', () => {
  const demo = useDemo();
  const ask = (id: string, market: string) =>
    go<ProductFile & { errors: { path: string }[] }>('file', 'GET', {
      params: { id },
      query: `?market=${market}`,
    });
  const bytesOf = async (id: string, as: string) =>
    Buffer.from(
      (await go<ArrayBuffer>('file', 'GET', { params: { id }, query: `?market=EU&as=${as}` })).body,
    );

  it('tells for every market what is on file, and what is missing first', async () => {
    for (const market of MARKETS) {
      const { status, body } = await ask('goods-yard', market);
      expect(status, market).to.equal(200);
      expect(body.sections).to.have.length(11);
      expect(body.missing).to.deep.equal(body.sections.flatMap(({ missing }) => missing));
      expect(body.isNot).to.match(/no safety assessment/);
    }
    const { body } = await ask('night-mail', 'EU');
    const of = (id: string) => body.sections.find((one) => one.id === id)!;
    const formula = of('formula').tables[0]!.rows;
    const batter = formula.reduce((sum, row) => sum + Number.parseFloat(row.at(-1)!), 0);
    expect(batter).to.be.closeTo(100, 0.05);
    expect(of('batches').tables[0]!.rows.length).to.be.above(2);
    expect(of('stability').tables[0]!.rows.length).to.be.above(1);
    expect((await ask('none', 'EU')).status).to.equal(404);
    expect((await ask('night-mail', 'XX')).body.errors[0]!.path).to.equal('market');
  });

  it('names what is wrong the moment it is so: a complaint, a scent without papers', async () => {
    const before = (await ask('goods-yard', 'EU')).body;
    const stated: StatedComplaint = {
      ...{
        heardOn: DAY,
        code: null,
        product: 'goods-yard',
        market: 'EU',
        kind: 'effect',
        gravity: 'serious',
      },
      ...{ what: 'Eyelids swollen.', who: '', done: '', closedOn: null },
    };
    await writeComplaint(demo.house, stated);
    const after = (await ask('goods-yard', 'EU')).body;
    expect(after.missing.length).to.equal(before.missing.length + 1);
    const heard = after.sections.find(({ id }) => id === 'complaints')!;
    expect(heard.tables[0]!.rows[0]!.join(' ')).to.include('Eyelids swollen.');
    expect(heard.lines.join(' ')).to.include('2026-12-14');
  });

  it('tells what each claim wants as evidence, and where the maker noted it', async () => {
    const path = { params: { id: 'goods-yard' } };
    const { wrap, revision } = (await gather(demo.house, 'goods-yard')).stored;
    const put = (revision: number, more: Partial<Wrap>) =>
      go<{ saved: { revision: number } }>('wrap', 'PUT', {
        ...path,
        body: { revision, wrap: { ...wrap, ...more } },
      });
    const told = async () => {
      const { sections } = (await ask('goods-yard', 'EU')).body;
      const { tables, missing } = sections.find(({ id }) => id === 'claims')!;
      return { row: tables[0]!.rows.find(([words]) => words === '“Softens skin”')!, missing };
    };
    const back = 'Softens skin.';
    const first = await put(revision, { back });
    expect(first.status).to.equal(200);
    expect((await told()).row[2]).to.match(/^none noted; wanted: what it does, shown on the finished bar/);
    expect((await told()).missing.join()).to.contain('Evidence for “Softens skin”');
    const says = 'Trial of 24 people, folder C';
    const noted = await put(first.body.saved.revision, { back, evidence: [{ words: 'softens skin', says }] });
    expect(noted.status).to.equal(200);
    expect((await told()).row[2]).to.equal(says);
    expect((await told()).missing.join()).not.to.contain('Softens');
    const wrong = await put(noted.body.saved.revision, { back, evidence: [{ words: '', says }] });
    expect(wrong.status).to.equal(422);
  });

  it('is one PDF with an index of pages, and a ZIP with labels to the byte, both the same twice', async () => {
    const pdf = await bytesOf('goods-yard', 'pdf');
    expect(pdf.equals(await bytesOf('goods-yard', 'pdf'))).to.equal(true);
    const pages = await readPdfText(pdf);
    expect(pages[0]).to.match(/Missing: \d+/);
    // Each line of the index names the page on which its section begins.
    const lines = [...pages.join('\n').matchAll(/^ ?(\d+)\. (.+?)\s+page (\d+)$/gm)];
    expect(lines).to.have.length(11);
    for (const [, number, title, page] of lines)
      expect(pages[Number(page) - 1], title).to.include(`${number}. ${title}`);
    const zip = await bytesOf('goods-yard', 'zip');
    expect(zip.equals(await bytesOf('goods-yard', 'zip'))).to.equal(true);
    const files = unzipSync(new Uint8Array(zip));
    const sums = strFromU8(files['sums-sha256.txt']!).trim().split('\n');
    for (const line of sums) {
      const [sum, name] = line.split('  ');
      expect(createHash('sha256').update(files[name!]!).digest('hex'), name).to.equal(sum);
    }
    const labels = Object.keys(files).filter((name) => name.startsWith('labels/'));
    expect(labels.length).to.be.above(0);
    const issued = await issuedPdf(demo.db, labels[0]!.slice('labels/'.length, -'.pdf'.length));
    expect(Buffer.from(files[labels[0]!]!).equals(Buffer.from(issued!))).to.equal(true);
  });
});
