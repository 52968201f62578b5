/** Recipes out and in again: a list of them is taken for the bars they are, line by line. */
import { expect } from 'chai';
import Papa from 'papaparse';
import { assess } from '../../src/core/assess';
import { REQUEST_FORMAT, type Formula } from '../../src/core/formula/types';
import { guessLayout } from '../../src/core/sheets/layout';
import type { Match } from '../../src/core/sheets/match';
import { readSheet } from '../../src/core/sheets/read';
import { formulaOf } from '../../src/core/sheets/recipe';
import { recipeRows } from '../../src/core/sheets/recipe-rows';
import { snapshotOf } from '../../src/server/store/snapshot';
import { caller } from './call';
import { useDemo } from './database';

const go = caller({
  lists: () => import('../../src/pages/api/v1/lists'),
  names: () => import('../../src/pages/api/v1/import/names'),
});

describe('recipes that go out', () => {
  const demo = useDemo();

  /** Bars of a list as they are taken in. */
  async function takenFrom(rows: string[][]) {
    const layout = guessLayout(rows);
    const { bars, faults } = readSheet(rows, layout);
    expect(faults).to.deep.equal([]);
    const names = [...new Set(bars.flatMap(({ lines }) => lines.map(({ name }) => name)))];
    const { matches } = (await go<{ matches: (Match | null)[] }>('names', 'POST', { body: { names } })).body;
    const find = (name: string) => matches[names.indexOf(name)] ?? null;
    return new Map(
      bars.map((bar) => {
        const taken = formulaOf(bar, { find, percentOf: 'fats', batchG: 1000, superfatPct: 5 });
        if (!taken.ok) throw new Error(taken.faults.map(({ message }) => message).join(' '));
        return [bar.name, taken.formula] as const;
      }),
    );
  }

  for (const as of ['csv', 'csv-comma'])
    it(`come in again with the same lines, lye and liquid: ${as}`, async () => {
      const { body } = await go<string>('lists', 'GET', { query: `?list=recipes&as=${as}` });
      const text = typeof body === 'string' ? body : new TextDecoder().decode(body as ArrayBuffer);
      const rows = Papa.parse<string[]>(text.replace(/^\ufeff/, '').trim()).data;
      const bars = await takenFrom(rows);
      const stored = await demo
        .db('products as p')
        .join('formula_versions as v', 'v.product_id', 'p.id')
        .whereNull('p.put_away_on')
        .orderBy('v.number')
        .select<{ name: string; formula: string }[]>('p.name', 'v.formula');
      const newest = new Map(stored.map(({ name, formula }) => [name, JSON.parse(formula) as Formula]));
      expect([...bars.keys()].sort()).to.deep.equal([...newest.keys()].sort());
      const snapshot = await snapshotOf(demo.db, '2026-11-24');
      const linesOf = ({ lines }: Formula) =>
        lines.map(({ material, stage, amount }) => `${material} ${stage} ${amount.value} ${amount.unit}`);
      const masses = (formula: Formula) => {
        const request = { format: REQUEST_FORMAT, formula, markets: ['EU' as const], onDate: '2026-11-24' };
        const result = assess(request, snapshot);
        return result.ok
          ? result.assessment.lines.map(({ massG }) => Number(massG.toFixed(6)))
          : result.errors;
      };
      const ofBatch = ({
        process,
        bars,
        usedOn,
        scentNaming,
        cure,
        marginPct,
        alkali,
        portions,
      }: Formula) => ({
        ...{ process: process ?? 'cold', bars: bars ?? null, usedOn: usedOn ?? null },
        ...{
          naming: scentNaming ?? null,
          water: cure?.residualWaterPct ?? null,
          ratio: cure?.massRatio ?? null,
        },
        ...{ marginPct: marginPct ?? null, purityPct: alkali.purityPct ?? null, portions: portions ?? [] },
      });
      for (const [name, formula] of newest) {
        const read = bars.get(name)!;
        expect(linesOf(read), name).to.deep.equal(linesOf(formula));
        expect(read.alkali.superfatPct ?? null, name).to.equal(formula.alkali.superfatPct ?? null);
        expect(read.alkali.massG ?? null, name).to.equal(formula.alkali.massG ?? null);
        expect(read.liquid ?? null, name).to.deep.equal(formula.liquid ?? null);
        expect(masses(read), name).to.deep.equal(masses(formula));
        expect(ofBatch(read), name).to.deep.equal(ofBatch(formula));
        const portionsOf = ({ lines }: Formula) => lines.map(({ portion }) => portion ?? null);
        expect(portionsOf(read), name).to.deep.equal(portionsOf(formula));
      }
    });

  it('are one bar a version where versions of a bar differ, and never all of them together', async () => {
    const head = ['bar', 'version', 'material', 'amount', 'unit'];
    const version = (number: string, olive: string) => [
      ['Moss', number, 'Olive oil', olive, 'g'],
      ['Moss', number, 'Coconut oil', '200', 'g'],
      ['Moss', number, 'Water', '200', 'g'],
    ];
    const differing = await takenFrom([head, ...version('1', '500'), ...version('2', '450')]);
    expect([...differing].map(([name, { lines }]) => [name, lines.length])).to.deep.equal([
      ['Moss 1', 3],
      ['Moss 2', 3],
    ]);
    const alike = await takenFrom([head, ...version('1', '500'), ...version('2', '500')]);
    expect([...alike.keys()]).to.deep.equal(['Moss']);
  });

  it('have their stages read where they are said in words that are known, and no figures taken for them', () => {
    const read = (rows: string[][]) => {
      const layout = guessLayout(rows);
      return readSheet(rows, layout, 'Bar').bars[0]!.lines.map(({ amount, stage }) => [
        amount.value,
        stage ?? '',
      ]);
    };
    const fats = (added: string, when: string) => [
      ['Olive oil', added, when],
      ['Kaolin', '8 g', 'On top'],
    ];
    expect(read([['Ingredient', 'Amount', 'Goes in'], ...fats('500 g', 'Fats')])).to.deep.equal([
      [500, 'fats'],
      [8, 'top'],
    ]);
    expect(read([['Ingredient', 'Added', 'Phase'], ...fats('500 g', 'A')])).to.deep.equal([
      [500, ''],
      [8, 'top'],
    ]);
  });

  it('say every way in which lye and liquid are stated, so that it is read again', async () => {
    const lines: Formula['lines'] = [
      { id: 'a', material: 'olive', stage: 'fats', amount: { value: 62.5, unit: '%fats' } },
      { id: 'b', material: 'coconut', stage: 'fats', amount: { value: 37.5, unit: '%fats' } },
      { id: 'c', material: 'shea', stage: 'afterCook', amount: { value: 3, unit: '%fats' } },
      { id: 'd', material: 'kaolin', stage: 'intoFats', amount: { value: 1.5, unit: 'tspPerLbFats' } },
      { id: 'e', material: 'honey', stage: 'trace', amount: { value: 10, unit: 'gPerKgFats' } },
      { id: 'f', material: 'kaolin', stage: 'top', amount: { value: 2, unit: 'tbspMetric' } },
    ];
    for (const liquid of [
      { basis: 'ofFats', value: 33 },
      { basis: 'perAlkali', value: 2.1 },
      { basis: 'alkaliConcentration', value: 31.5 },
    ] as const)
      for (const alkali of [{ superfatPct: 6.5 }, { massG: 138.2 }]) {
        const formula: Formula = { fatsMassG: 1000, alkali, liquid, lines };
        const snapshot = await snapshotOf(demo.db, '2026-11-24');
        const rows = recipeRows(formula, (id) => snapshot.material(id)?.name ?? id).map((row) =>
          ['Trial', row.ingredient, row.amount, row.unit, row.stage].map(String),
        );
        const read = (await takenFrom([['bar', 'ingredient', 'amount', 'unit', 'stage'], ...rows])).get(
          'Trial',
        )!;
        expect(read.liquid, JSON.stringify(liquid)).to.deep.equal(liquid);
        expect(read.fatsMassG).to.equal(1000);
        expect(read.alkali).to.deep.include(alkali);
        expect(read.lines.map(({ stage, amount }) => [stage, amount])).to.deep.equal(
          lines.map(({ stage, amount }) => [stage, amount]),
        );
      }
  });
});
