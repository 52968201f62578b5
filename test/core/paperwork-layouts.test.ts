/** Papers made up by chance: whatever order, unit and style a table has, it is read as it was written. */
import { expect } from 'chai';
import fc from 'fast-check';
import { isCasNumber, readFigure } from '../../src/core/paperwork/figures';
import { linesFromItems, linesFromRows, linesFromText, type PaperLine } from '../../src/core/paperwork/page';
import { readPaper } from '../../src/core/paperwork/read';
import { knownConstituents } from '../../src/library/constituents';
import { rulebook } from '../../src/rulebook';

const SUBSTANCES = rulebook().allergens.filter(({ kind }) => kind === 'substance');

interface Style {
  order: ('name' | 'cas' | 'share')[];
  comma: boolean;
  ppm: boolean;
  as: 'text' | 'rows' | 'page';
  range: '-' | ' to ' | '–';
}

const STYLE: fc.Arbitrary<Style> = fc.record({
  order: fc.constantFrom<Style['order'][]>(
    ['name', 'cas', 'share'],
    ['cas', 'name', 'share'],
    ['cas', 'share', 'name'],
    ['name', 'share', 'cas'],
  ) as unknown as fc.Arbitrary<Style['order']>,
  comma: fc.boolean(),
  ppm: fc.boolean(),
  as: fc.constantFrom('text', 'rows', 'page') as fc.Arbitrary<Style['as']>,
  range: fc.constantFrom('-', ' to ', '–') as fc.Arbitrary<Style['range']>,
});

/** Substances, each once, with a low and a high share in hundredths of a percent; together below the whole. */
const TABLE = fc
  .uniqueArray(fc.nat(SUBSTANCES.length - 1), { minLength: 1, maxLength: 8 })
  .chain((indexes) =>
    fc.tuple(
      fc.constant(indexes),
      fc.array(fc.tuple(fc.integer({ min: 1, max: 900 }), fc.integer({ min: 0, max: 300 })), {
        minLength: indexes.length,
        maxLength: indexes.length,
      }),
    ),
  )
  .map(([indexes, shares]) =>
    indexes.map((index, at) => ({
      ...SUBSTANCES[index]!,
      low: shares[at]![0] / 100,
      high: (shares[at]![0] + shares[at]![1]) / 100,
    })),
  );

type Row = { name: string; cas: string; low: number; high: number };

function written({ low, high }: Row, { comma, ppm, range }: Style): string {
  const figure = (value: number) => {
    const text = String(Number((ppm ? value * 10_000 : value).toFixed(4)));
    return comma ? text.replace('.', ',') : text;
  };
  return low === high ? figure(low) : `${figure(low)}${range}${figure(high)}`;
}

function cells(rows: readonly Row[], style: Style): string[][] {
  const heads = { name: 'Name', cas: 'CAS', share: style.ppm ? 'ppm' : 'Share %' };
  return [
    style.order.map((column) => heads[column]),
    ...rows.map((row) => {
      const by = { name: row.name, cas: row.cas, share: written(row, style) };
      return style.order.map((column) => by[column]);
    }),
  ];
}

function laid(table: string[][], as: Style['as']): PaperLine[] {
  if (as === 'rows') return linesFromRows(table);
  if (as === 'text')
    return linesFromText(table.map((row) => row.map((cell) => cell.padEnd(60)).join('   ')).join('\n'));
  return linesFromItems(
    1,
    table.flatMap((row, index) =>
      row.map((text, column) => ({
        text,
        xPt: 50 + column * 220,
        yPt: 100 + index * 15,
        widthPt: Math.min(200, text.length * 5),
        heightPt: 10,
      })),
    ),
  );
}

describe('tables of any layout', () => {
  it('are read as they were written', () => {
    fc.assert(
      fc.property(TABLE, STYLE, (rows, style) => {
        const reading = readPaper({ lines: laid(cells(rows, style), style.as) }, knownConstituents);
        const found = reading.rows.map(({ constituent, lowPct, highPct }) => [constituent, lowPct, highPct]);
        expect(found).to.deep.equal(rows.map(({ id, low, high }) => [id, low, high]));
        expect(reading.rows.every(({ cas }) => cas.every(isCasNumber))).to.equal(true);
      }),
      { numRuns: 300 },
    );
  });

  it('ask about every number whose digits were mistyped, and about no other', () => {
    fc.assert(
      fc.property(TABLE, STYLE, fc.nat(), (rows, style, pick) => {
        const at = pick % rows.length;
        const wrong = rows.map((row, index) => {
          if (index !== at) return row;
          const digit = (Number(row.cas.at(-1)) + 1) % 10;
          return { ...row, cas: row.cas.slice(0, -1) + String(digit) };
        });
        const reading = readPaper({ lines: laid(cells(wrong, style), style.as) }, knownConstituents);
        const asked = reading.rows.map(({ question }) => Boolean(question?.includes('do not check')));
        expect(asked).to.deep.equal(rows.map((_, index) => index === at));
      }),
      { numRuns: 100 },
    );
  });

  it('bear any text at all', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 600 }), (text) => {
        const reading = readPaper({ lines: linesFromText(text) }, knownConstituents);
        for (const row of reading.rows) {
          expect(row.lowPct).to.be.at.most(row.highPct);
          expect(Number.isFinite(row.highPct)).to.equal(true);
        }
      }),
      { numRuns: 400 },
    );
  });
});

describe('figures of any size', () => {
  it('are the same with a decimal comma, with their unit beside them, and as parts per million', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9999 }), (hundredths) => {
        const value = hundredths / 100;
        const plain = readFigure(String(value), '%')!;
        expect(plain.typicalPct).to.equal(value);
        expect(readFigure(String(value).replace('.', ','), '%')).to.deep.equal(plain);
        expect(readFigure(`${value} %`, 'ppm')).to.deep.equal(plain);
        expect(readFigure(String(hundredths * 100), 'ppm')!.typicalPct).to.equal(value);
        const below = readFigure(`<${value}`, '%')!;
        expect([below.lowPct, below.highPct]).to.deep.equal([0, value]);
      }),
    );
  });
});
