/** What sheets say beside their rows, bars side by side, parts, lists with bullets, and prices that are no amounts. */
import { expect } from 'chai';
import { cellRoles } from '../../src/core/sheets/account';
import { guessLayout } from '../../src/core/sheets/layout';
import { readSheet } from '../../src/core/sheets/read';
import { formulaOf, roleOf } from '../../src/core/sheets/recipe';
import { partsOf } from '../../src/core/sheets/workbook';

const cells = (text: string) => text.split('\n').map((row) => row.split(row.includes(';') ? ';' : ','));

function read(text: string) {
  const rows = cells(text);
  const { bars, faults } = readSheet(rows, guessLayout(rows), 'Sheet');
  const said = bars.map(({ name, note, lines }) => ({
    name,
    note,
    lines: lines.map((line) => `${line.name} ${line.amount.value}${line.amount.unit}`),
  }));
  return { bars: said, asked: faults.map(({ message }) => message) };
}

describe('a recipe in a sheet', () => {
  it('takes no price for an amount, whatever unit it is of', () => {
    for (const head of ['Price per kg', '€/kg', 'Preis pro kg', 'Cost kg']) {
      const { bars } = read(`Ingredient,${head},Grams\nOlive oil,8.50,450\nCoconut oil,6.20,250`);
      expect(bars[0]!.lines, head).to.deep.equal(['Olive oil 450g', 'Coconut oil 250g']);
    }
  });

  it('is a list with bullets or numbers as well', () => {
    const { bars } = read('Harbour bar\n- 500g olive oil\n• 250 g coconut oil\n3) 113g lye');
    expect(bars[0]!.name).to.equal('Harbour bar');
    expect(bars[0]!.lines).to.deep.equal(['olive oil 500g', 'coconut oil 250g', 'lye 113g']);
  });

  it('says of the batch what its title and the rows above its heads say', () => {
    const { bars } = read(
      'Morning bar - 1200 g oils - 6% SF\nOil,%\nOlive oil,70\nCoconut oil,30\nLavender,3',
    );
    expect(bars[0]!.name).to.equal('Morning bar');
    expect(bars[0]!.lines).to.include.members(['oils 1200g', 'SF 6%']);
    const above = read('Recipe:,Fog\nSuperfat:,5\nIngredient,Weight (g)\nOlive oil,450\nCoconut oil,200');
    expect(above.bars[0]!.name).to.equal('Fog');
    expect(above.bars[0]!.lines).to.deep.equal(['Superfat 5%', 'Olive oil 450g', 'Coconut oil 200g']);
    const alone = read('5% SF\nProcess,CPOP\nOils,from the mill\nOil,g\nOlive oil,500');
    expect(alone.asked).to.deep.equal([]);
    expect(alone.bars[0]).to.deep.include({ name: 'Sheet', lines: ['SF 5%', 'Olive oil 500g'] });
    // A name with a dash stays whole.
    expect(read('Rain - No. 5\nOil,g\nOlive oil,500').bars[0]!.name).to.equal('Rain - No. 5');
  });

  it('has its title coloured as its name, whatever else that says', () => {
    const rows = cells('Fog - 6% SF\nOil,g\nOlive oil,500');
    const layout = guessLayout(rows);
    const roles = cellRoles(layout, readSheet(rows, layout).bars);
    expect([roles.get('0 0'), roles.get('2 0'), roles.get('2 1')]).to.deep.equal(['bar', 'name', 'amount']);
    const bare = cells('500 g olive oil\n200 g coconut oil');
    const typed = guessLayout(bare);
    expect(cellRoles(typed, readSheet(bare, typed).bars).get('0 0')).to.equal('name');
  });

  it('asks where its title and its rows say two things', () => {
    const find = (name: string) => (/oil/.test(name) ? { id: 'olive', kind: 'fat' as const } : null);
    const take = (row: string, out: string | null = null) => {
      const rows = cells(`Fog (5% superfat)\nIngredient,Amount\nOlive oil,500 g\nSuperfat,${row}`);
      const [bar] = readSheet(rows, guessLayout(rows)).bars;
      const lines = bar!.lines.filter(({ name }) => name !== out);
      const taken = formulaOf({ ...bar!, lines }, { find, percentOf: 'fats', batchG: 1000, superfatPct: 7 });
      return taken.ok ? taken.formula.alkali.superfatPct : taken.faults.map(({ message }) => message);
    };
    expect(take('5 %')).to.equal(5);
    expect(take('8 %')).to.deep.equal([
      'superfat (above) is 5% in row 1 and 8 % in row 4. Say which is no part of the bar.',
    ]);
    expect([take('8 %', 'Superfat'), take('8 %', 'superfat (above)')]).to.deep.equal([5, 8]);
  });

  it('in parts is in shares of its fats', () => {
    const { bars } = read('Oil,Parts\nOlive oil,5\nCoconut oil,3\nWater,4\nSuperfat,6 %\nBatch oils,900 g');
    expect(bars[0]!.lines).to.deep.equal([
      'Olive oil 62.5%',
      'Coconut oil 37.5%',
      'Water 50%',
      'Superfat 6%',
      'Batch oils 900g',
    ]);
    expect(roleOf({ name: 'Batch oils' })).to.equal('fats');
  });

  it('keeps the notes of all its rows, and one that all repeat once', () => {
    const heads = 'Ingredient,Grams,Notes\n';
    expect(
      read(`${heads}Olive oil,500,from the mill\nCoconut oil,200,\nWater,200,cold`).bars[0]!.note,
    ).to.equal('Olive oil: from the mill; Water: cold');
    expect(read(`${heads}Olive oil,500,spring\nCoconut oil,200,spring`).bars[0]!.note).to.equal('spring');
    const long = Array.from({ length: 30 }, (_, at) => `Olive oil,${at + 1},of the delivery number ${at}`);
    const { note } = read(heads + long.join('\n')).bars[0]!;
    expect(note.length).to.be.within(300, 390);
    expect(note).to.match(/number 8.*; more notes stand in the sheet$/);
  });

  it('is called as the column is, without its unit', () => {
    const { bars } = read('Ingredient,Old (g),New (oz)\nOlive oil,400,14\nCoconut oil,200,7');
    expect(bars.map(({ name, lines }) => [name, lines[0]])).to.deep.equal([
      ['Old', 'Olive oil 400g'],
      ['New', 'Olive oil 14oz'],
    ]);
  });
});

describe('bars side by side in one sheet', () => {
  const parts = (text: string) =>
    partsOf([{ name: 'Bars', rows: cells(text) }]).map(({ name, rows }) => ({
      name,
      bars: readSheet(rows, guessLayout(rows), name).bars.map((bar) => [
        bar.name,
        bar.lines[0]!.row,
        bar.lines[0]!.column,
        bar.lines.map((line) => `${line.name} ${line.amount.value}${line.amount.unit}`).join(', '),
      ]),
    }));

  it('come apart where an empty column stands between them, rows and columns as in the file', () => {
    const text = 'Bar A,,,Bar B,\nOlive oil,400 g,,Olive oil,300 g\nLye,55 g,,Shea butter,150 g';
    expect(parts(text)).to.deep.equal([
      { name: 'Bars, A to B', bars: [['Bar A', 2, 1, 'Olive oil 400g, Lye 55g']] },
      { name: 'Bars, D to E', bars: [['Bar B', 2, 4, 'Olive oil 300g, Shea butter 150g']] },
    ]);
    const headed = 'North,,,South,\nOil,Grams,,Oil,Grams\nOlive oil,400,,Olive oil,300\nCoconut,9,,Shea,150';
    expect(parts(headed).map(({ bars }) => bars[0])).to.deep.equal([
      ['North', 3, 1, 'Olive oil 400g, Coconut 9g'],
      ['South', 3, 4, 'Olive oil 300g, Shea 150g'],
    ]);
  });

  it('and sheets of a workbook read together keep what their titles say', () => {
    const sheet = (name: string, title: string) => ({
      name,
      rows: cells(`${title}\nOil,Amount\nOlive oil,400 g\nCoconut oil,200 g`),
    });
    const superfats = (sheets: ReturnType<typeof sheet>[]) => {
      const [part, ...others] = partsOf(sheets);
      expect([others, part!.above]).to.deep.equal([[], []]);
      const { bars } = readSheet(part!.rows, guessLayout(part!.rows));
      return bars.map(({ name, lines }) => [name, lines.find((line) => roleOf(line) === 'superfat')?.said]);
    };
    expect(superfats([sheet('1', 'Fog - 5% SF'), sheet('2', 'Rain - 8% SF')])).to.deep.equal([
      ['Fog', '5%'],
      ['Rain', '8%'],
    ]);
    // A title that all share is the pattern's; what each says beside it is its own.
    expect(
      superfats([sheet('Fog', 'Recipe card (5% SF)'), sheet('Rain', 'Recipe card (8% SF)')]),
    ).to.deep.equal([
      ['Fog', '5%'],
      ['Rain', '8%'],
    ]);
  });

  it('stay one where what stands beside is no recipe', () => {
    const text = 'Oil,Grams,,Sums,\nOlive oil,400,,Bars,12\nCoconut oil,200,,Price,4.50';
    expect(parts(text).map(({ name }) => name)).to.deep.equal(['Bars']);
  });
});
