/** Makers’ own spreadsheets: units and percents understood, five layouts made up apart from what reads them. */
import { expect } from 'chai';
import type { Kind } from '../../src/core/formula/types';
import { amountOf, readCell, unitIn } from '../../src/core/sheets/amounts';
import { guessLayout } from '../../src/core/sheets/layout';
import { readSheet } from '../../src/core/sheets/read';
import { bareName, matchName, namedMaterials } from '../../src/core/sheets/match';
import { formulaOf, percentsOf, roleOf } from '../../src/core/sheets/recipe';
import { LIBRARY } from '../../src/library';
import { makeSheet, type MadeSheet } from '../support/sheets';

const MATERIALS = namedMaterials(LIBRARY);
const known = new Map<string, { id: string; kind: Kind } | null>();
const find = (name: string) => {
  if (!known.has(name)) known.set(name, matchName(name, MATERIALS));
  return known.get(name)!;
};
const TAKING = { find, percentOf: 'fats' as const, batchG: 1000, superfatPct: 5 };

/** What of a sheet came in otherwise than it was meant. */
function faultsOf({ rows, bars }: MadeSheet): string[] {
  const read = readSheet(rows, guessLayout(rows));
  const faults = read.faults.map(({ row, message }) => `row ${row}: ${message}`);
  if (read.bars.length !== bars.length) faults.push(`${read.bars.length} of ${bars.length} bars`);
  for (const bar of bars) {
    const found = read.bars.find(({ name }) => name === bar.name);
    const taken = found && formulaOf(found, TAKING);
    if (!taken?.ok) {
      faults.push(`${bar.name}: ${taken ? taken.faults.map(({ message }) => message).join(' ') : 'missing'}`);
      continue;
    }
    const { lines, alkali } = taken.formula;
    if (lines.length !== bar.lines.length)
      faults.push(`${bar.name}: ${lines.length} of ${bar.lines.length} lines`);
    for (const { ids, value, unit } of bar.lines) {
      const line = lines.find(({ material }) => ids.includes(material));
      if (!line || line.amount.unit !== unit || Math.abs(line.amount.value - value) > 1e-9)
        faults.push(
          `${bar.name}: ${ids[0]} is ${line ? `${line.amount.value} ${line.amount.unit}` : 'missing'}, not ${value} ${unit}`,
        );
    }
    if (Math.abs((alkali.massG ?? -1) - (bar.lyeG ?? -1)) > 1e-6)
      faults.push(`${bar.name}: lye ${alkali.massG}`);
  }
  return faults;
}

describe('a maker’s spreadsheet', () => {
  it('says amounts in cells, in heads, per pound of oils, by spoons and fractions', () => {
    expect(readCell('5 oz ppo', 'g')).to.deep.equal({ value: 5, unit: 'ozPerLbFats' });
    expect(readCell('1 1/2 tsp per lb of oils', null)).to.deep.equal({ value: 1.5, unit: 'tspPerLbFats' });
    expect(readCell('2 TSP.', 'g')).to.deep.equal({ value: 2, unit: 'tsp' });
    expect(readCell('1 T', 'g')).to.deep.equal({ value: 1, unit: 'tbsp' });
    expect(readCell('~28,5 gr', null)).to.deep.equal({ value: 28.5, unit: 'g' });
    expect(readCell('3 %', 'g')).to.deep.equal({ value: 3, unit: '%' });
    expect(readCell('12', '%')).to.deep.equal({ value: 12, unit: '%' });
    expect(readCell('40', 'oz')).to.deep.equal({ value: 40, unit: 'oz' });
    for (const nothing of ['', '-', '–', '  ']) expect(readCell(nothing, 'g')).to.equal(null);
    expect(readCell('12', null)).to.have.property('error').that.contains('says no unit');
    expect(readCell('a pinch', 'g')).to.deep.equal({ value: 0.0625, unit: 'tsp', measuredBy: 'eye' });
    expect(readCell('2 heaped tsp', 'g')).to.deep.equal({ value: 2, unit: 'tsp', measuredBy: 'heaped' });
    expect(readCell('a handful', 'g')).to.have.property('error');
    expect(readCell('5 g ppo', 'g')).to.deep.equal({ value: 11.023113109, unit: 'gPerKgFats' });
    expect(readCell('5 % ppo', 'g')).to.have.property('error');
    expect([unitIn('grams'), unitIn('(oz)'), unitIn('%'), unitIn('oz ppo'), unitIn('Notes')]).to.deep.equal([
      'g',
      'oz',
      '%',
      'ozPerLbFats',
      null,
    ]);
  });

  it('says percents of the fats or of the whole by what adds up to a hundred; else it is asked', () => {
    const bar = (...lines: [string, number][]) => ({
      row: 1,
      name: 'A',
      note: '',
      lines: lines.map(([name, value], at) => ({
        ...{ row: at + 2, name, said: `${value} %`, column: 1 },
        amount: { value, unit: '%' as const },
      })),
    });
    const ofFats = bar(['Olive oil', 70], ['Coconut oil', 30], ['Lavender oil', 3]);
    const ofWhole = bar(['Olive oil', 45], ['Coconut oil', 20], ['Water', 25], ['NaOH', 10]);
    expect([percentsOf(ofFats, find), percentsOf(ofWhole, find)]).to.deep.equal(['fats', 'whole']);
    expect(percentsOf(bar(['Olive oil', 40]), find)).to.equal(null);
    const whole = formulaOf(ofWhole, TAKING);
    expect(whole.ok && whole.formula.alkali.massG).to.equal(100);
    expect(whole.ok && whole.formula.lines.map(({ amount }) => amount)).to.deep.include({
      value: 450,
      unit: 'g',
    });
    const fats = formulaOf(ofFats, TAKING);
    expect(fats.ok && [fats.formula.fatsMassG, fats.notes.length]).to.deep.equal([1000, 2]);
    expect(amountOf({ value: 3, unit: '%' }, 'whole', 800)).to.deep.equal({ value: 24, unit: 'g' });
  });

  it('says lye, superfat and totals apart from materials, and potash is refused', () => {
    expect(
      ['Lye (NaOH)', 'Caustic soda', 'Superfat %', 'Total oils', 'KOH', 'Olive oil'].map((name) =>
        roleOf({ name }),
      ),
    ).to.deep.equal(['lye', 'lye', 'superfat', 'fats', 'potash', 'material']);
    const rows = [
      ['Ingredient', 'Amount'],
      ['Olive oil', '500 g'],
      ['Superfat', '7 %'],
      ['KOH', '10 g'],
      ['Stardust', '3 g'],
    ];
    const { bars } = readSheet(rows, guessLayout(rows), 'Alone');
    const taken = formulaOf(bars[0]!, TAKING);
    expect(bars[0]!.name).to.equal('Alone');
    expect(taken.ok ? [] : taken.faults.map(({ row }) => row)).to.deep.equal([4, 5]);
    const good = formulaOf({ ...bars[0]!, lines: bars[0]!.lines.slice(0, 2) }, TAKING);
    expect(good.ok && good.formula.alkali).to.deep.equal({ superfatPct: 7, purityPct: 99 });
  });

  it('names materials as makers do', () => {
    expect(bareName('Organic coconut oil (76°)')).to.deep.equal(['coconut', 'oil']);
    for (const [name, id] of [
      ['coconut oil 76', 'coconut'],
      ['Lavender EO', 'lavender-oil'],
      ['shea', 'shea'],
      ['Distilled water', 'water'],
      ['Kaolin clay', 'kaolin'],
    ] as const)
      expect(matchName(name, MATERIALS)?.id, name).to.equal(id);
    expect(matchName('zzzz', MATERIALS)).to.equal(null);
    for (const [name, id] of [
      ['Olivenöl', 'olive'],
      ['huile de coco', 'coconut'],
      ['Beurre de karité', 'shea'],
      ['aceite de ricino', 'castor'],
      ['olio di girasole', 'sunflower'],
      ['Bienenwachs', 'beeswax'],
    ] as const)
      expect(matchName(name, MATERIALS)?.id, name).to.equal(id);
    // The list's Latin holds words that are Italian or French as well.
    for (const [name, id] of [
      ['Cera alba', 'beeswax'],
      ['Theobroma cacao seed butter', 'cocoa-butter'],
      ['Cocos nucifera oil', 'coconut'],
    ] as const)
      expect(matchName(name, MATERIALS)?.id, name).to.equal(id);
    expect(matchName('Rose clay', MATERIALS)?.kind).to.not.equal('essentialOil');
  });

  it('of 80 bars in five layouts comes in as it was meant', () => {
    const seen = new Set<string>();
    for (let seed = 1; seed <= Number(process.env.SHEETS ?? 25); seed++) {
      const made = makeSheet(seed + Number(process.env.SHEETS_SEED ?? 0), 16);
      seen.add(made.layout);
      expect(faultsOf(made), `${seed} ${made.layout}`).to.deep.equal([]);
    }
    expect(seen.size).to.equal(5);
  });

  it('that says what cannot be read says where, and nothing of it is taken for something else', () => {
    const rows = [
      ['Recipe', 'Ingredient', 'Amount'],
      ['A', 'Olive oil', '500 g'],
      ['', 'Coconut oil', 'lots'],
      ['B', 'Olive oil', '300'],
    ];
    const { bars, faults } = readSheet(rows, guessLayout(rows));
    expect(faults.map(({ row }) => row)).to.deep.equal([3, 4]);
    expect(bars.map(({ name, lines }) => [name, lines.length])).to.deep.equal([['A', 1]]);
    expect(readSheet([], guessLayout([]))).to.deep.equal({ bars: [], faults: [] });
    expect(readSheet([['']], guessLayout([['']])).bars).to.deep.equal([]);
  });
});
