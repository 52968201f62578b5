/** Labels as they leave the house: every demo bar in every market, read back from the PDF by another reader. */
import type { APIRoute } from 'astro';
import { expect } from 'chai';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { MARKETS, type Market } from '../../src/core/formula/types';
import { leastDigits, leastLetters } from '../../src/core/labels/heights';
import { planFormat, USUAL_FORMATS } from '../../src/core/labels/formats';
import { demoProducts } from '../../src/demo/bars';
import { fontMetrics } from '../../src/server/labels/fonts';
import { findProduct } from '../../src/server/repositories/products';
import { saveProductFormula } from '../../src/server/services/worktable/products';
import { addDocument } from '../../src/server/repositories/materials';
import type { Wrap } from '../../src/core/records/wrap';
import { findWrap } from '../../src/server/repositories/wraps';
import { issueLabel, labelFile } from '../../src/server/services/wrap/labels';
import { wrapData, wrapOpened } from '../../src/server/services/wrap/desk';
import { saveProductWrap } from '../../src/server/services/wrap/wrap';
import { listBatches } from '../../src/server/store/batches';
import { call, sending } from './call';
import { DAY, useDemo } from './database';

const MM_PER_PT = 25.4 / 72;
/** Trim starts this far from the page's corner: bleed, gap and cut mark, millimetres. */
const EDGE_MM = 8;

describe('labels over the demo', () => {
  const test = useDemo();

  afterEach(() => {
    process.env.PROPORTIA_TODAY = DAY;
  });

  type Routes = Promise<{ [method: string]: APIRoute }>;
  const wrapRoute = () => import('../../src/pages/api/v1/products/[id]/wrap') as never as Routes;
  const labelRoute = () => import('../../src/pages/api/v1/products/[id]/label/index') as never as Routes;
  const previewRoute = () => import('../../src/pages/api/v1/products/[id]/label/preview') as never as Routes;
  const issuedRoute = () => import('../../src/pages/api/v1/products/[id]/issued') as never as Routes;
  const reprintRoute = () => import('../../src/pages/api/v1/labels/[id]') as never as Routes;
  const logoRoute = () => import('../../src/pages/api/v1/logo') as never as Routes;

  async function change(productId: string, part: Partial<Wrap>): Promise<void> {
    const { revision, wrap } = (await findWrap(test.db, productId))!;
    await saveProductWrap(test.house, productId, revision, { ...wrap, ...part });
  }

  interface Piece {
    text: string;
    xMm: number;
    yMm: number;
    widthMm: number;
    sizeMm: number;
  }

  async function readBack(bytes: Uint8Array) {
    const pdf = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
    const page = await pdf.getPage(1);
    const view = page.view.map((side) => side * MM_PER_PT);
    const { items } = await page.getTextContent();
    const pieces = items.flatMap((item): Piece[] =>
      'str' in item && item.str.trim()
        ? [
            {
              text: item.str,
              xMm: (item.transform[4] as number) * MM_PER_PT,
              yMm: view[3]! - (item.transform[5] as number) * MM_PER_PT,
              widthMm: item.width * MM_PER_PT,
              sizeMm: Math.abs(item.transform[3] as number) * MM_PER_PT,
            },
          ]
        : [],
    );
    const { fnArray, argsArray } = await page.getOperatorList();
    const fonts = new Set(
      fnArray.flatMap((fn, index) => (fn === OPS.setFont ? [(argsArray[index] as [string])[0]] : [])),
    );
    const embedded = [...fonts].map(
      (name) => page.commonObjs.get(name) as { missingFile?: boolean; name: string },
    );
    return { pieces, widthMm: view[2]!, heightMm: view[3]!, embedded, pages: pdf.numPages };
  }

  const squeeze = (text: string) => text.replace(/\s+/g, '');

  const FACE = { widthMm: 80, heightMm: 55 };

  describe('labels of the ten demo bars in five markets', () => {
    for (const { product } of demoProducts(DAY)) {
      it(`${product.name}: made, read back, high enough, embedded, within the trim`, async () => {
        for (const market of MARKETS) {
          const wide = { shape: 'band' as const, widthMm: 230, heightMm: 70, marginMm: 3, face: FACE };
          const { wrap } = (await findWrap(test.db, product.id))!;
          const school = wrap.markets[market]!.school;
          const net = wrap.netMassG ?? 88;
          await change(product.id, {
            netMassG: net,
            markets: { ...wrap.markets, [market]: { school, format: wide } },
          });
          const { body } = await labelFile(test.house, product.id, market, 'pdf');
          const { pieces, widthMm, heightMm, embedded } = await readBack(body as Uint8Array);
          const { assessment } = await wrapData(test.house, product.id);
          const list = assessment.ingredients.find((one) => one.market === market && one.school === school)!;
          expect(squeeze(pieces.map(({ text }) => text).join('')), market).to.contain(squeeze(list.text));
          expect(widthMm).to.be.closeTo(wide.widthMm + 2 * EDGE_MM, 0.01);
          const plan = planFormat(wide);
          const letters = leastLetters(market, plan, 'band').mm;
          const digits = leastDigits(market, net, plan).mm;
          // Of no batch: its paper says so, on the page and outside the trim.
          const note = pieces.find(({ text }) => text.startsWith('DRAFT'))!;
          expect(
            [note.xMm, note.yMm].every((mm) => mm > 0 && mm < EDGE_MM),
            `${note.xMm} ${note.yMm}`,
          ).to.equal(true);
          for (const piece of pieces.filter((one) => one !== note)) {
            expect(piece.xMm, piece.text).to.be.at.least(EDGE_MM);
            expect(piece.xMm + piece.widthMm, piece.text).to.be.at.most(widthMm - EDGE_MM + 0.01);
            expect(piece.yMm, piece.text).to.be.within(EDGE_MM, heightMm - EDGE_MM);
            const isNet = /\d g\b/.test(piece.text) && piece.text.length < 24 && !piece.text.includes(',');
            const heightMmOf = isNet
              ? piece.sizeMm * fontMetrics.digitHeight('strong')
              : piece.sizeMm * fontMetrics.xHeight('text');
            expect(heightMmOf, piece.text).to.be.at.least((isNet ? digits : letters) - 1e-3);
          }
          expect(embedded.length).to.be.above(0);
          expect(embedded.some(({ missingFile }) => missingFile)).to.equal(false);
        }
      });
    }

    it('fill a sheet of A4 or Letter with cut marks, or say that not one fits', async () => {
      const { wrap } = (await findWrap(test.db, 'night-mail'))!;
      const sticker = { ...wrap.markets, EU: { school: 'added' as const, format: USUAL_FORMATS.sticker } };
      await change('night-mail', { markets: sticker });
      const { pieces } = await readBack(
        (await labelFile(test.house, 'night-mail', 'EU', 'a4')).body as Uint8Array,
      );
      expect(pieces.filter(({ text }) => text.startsWith('86 g')).length).to.equal(8);
      expect(pieces.some(({ text }) => text.includes('DRAFT'))).to.equal(true);
      await labelFile(test.house, 'night-mail', 'EU', 'letter');
      const large = { shape: 'sticker' as const, widthMm: 400, heightMm: 300, marginMm: 3 };
      await change('night-mail', { markets: { ...wrap.markets, EU: { school: 'added', format: large } } });
      const fault = await labelFile(test.house, 'night-mail', 'EU', 'a4').catch(
        (error: { status: number }) => error.status,
      );
      expect(fault).to.equal(422);
      await change('night-mail', { markets: wrap.markets });
    });

    it('go out as SVG without text to guess, as text, as HTML, and as a product sheet', async () => {
      const of = async (as: Parameters<typeof labelFile>[3]) =>
        labelFile(test.house, 'first-light', 'EU', as);
      const svg = String((await of('svg')).body);
      expect(svg).to.match(/^<svg xmlns="http:\/\/www.w3.org\/2000\/svg" width="\d+mm"/);
      expect(svg).to.not.contain('<text').and.to.not.contain('<script');
      expect(String((await of('text')).body))
        .to.contain('First Light\n')
        .and.to.contain('Ingredients: ');
      expect(String((await of('html')).body)).to.contain('<h2>First Light</h2>');
      const sheet = await readBack((await of('sheet')).body as Uint8Array);
      const words = sheet.pieces.map(({ text }) => text).join(' ');
      expect(words).to.contain('NB-220').and.to.contain('Sodium Hydroxide').and.to.contain('category 9');
      const ranges = await readBack((await of('sheet-ranges')).body as Uint8Array);
      expect(ranges.pieces.map(({ text }) => text).join(' ')).to.contain('25 to 50 %');
    });
  });

  describe('allergens around the dates of the lists', () => {
    const named = async (market: Market, day: string) => {
      const { assessment } = await wrapData({ ...test.house, today: day }, 'first-light');
      return assessment.ingredients
        .find((one) => one.market === market && one.school === 'added')!
        .text.includes('Anethole');
    };

    it('are those of the day before, and of the day', async () => {
      // In the EU the units count, however old the bar is; in Canada the bar, which is new on the day looked at.
      expect(await named('EU', '2026-07-30')).to.equal(false);
      expect(await named('EU', '2026-07-31')).to.equal(true);
      expect(await named('CA', '2026-07-31')).to.equal(false);
      expect(await named('CA', '2026-08-01')).to.equal(true);
      expect(await named('UK', '2030-01-01')).to.equal(false);
      expect(await named('US', '2030-01-01')).to.equal(false);
    });
  });

  /** So many of an issued label on sheets; one that nobody can count is refused. */
  async function sheetsOf(id: string): Promise<void> {
    const get = (query: string) => call(reprintRoute(), 'GET', `/?${query}`, {}, { id });
    const read = async (query: string) =>
      readBack(new Uint8Array((await get(query)).body as unknown as ArrayBuffer));
    const full = await read('as=a4');
    const perSheet = full.pieces.filter(({ text }) => text.startsWith('86 g')).length;
    expect(perSheet).to.be.greaterThan(1);
    expect([full.pages, full.pieces.some(({ text }) => text.includes('DRAFT'))]).to.deep.equal([1, false]);
    expect((await read(`as=a4&copies=${perSheet + 1}`)).pages).to.equal(2);
    const few = await read('as=letter&copies=1');
    expect(few.pieces.filter(({ text }) => text.startsWith('86 g'))).to.have.length(1);
    expect(few.embedded.some(({ missingFile }) => missingFile)).to.equal(false);
    for (const wrong of ['copies=0', 'copies=1.5', 'copies=x', 'copies=99999', 'as=png'])
      expect((await get(wrong)).status, wrong).to.equal(422);
  }

  describe('issued labels', () => {
    it('reprint to the byte after formula, paper and day have changed, and tell what would differ', async () => {
      const params = { id: 'night-mail' };
      const issued = await call(
        issuedRoute(),
        'POST',
        '/',
        sending(JSON.stringify({ market: 'EU' })),
        params,
      );
      expect(issued.status).to.equal(201);
      const label = issued.body as unknown as {
        id: string;
        papers: { number: string }[];
        rulebookEdition: string;
      };
      expect(label.papers.map(({ number }) => number)).to.include('BA-1407');
      await sheetsOf(label.id);
      const print = async () =>
        Buffer.from(
          (await call(reprintRoute(), 'GET', '/', {}, { id: label.id })).body as unknown as ArrayBuffer,
        );
      const first = await print();
      expect((await wrapData(test.house, 'night-mail')).issued[0]!.differs).to.deep.equal([]);

      const { version } = (await findProduct(test.db, 'night-mail'))!;
      const lines = version.formula.lines.map((line) =>
        line.material === 'grey-clay' ? { ...line, material: 'kaolin' } : line,
      );
      lines.push({
        ...lines[0]!,
        id: 'new',
        material: 'honey',
        stage: 'trace',
        amount: { value: 2, unit: '%fats' },
      });
      await saveProductFormula(test.house, 'night-mail', version.revision, { ...version.formula, lines });
      await addDocument(test.db, {
        id: 'cert-later',
        materialId: 'coal-and-violets',
        type: 'certificate',
        number: 'BA-1600',
        edition: '52nd',
        issuedOn: '2027-01-01',
        issuer: 'Brackwater Aromatics',
        maxPct: 2,
      });
      process.env.PROPORTIA_TODAY = '2028-08-01';
      expect((await print()).equals(first)).to.equal(true);
      const [frozen] = (await wrapData({ ...test.house, today: '2028-08-01' }, 'night-mail')).issued;
      expect(frozen!.differs.join()).to.contain('ingredients').and.to.contain('tight then and over now');
      expect(frozen!.papers.map(({ number }) => number)).to.not.include('BA-1600');
      await test.db('documents').where('id', 'cert-later').delete();
      const again = (await findProduct(test.db, 'night-mail'))!.version;
      await saveProductFormula(test.house, 'night-mail', again.revision, version.formula);
      expect((await call(reprintRoute(), 'GET', '/', {}, { id: 'nothing' })).status).to.equal(404);
    });

    it('are refused while anything stands in the way of a print', async () => {
      await change('branch-line', { netMassG: null, batchCode: '' });
      const refused = await call(issuedRoute(), 'POST', '/', sending('{"market":"EU"}'), {
        id: 'branch-line',
      });
      expect(refused.status).to.equal(422);
      expect(refused.body).to.have.nested.property('errors[0].path', 'batch');
      const odd = await call(issuedRoute(), 'POST', '/', sending('{"market":"MOON"}'), { id: 'branch-line' });
      expect(odd.status).to.equal(422);
    });
  });

  describe('the wrap as it opens', () => {
    it('is for the newest batch without a label, none held back, for the formula by its word, for another where asked', async () => {
      const open = (asked: string | null) => wrapOpened(test.house, 'first-light', asked);
      const first = (await open(null)).batch!;
      const [poured] = await listBatches(test.house, { state: null, product: 'first-light' });
      expect(first.code).to.equal(poured!.code);
      expect((await open('draft')).batch).to.equal(null);
      expect((await wrapOpened(test.house, 'night-mail', null)).batch!.code, 'held').to.equal('NM-260930');
      expect((await open('fl-261014')).batch!.code).to.equal('FL-261014');
      await issueLabel(test.house, 'first-light', 'EU', null, { batch: first.id });
      const next = await open(null);
      expect(next.batch!.code).to.not.equal(first.code);
      expect(next.batches.find(({ code }) => code === 'FL-261014')!.bars).to.be.greaterThan(0);
      // What becomes of the formula is nothing to bars that were made before.
      const { version } = (await findProduct(test.db, 'first-light'))!;
      const honey = {
        id: 'new',
        material: 'honey',
        stage: 'trace',
        amount: { value: 2, unit: '%fats' },
      } as const;
      const lines = [...version.formula.lines, honey];
      await saveProductFormula(test.house, 'first-light', version.revision, { ...version.formula, lines });
      for (const asked of [null, 'draft', 'fl-261014'])
        expect(
          (await open(asked)).issued.find(({ batchCode }) => batchCode === first.code)!.differs,
        ).to.deep.equal([]);
      const after = (await findProduct(test.db, 'first-light'))!.version;
      await saveProductFormula(test.house, 'first-light', after.revision, version.formula);
    });
  });

  describe('the wrap over HTTP', () => {
    const params = { id: 'waiting-room' };
    const preview = async (part: object, market = 'EU') => {
      const { wrap } = (await findWrap(test.db, 'waiting-room'))!;
      const body = JSON.stringify({ market, wrap: { ...wrap, ...part } });
      return call(previewRoute(), 'POST', '/', sending(body), params);
    };
    const findings = async (part: object) => {
      const { body } = await preview(part);
      return (body as unknown as { findings: { element: string; code: string }[] }).findings.map(
        ({ element, code }) => `${element} ${code}`,
      );
    };

    it('saves from a revision, refuses what is stale or malformed, and loses nothing', async () => {
      const { revision, wrap } = (await findWrap(test.db, 'waiting-room'))!;
      const put = (body: object) => call(wrapRoute(), 'PUT', '/', sending(JSON.stringify(body)), params);
      expect((await put({ revision, wrap: { ...wrap, back: 'Keep dry.' } })).status).to.equal(200);
      const late = await put({ revision, wrap });
      expect(late.status).to.equal(409);
      expect(late).to.have.nested.property('body.stale.wrap.back', 'Keep dry.');
      const path = async (part: object) => {
        const { status, body } = await put({ revision: revision + 1, wrap: { ...wrap, ...part } });
        return `${status} ${(body as unknown as { errors?: { path: string }[] }).errors?.[0]?.path}`;
      };
      expect(await path({ look: { ...wrap.look, paper: 'red' } })).to.equal('422 wrap.look.paper');
      expect(await path({ look: { ...wrap.look, paper: '"><script>' } })).to.equal('422 wrap.look.paper');
      expect(await path({ weighedG: [-1] })).to.equal('422 wrap.weighedG');
      expect(await path({ durability: { months: 24, endsOn: 'soon' } })).to.equal(
        '422 wrap.durability.endsOn',
      );
      expect(await path({ markets: { EU: { school: 'new', format: USUAL_FORMATS.band } } })).to.equal(
        '422 wrap.markets.EU.school',
      );
      expect((await put({ revision: 0 })).status).to.equal(422);
      expect((await call(wrapRoute(), 'GET', '/', {}, { id: 'nowhere' })).status).to.equal(404);
    });

    it('answers odd words and sizes with findings, never with a fault of its own', async () => {
      const roomy = { shape: 'sticker', widthMm: 140, heightMm: 110, marginMm: 3 };
      expect(await findings({ back: '🧼 صابون 石鹸' })).to.include('text cannot-draw');
      expect(
        await findings({
          markets: {
            EU: { school: 'formed', format: { shape: 'band', widthMm: 40, heightMm: 20, marginMm: 2 } },
          },
        }),
      ).to.include('ingredients does-not-fit');
      expect(
        await findings({
          markets: {
            EU: { school: 'formed', format: { shape: 'band', widthMm: 1, heightMm: 1, marginMm: 50 } },
          },
        }),
      ).to.deep.equal(['format format']);
      expect(await findings({ barcode: 'gtin', gtin: '4006381333932' })).to.deep.equal(['barcode barcode']);
      expect(await findings({ barcode: 'batch', batchCode: '' })).to.include('barcode barcode');
      expect(
        await findings({
          barcode: 'batch',
          batchCode: 'WR-1',
          markets: { EU: { school: 'formed', format: roomy } },
        }),
      ).to.deep.equal([]);
      expect(
        await findings({
          barcode: 'gtin',
          gtin: '4006381333931',
          markets: { EU: { school: 'formed', format: roomy } },
        }),
      ).to.deep.equal([]);
      const low = {
        EU: { school: 'formed', format: { shape: 'band', widthMm: 160, heightMm: 30, marginMm: 2 } },
      };
      expect(await findings({ back: 'word '.repeat(390), markets: low })).to.include('text does-not-fit');
      expect(
        await findings({ look: { paper: '#ffffff', ink: '#dddddd', nameFace: 'text', logo: false } }),
      ).to.include('look contrast');
      expect((await preview({ back: 'x'.repeat(3000) })).status).to.equal(422);
      expect((await preview({}, 'MOON')).status).to.equal(422);
    });

    it('downloads only what it knows how to make', async () => {
      const get = async (query: string, id = 'waiting-room') =>
        (await call(labelRoute(), 'GET', `/?${query}`, {}, { id })).status;
      expect(await get('market=EU&as=pdf')).to.equal(200);
      expect(await get('market=EU&as=exe')).to.equal(422);
      expect(await get('as=pdf')).to.equal(422);
      expect(await get('market=EU&as=pdf', 'nowhere')).to.equal(404);
    });

    it('takes a PNG or a plain SVG as the maker’s picture, and nothing that could be executed', async () => {
      const png = Buffer.from(
        'iVBORw0KGgoAAAANSUhEUgAAAAIAAAABCAIAAAB7QOjdAAAADElEQVR4nGNgYGAAAAAEAAH2FzhVAAAAAElFTkSuQmCC',
        'base64',
      );
      const put = async (body: Uint8Array | string, type: string) =>
        (await call(logoRoute(), 'PUT', '/', { body: body as BodyInit, headers: { 'content-type': type } }))
          .status;
      expect(await put('<svg onload="alert(1)"/>', 'image/svg+xml')).to.equal(422);
      expect(
        await put(
          '<!DOCTYPE svg [<!ENTITY x "y">]><svg viewBox="0 0 1 1"><path d="M0 0"/></svg>',
          'image/svg+xml',
        ),
      ).to.equal(422);
      expect(await put('no picture', 'image/svg+xml')).to.equal(422);
      expect(await put('{}', 'application/json')).to.equal(415);
      expect(await put(png.subarray(0, 40), 'image/png')).to.equal(422);
      expect(await put(png, 'image/png')).to.equal(200);
      const { wrap } = (await findWrap(test.db, 'waiting-room'))!;
      const { body } = await preview({ look: { ...wrap.look, logo: true } });
      expect((body as unknown as { svg: string }).svg).to.contain('href="data:image/png;base64,');
      await change('waiting-room', { look: { ...wrap.look, logo: true } });
      expect((await labelFile(test.house, 'waiting-room', 'EU', 'pdf')).body.length).to.be.above(1000);
      await call(logoRoute(), 'DELETE', '/');
      expect((await call(logoRoute(), 'GET', '/')).status).to.equal(404);
    });
  });
});
