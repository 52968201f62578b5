/** Sheets that say what was planned and what was weighed, written down before the reader was tried on them. */
import { expect } from 'chai';
import { guessLayout, unreadHeads } from '../../src/core/sheets/layout';
import { readSheet } from '../../src/core/sheets/read';
import { plannedIn, weighedNote } from '../../src/core/sheets/planned';

const rowsOf = (text: string) =>
  text
    .trim()
    .split('\n')
    .map((line) => line.split(',').map((cell) => cell.trim()));

function read(text: string, unit: 'g' | null = null) {
  const rows = rowsOf(text);
  const layout = guessLayout(rows);
  const { bars, faults } = readSheet(rows, unit ? { ...layout, unit } : layout);
  return { bars, faults, layout, unread: unreadHeads(rows, layout) };
}

describe('what was planned beside what was weighed', () => {
  const SHEETS = [
    ['Ingredient,Planned (g),Actual (g)', 'Olive oil,500,501.2', 'Coconut oil,300,299.5', 'Lye,115,115.1'],
    [
      'Ingredient,Target g,Weighed g,Diff',
      'Olive oil,500,501.2,1.2',
      'Coconut oil,300,299.5,-0.5',
      'Lye,115,115.1,0.1',
    ],
    ['Zutat,Soll (g),Ist (g)', 'Olivenöl,500,501.2', 'Kokosöl,300,299.5', 'NaOH,115,115.1'],
    [
      'Ingrédient,Prévu (g),Réel (g)',
      'Huile d’olive,500,501.2',
      'Huile de coco,300,299.5',
      'Soude,115,115.1',
    ],
    ['Material,Planned,Actual', 'Olive oil,500 g,501.2 g', 'Coconut oil,300 g,299.5 g', 'Lye,115 g,115.1 g'],
    [
      'Ingredient,%,Should be (g),Was (g)',
      'Olive oil,62.5,500,501.2',
      'Coconut oil,37.5,300,299.5',
      'Lye,,115,115.1',
    ],
  ];
  for (const lines of SHEETS)
    it(`is one bar, by its plan: ${lines[0]}`, () => {
      const { bars, faults } = read(lines.join('\n'));
      expect(faults).to.deep.equal([]);
      expect(
        bars.map((bar) => bar.lines.map(({ amount }) => `${amount.value} ${amount.unit}`)),
      ).to.deep.equal([['500 g', '300 g', '115 g']]);
      expect(weighedNote(bars[0]!)).to.match(/^Weighed: .*501\.2(?: g)? \(planned 500(?: g)?\); .*299\.5/);
    });

  it('is one bar where its batches were made by one plan, and several where plans differ', () => {
    const batch = (code: string, olive: number, was: number) =>
      [
        ['Olive oil', olive, was],
        ['Coconut oil', 300, 301],
        ['NaOH', 115, 115],
      ]
        .map(([name, planned, weighed]) => `Tea Tree,${code},${name},${planned},${weighed}`)
        .join('\n');
    const head = 'Product,Batch,Ingredient,Qty planned,Qty used';
    const alike = read([head, batch('T1', 500, 501), batch('T2', 500, 498)].join('\n'), 'g');
    expect(alike.bars.map(({ name, lines }) => `${name} ${lines.length}`)).to.deep.equal(['Tea Tree 3']);
    expect(weighedNote(alike.bars[0]!)).to.match(/^Weighed, T1: Olive oil 501 .*Weighed, T2: Olive oil 498/);
    const apart = read([head, batch('T1', 500, 501), batch('T2', 450, 450)].join('\n'), 'g');
    expect(apart.bars.map(({ name }) => name)).to.deep.equal(['Tea Tree T1', 'Tea Tree T2']);
  });

  it('keeps a batch with its rows where its name stands in the first of them alone', () => {
    const { bars } = read(
      'Product,Batch,Ingredient,Planned (g),Used (g)\nMoss,M1,Olive oil,500,501\n,,Coconut oil,300,302\n,,Lye,115,115',
    );
    expect(bars.map(({ name }) => name)).to.deep.equal(['Moss']);
    expect(weighedNote(bars[0]!)).to.match(/^Weighed, M1: Olive oil 501 .*Lye 115 [^:]*$/);
  });

  it('takes the lot of each ingredient for no batch of the bar', () => {
    for (const head of ['Batch', 'Lot', 'Charge']) {
      const { bars } = read(
        `Recipe,Ingredient,Amount (g),${head}\nMoss,Olive oil,500,OL1\nMoss,Coconut oil,200,CO2\nMoss,Lye,98,NA3`,
      );
      expect(
        bars.map(({ name, lines }) => `${name} ${lines.length}`),
        head,
      ).to.deep.equal(['Moss 3']);
    }
  });

  it('is not seen where a column of words only sounds like it', () => {
    expect(plannedIn(['Recipe', 'Ingredient', 'Used for'], [['Moss', 'Olive oil', 'hands']])).to.equal(null);
    const { bars } = read('Recipe,Ingredient,Amount (g),Used for\nMoss,Olive oil,500,base\nMoss,Lye,68,base');
    expect(bars.map(({ name, lines }) => `${name} ${lines.length}`)).to.deep.equal(['Moss 2']);
  });

  it('keeps to the room of a note and says that there is more', () => {
    const rows = Array.from({ length: 40 }, (_, at) => `Oil number ${at},${100 + at},${101 + at}`);
    const { bars } = read(['Ingredient,Planned (g),Actual (g)', ...rows].join('\n'));
    const note = weighedNote(bars[0]!);
    expect(note.length).to.be.within(200, 400);
    expect(note).to.match(/… and more in the sheet\.$/);
  });
});
