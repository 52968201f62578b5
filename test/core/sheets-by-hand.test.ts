/** Sheets as makers have them, each written down by hand before the reader was tried on it: cards, tables, lists, abroad. */
import { expect } from 'chai';
import Papa from 'papaparse';
import { guessLayout, readSheet, unreadHeads } from '../../src/core/sheets/layout';
import { matchName, namedMaterials } from '../../src/core/sheets/match';
import { formulaOf } from '../../src/core/sheets/recipe';
import { LIBRARY } from '../../src/library';
import { SHEETS_BY_HAND } from '../support/sheets-by-hand';
import { MORE_SHEETS_BY_HAND } from '../support/sheets-by-hand-more';

const MATERIALS = namedMaterials(LIBRARY);
const find = (name: string) => matchName(name, MATERIALS);
const TAKING = { find, percentOf: 'fats' as const, batchG: 1000, superfatPct: 5 };

function readAll(sheet: string) {
  const rows = Papa.parse<string[]>(sheet.trimEnd()).data;
  const read = readSheet(rows, guessLayout(rows));
  const faults = [...read.faults];
  const bars: Record<string, string> = {};
  for (const bar of read.bars) {
    const taken = formulaOf(bar, TAKING);
    if (!taken.ok) {
      faults.push(...taken.faults);
      continue;
    }
    const { lines, alkali, liquid } = taken.formula;
    const short = (value: number) => Number(value.toFixed(3));
    bars[bar.name] = [
      ...lines.map(({ material, amount }) => `${material} ${short(amount.value)} ${amount.unit}`),
      alkali.massG == null ? `superfat ${alkali.superfatPct}` : `lye ${Number(alkali.massG.toFixed(2))}`,
      ...(liquid ? [`${liquid.basis} ${liquid.value}`] : []),
    ].join(', ');
  }
  return { bars, faults };
}

describe('a sheet written by hand', () => {
  for (const { what, sheet, bars, faults } of [...SHEETS_BY_HAND, ...MORE_SHEETS_BY_HAND])
    it(`comes in as it was meant: ${what}`, () => {
      const read = readAll(sheet);
      expect(read.bars).to.deep.equal(bars);
      expect(read.faults.map(({ row }) => row)).to.deep.equal(faults.map(([row]) => row));
      faults.forEach(([, says], at) => expect(read.faults[at]!.message).to.contain(says));
    });

  it('says what it does not read, and that fats do not add up', () => {
    const rows = [
      ['Name', 'Oil 1', '% 1', 'Oil 2', '% 2'],
      ['Simple', 'Olive', '70', 'Coconut', '30'],
    ];
    const layout = guessLayout(rows);
    expect(unreadHeads(rows, layout)).to.deep.equal(['Oil 2', '% 2']);
    const taken = formulaOf(readSheet(rows, layout).bars[0]!, TAKING);
    expect(taken.ok && taken.notes.join(' ')).to.contain('Its fats add up to 70 %');
  });

  it('takes liquid said any way round, and percents as a sheet keeps them', () => {
    const liquid = (name: string, cell: string) => {
      const rows = [
        ['Ingredient', 'Percent'],
        ['Olive oil', '70'],
        ['Coconut oil', '30'],
        [name, cell],
      ];
      const taken = formulaOf(readSheet(rows, guessLayout(rows)).bars[0]!, TAKING);
      return taken.ok && taken.formula.liquid;
    };
    expect(liquid('Lye : water', '1:2')).to.deep.equal({ basis: 'perAlkali', value: 2 });
    expect(liquid('Water to lye', '1.8:1')).to.deep.equal({ basis: 'perAlkali', value: 1.8 });
    for (const cell of ['33', '33 %', '0.33'])
      expect(liquid('Lye concentration', cell)).to.deep.equal({ basis: 'alkaliConcentration', value: 33 });
    expect(liquid('Water % of oils', '0.38')).to.deep.equal({ basis: 'ofFats', value: 38 });
  });

  it('asks once about numbers without a unit, however many', () => {
    const { bars, faults } = readAll(
      'Ingrédient,Savon Doux,Savon Menthe\nHuile d’olive,350,300\nHuile de coco,150,200\nEau,170,180\nSoude,73,78\n',
    );
    expect(bars).to.deep.equal({});
    expect(faults.map(({ row, message }) => [row, message.split(' ')[0]])).to.deep.equal([[2, '8']]);
  });
});
