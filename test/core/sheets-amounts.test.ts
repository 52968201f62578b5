/** Recipes whose amounts stand in two columns, in solution, under headings, or beside sums. */
import { expect } from 'chai';
import type { Kind } from '../../src/core/formula/types';
import { accountOf } from '../../src/core/sheets/account';
import { loggedBatches } from '../../src/core/sheets/logged';
import { guessLayout } from '../../src/core/sheets/layout';
import { readSheet } from '../../src/core/sheets/read';
import { formulaOf } from '../../src/core/sheets/recipe';

const KINDS: readonly (readonly [RegExp, string, Kind])[] = [
  [/oliv/i, 'olive', 'fat'],
  [/coco/i, 'coconut', 'fat'],
  [/shea|karit/i, 'shea', 'fat'],
  [/^water|wasser|^eau|agua/i, 'water', 'liquid'],
  [/lavend|lavand/i, 'lavender', 'essentialOil'],
];

function find(name: string) {
  const found = KINDS.find(([pattern]) => pattern.test(name));
  return found ? { id: found[1], kind: found[2] } : null;
}

/** What is read of a sheet of one bar: its lines, the lye, what is noted and what is asked. */
function read(text: string) {
  const rows = text.split('\n').map((row) => row.split(row.includes(';') ? ';' : ','));
  const { bars, faults } = readSheet(rows, guessLayout(rows), 'Sheet');
  expect(bars, text).to.have.length(1);
  const taken = formulaOf(bars[0]!, { find, percentOf: 'fats', batchG: 1000, superfatPct: 5 });
  const asked = [...faults, ...(taken.ok ? [] : taken.faults)].map(({ message }) => message);
  if (!taken.ok) return { lines: [], lyeG: null, notes: [], asked, formula: null };
  const { formula, notes } = taken;
  const lines = formula.lines.map(
    ({ material, amount, stage }) => `${material} ${amount.value}${amount.unit} ${stage}`,
  );
  return { lines, lyeG: formula.alkali.massG ?? null, notes, asked, formula };
}

describe('amounts of a recipe in a sheet', () => {
  it('stand in pounds and ounces beside each other, which go together', () => {
    const { lines, lyeG } = read(
      'Ingredient,lb,oz\nOlive oil,1,8\nCoconut oil,,12\nShea,2,\nLye,,6.3\nWater,,14',
    );
    expect(lines).to.deep.equal([
      'olive 24oz fats',
      'coconut 12oz fats',
      'shea 2lb fats',
      'water 14oz liquid',
    ]);
    expect(lyeG).to.be.closeTo(6.3 * 28.3495, 0.01);
    const near = read('Ingredient,lb,oz\nOlive oil,1,15.6\nCoconut oil,1,2\nLye,,6.3\nWater,,14');
    expect(near.lines[0]).to.equal('olive 31.6oz fats');
    const rest = read(
      'Ingredient,lb,oz\nOlive oil,1,8\nCoconut oil,,20\nLye,,6.3\nWater,1,\nSuperfat,,5 %\nLavender,,a little',
    );
    expect(rest.lines.slice(0, 3)).to.deep.equal([
      'olive 24oz fats',
      'coconut 20oz fats',
      'water 1lb liquid',
    ]);
    const metric = read('Ingredient,kg,g\nOlive oil,1,250\nCoconut oil,,600\nLye,,262\nWater,,560');
    expect(metric.lines).to.deep.equal(['olive 1250g fats', 'coconut 600g fats', 'water 560g liquid']);
  });

  it('of two columns are told, not guessed, where another unit is said', () => {
    const rows = 'Ingredient,lb,oz\nOlive oil,1,8'.split('\n').map((row) => row.split(','));
    for (const unit of [null, 'tsp'] as const) {
      const { bars, faults } = readSheet(rows, { ...guessLayout(rows), unit }, 'Sheet');
      expect([bars.length, faults.length], `${unit}`).to.deep.equal([0, 1]);
    }
  });

  it('stand in two units, each the whole amount, of which one is taken', () => {
    const { lines } = read(
      'Ingredient,lb,oz\nOlive oil,1.5,24\nCoconut oil,0.75,12\nLye,0.31,5\nWater,0.75,12',
    );
    expect(lines).to.deep.equal(['olive 1.5lb fats', 'coconut 0.75lb fats', 'water 0.75lb liquid']);
  });

  it('are no sums, wherever the word stands; the sum of fats is what percents are of', () => {
    const sums =
      'Oils total,600\nWater,168\nLye,84\nLye solution,252\nLavender,18\nBatch total,870\nSubtotal,1';
    const { lines, lyeG, asked } = read(`Ingredient,Weight g\nOlive oil,420\nCoconut oil,180\n${sums}`);
    expect([lyeG, asked]).to.deep.equal([84, []]);
    expect(lines).to.deep.equal([
      'olive 420g fats',
      'coconut 180g fats',
      'water 168g liquid',
      'lavender 18g trace',
    ]);
    const inPercent = read('Oil;Amount\nOlive oil;70 %\nCoconut oil;30 %\nTotal oils;1500 g\nSuperfat;5 %');
    expect(inPercent.formula?.fatsMassG).to.equal(1500);
  });

  it('of a lye solution are lye and water apart; how strong it is has to be said', () => {
    const bar = (lye: string) => read(`Item,Amount\nOlive oil,500 g\nCoconut oil,300 g\n${lye}\nWater,60 g`);
    const { lines, lyeG } = bar('50 % lye solution,230 g');
    expect([lyeG, lines.slice(2)]).to.deep.equal([115, ['water 115g liquid', 'water 60g liquid']]);
    expect(bar('Natronlauge 33 %,300 g').lyeG).to.be.closeTo(99, 1e-9);
    expect(bar('Lye solution,230 g').asked.join()).to.include('does not say how strong it is');
    expect(bar('Lye,110 g\nLye solution,400 g').asked.join()).to.include('is not the sum of lye and liquid');
  });

  it('of a lye solution stand beside their own rows, however many lines it makes', () => {
    const rows = 'Item,Amount\nOlive oil,500 g\n50 % lye solution,130 g\nLavender,12 g'
      .split('\n')
      .map((row) => row.split(','));
    const [bar] = readSheet(rows, guessLayout(rows), 'Sheet').bars;
    const taken = formulaOf(bar!, { find, percentOf: 'fats', batchG: 1000, superfatPct: 5 });
    if (!taken.ok) throw new Error('not taken');
    expect(
      accountOf(bar!, taken.formula).map(({ name, line, massG }) => [name, line?.material ?? null, massG]),
    ).to.deep.equal([
      ['Olive oil', 'olive', 500],
      ['50 % lye solution', null, 130],
      ['Lavender', 'lavender', 12],
    ]);
  });

  it('of a lye solution in a log are told: nobody knows how much of each was weighed', () => {
    const rows = 'Ingredient,Planned g,Weighed g\nOlive oil,500,502\n50 % lye solution,130,131'
      .split('\n')
      .map((row) => row.split(','));
    const layout = guessLayout(rows);
    const [bar] = readSheet(rows, layout, 'Sheet').bars;
    const taken = formulaOf(bar!, { find, percentOf: 'fats', batchG: 1000, superfatPct: 5 });
    if (!taken.ok) throw new Error('not taken');
    const [batch] = loggedBatches(rows, layout, bar!, accountOf(bar!, taken.formula));
    expect(batch?.weighed.map(({ line }) => line)).to.deep.equal(['l1']);
    expect(batch?.left.join()).to.include('lye and water were weighed together');
  });

  it('go in when the heading above them says, in a bar that is cooked', () => {
    const { formula, lines } = read(
      'Hot process,,\nOils,g,\nOlive oil,450,\nLye,60,\nWater,150,\nAfter cook,,\nShea butter,50,\nLavender,24,',
    );
    expect([formula?.process, lines.slice(2)]).to.deep.equal([
      'hot',
      ['shea 50g afterCook', 'lavender 24g afterCook'],
    ]);
  });

  it('of what stands under the lye go into it, but not what follows the fats below', () => {
    const { lines } = read('Item,g\nLye water,\nLye,66\nWater,150\nOlive oil,500\nLavender,20');
    expect(lines.slice(1)).to.deep.equal(['olive 500g fats', 'lavender 20g trace']);
  });

  it('have heads in other languages, and thousands that their decimals tell', () => {
    const french =
      'Ingrédients;Poids en grammes\nHuile d’olive;400\nBeurre de karité;40\nSoude (NaOH);60\nEau;150';
    expect(read(french).lines).to.deep.equal(['olive 400g fats', 'shea 40g fats', 'water 150g liquid']);
    const large = 'Ingredient;Grams\nOlive oil;1,500\nCoconut oil;1,000.5\nLye;352\nWater;800';
    expect(read(large).lines.slice(0, 2)).to.deep.equal(['olive 1500g fats', 'coconut 1000.5g fats']);
  });

  it('of lye and superfat together are told: the lye is taken', () => {
    const { lyeG, notes } = read('Item;Amount (g)\nOlive oil;500\nLye;65\nWater;150\nSuperfat;8 %');
    expect(lyeG).to.equal(65);
    expect(notes.join()).to.include('a superfat (8 %): the lye is taken');
  });
});
