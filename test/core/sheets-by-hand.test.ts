/** Sheets as makers have them, each written down by hand before the reader was tried on it: cards, tables, lists, abroad. */
import { expect } from 'chai';
import Papa from 'papaparse';
import { guessLayout, unreadHeads } from '../../src/core/sheets/layout';
import { readSheet } from '../../src/core/sheets/read';
import { matchName, namedMaterials } from '../../src/core/sheets/match';
import { formulaOf } from '../../src/core/sheets/recipe';
import { readHeld } from '../../src/core/sheets/stock';
import { readText } from '../../src/core/sheets/text';
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

describe('a mark before three digits in a sheet', () => {
  const read = (text: string) => {
    const rows = text.split('\n').map((line) => line.split(';'));
    const { bars, faults } = readSheet(rows, guessLayout(rows));
    const taken = bars[0] && formulaOf(bars[0], TAKING);
    return { taken, faults: faults.map(({ message }) => message) };
  };
  const olive = (text: string) => {
    const { taken } = read(text);
    return taken?.ok ? taken.formula.lines.find(({ material }) => material === 'olive')?.amount : undefined;
  };
  const sheet = (oil: string, other: string) =>
    `Night train\nIngredient;Amount g\nOlive oil;${oil}\nCoconut oil;${other}\nNaOH;239,4\nWater;600`;

  it('is of thousands where the decimals of the file stand behind the other one', () => {
    expect(olive(sheet('1.250', '465,3'))).to.deep.equal({ value: 1250, unit: 'g' });
    expect(olive(sheet('1,250', '465.3').replace('239,4', '239.4'))).to.deep.equal({
      value: 1250,
      unit: 'g',
    });
    expect(olive(sheet('1,250', '465,3'))).to.deep.equal({ value: 1.25, unit: 'g' });
  });

  it('is asked about in grams where nothing tells, and a decimal mark in kilograms', () => {
    const { faults } = read(sheet('1,250', '250').replace('239,4', '205'));
    expect(faults.join(' ')).to.include('“1,250” reads as 1250 and as 1.250');
    const kilos = 'Kilos\nOil;kg\nOlive oil;1,250\nCoconut oil;1\nNaOH;1\nWater;1';
    expect(olive(kilos)).to.deep.equal({ value: 1.25, unit: 'kg' });
    expect(readText('1,250 g olive oil; 250 g coconut oil', 'g').faults[0]!.message).to.include(
      'reads as 1250',
    );
    expect(readHeld('1.250 g', null, null))
      .to.have.property('error')
      .that.includes('reads as 1250');
    expect(readHeld('1.250 kg', null, null)).to.deep.equal({ value: 1250, isVolume: false });
  });

  it('says that lye and fats do not belong together before they are taken', () => {
    const notes = (lye: string) => {
      const { taken } = read(`Odd\nIngredient;g\nOlive oil;700\nCoconut oil;300\nNaOH;${lye}\nWater;330`);
      return taken?.ok ? taken.notes.join(' ') : '';
    };
    expect(notes('142')).to.equal('');
    for (const lye of ['14', '341', '1420']) expect(notes(lye)).to.include('do not belong together');
  });

  it('is one bar where its parts are headed and what is done stands between its rows', () => {
    const sheet = [
      'PHASE A - fats',
      'Olive oil,600,g',
      'Coconut oil,250,g',
      'melt to 45 °C',
      'PHASE B - lye',
      'Sodium hydroxide,120,g',
      'Water,270,g',
      'Pour at light trace',
    ].join('\n');
    const { bars, faults } = readAll(sheet);
    expect(faults).to.deep.equal([]);
    expect(Object.values(bars)).to.deep.equal(['olive 600 g, coconut 250 g, water 270 g, lye 120']);
  });

  it('is several bars where they are named like what is done', () => {
    const rows = 'Olive oil,400,g\nSodium hydroxide,52,g\nWater,140,g';
    const { bars } = readAll(`Mix in the Dark,,\n${rows}\nMelt With You,,\n${rows}`);
    expect(Object.keys(bars)).to.include('Melt With You');
  });

  it('is not called by a head that takes two lines, and salt goes into the lye as it says', () => {
    const twice = readAll(',Amount,\nIngredient,(g),Notes\nOlive oil,400,\nWater,150,\nSodium hydroxide,52,');
    expect(Object.keys(twice.bars)).to.not.include('Amount');
    const rows = Papa.parse<string[]>(
      'Item,Weight (g),When\nOlive oil,550,oils\nNaOH,70,lye\nWater,160,lye water\nSalt,10,lye water',
    ).data;
    const taken = formulaOf(readSheet(rows, guessLayout(rows)).bars[0]!, TAKING);
    expect(taken.ok && taken.formula.lines.map(({ stage }) => stage)).to.deep.equal([
      'fats',
      'liquid',
      'lye',
    ]);
  });
});
