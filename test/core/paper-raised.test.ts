/** Small marks above a line lead to a note: no figure takes their digits for its own. */
import { expect } from 'chai';
import { linesFromItems, linesFromRows, type TextItem } from '../../src/core/paperwork/page';
import { withMarks } from '../../src/core/paperwork/raised';
import { readPaper } from '../../src/core/paperwork/read';
import { knownConstituents } from '../../src/library/constituents';

const FONT_PT = 10;
const LETTER_PT = 5;

/** Cells of a line, each with the mark that stands above its end, set as a page holds them. */
function set(yPt: number, cells: readonly (readonly [xPt: number, text: string, mark?: string])[], up = 3.4) {
  return cells.flatMap(([xPt, text, mark]): TextItem[] => {
    const widthPt = text.length * LETTER_PT;
    const item = { text, xPt, yPt, widthPt, heightPt: FONT_PT };
    if (!mark) return [item];
    const small = { widthPt: mark.length * 3.4, heightPt: 0.65 * FONT_PT };
    return [item, { text: mark, xPt: xPt + widthPt, yPt: yPt - up, ...small }];
  });
}

const paper = (up: number) =>
  linesFromItems(
    1,
    withMarks([
      ...set(40, [[50, 'Certificate of Conformity 51st Amendment']]),
      ...set(60, [[50, 'Product: Salt Meadow', '1']], up),
      ...set(80, [
        [50, 'Category'],
        [300, 'Maximum %'],
      ]),
      ...set(
        100,
        [
          [50, 'Category 5A'],
          [300, '0.25', '2'],
        ],
        up,
      ),
      ...set(
        120,
        [
          [50, 'Category 9', '3'],
          [300, '0.5', '1,2'],
        ],
        up,
      ),
      ...set(
        140,
        [
          [50, 'Linalool'],
          [180, '78-70-6'],
          [300, '1.2', '2'],
        ],
        up,
      ),
      ...set(160, [[50, '1 In the finished product.']]),
    ]),
  );

describe('marks above a line', () => {
  it('are no digits of the figure they stand at, however high they are set', () => {
    for (const up of [1.8, 3.4, 4.8]) {
      const read = readPaper({ lines: paper(up) }, knownConstituents);
      const levels = read.categories.map(({ value }) => [value.category, value.maxPct]);
      expect(levels, `${up}`).to.deep.equal([
        ['5A', 0.25],
        ['9', 0.5],
      ]);
      expect(read.material?.value, `${up}`).to.equal('Salt Meadow');
      expect(
        read.rows.map(({ highPct }) => highPct),
        `${up}`,
      ).to.deep.equal([1.2]);
    }
  });

  it('are told from figures that are merely small, or a word further on', () => {
    const items = [
      { text: 'Category', xPt: 50, yPt: 40, widthPt: 50, heightPt: 10 },
      { text: '9', xPt: 102.4, yPt: 38, widthPt: 6, heightPt: 8 },
      { text: '12', xPt: 200, yPt: 40, widthPt: 12, heightPt: 8 },
    ];
    expect(withMarks(items)).to.deep.equal(items);
  });

  it('stay marks where a table file holds them', () => {
    const read = readPaper(
      {
        lines: linesFromRows([
          ['Certificate of conformity, 51st Amendment'],
          ['Category', 'Maximum %'],
          ['Category 9³', '0.5¹˒²'],
          ['Category 4', '0.8 ⁴'],
        ]),
      },
      knownConstituents,
    );
    expect(read.categories.map(({ value }) => [value.category, value.maxPct])).to.have.deep.members([
      ['4', 0.8],
      ['9', 0.5],
    ]);
  });
});
