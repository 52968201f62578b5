/** First bars by their purpose stand clear everywhere; recipes typed as text read as they were meant. */
import { expect } from 'chai';
import { assess } from '../../src/core/assess';
import { PURPOSE, PURPOSES, purposeFormula } from '../../src/core/formula/purposes';
import { MARKETS, REQUEST_FORMAT } from '../../src/core/formula/types';
import { recipeOf, type Answers } from '../../src/islands/range/recipe';
import { matchName, namedMaterials } from '../../src/core/sheets/match';
import { readText } from '../../src/core/sheets/text';
import { LIBRARY, libraryMaterial } from '../../src/library';
import { rulebook } from '../../src/rulebook';

const DAY = '2026-11-30';
const { limits, declarables } = rulebook();
const stored = { material: (id: string) => libraryMaterial(id), limits, declarables };
const NAMED = namedMaterials(LIBRARY);

describe('first bars by their purpose', () => {
  for (const id of PURPOSES)
    it(`${id}: reckons, adds up, and no limit of any market stands against it`, () => {
      const formula = purposeFormula(id, 'First');
      const result = assess(
        { format: REQUEST_FORMAT, formula, markets: [...MARKETS], onDate: DAY, firstPlacedOn: {} },
        stored,
      );
      expect(result.ok, JSON.stringify(!result.ok && result.errors)).to.equal(true);
      if (!result.ok) return;
      expect(result.assessment.markets.map(({ verdict }) => verdict)).to.deep.equal(
        MARKETS.map(() => 'clear'),
      );
      const fats = Object.values(PURPOSE[id].fats);
      expect(fats.reduce((sum, pct) => sum + pct, 0)).to.equal(100);
      expect(result.assessment.superfat.effectivePct).to.be.within(PURPOSE[id].superfatPct - 1e-9, 25);
      expect(result.assessment.notes.filter(({ severity }) => severity === 'danger')).to.deep.equal([]);
      expect(PURPOSE[id].reasons.length).to.be.above(1);
    });
});

/** What a text reads as: `name=value unit`, a line each. */
const CASES: readonly (readonly [text: string, lines: string[], faults?: number])[] = [
  [
    '500 g olive, 150 coconut, 33 % water, 2 tsp pink clay',
    ['olive=500 g', 'coconut=150 g', 'water=33 %', 'pink clay=2 tsp'],
  ],
  ['700 olive,300 coconut', ['olive=700 g', 'coconut=300 g']],
  ['Olive oil: 45%\nCoconut oil 25 %\nlye 140 g', ['Olive oil=45 %', 'Coconut oil=25 %', 'lye=140 g']],
  [
    '- 800g coconut oil\n* 200 g of shea butter\n• salt 500',
    ['coconut oil=800 g', 'shea butter=200 g', 'salt=500 g'],
  ],
  ['1 lb 8 oz olive oil; 12 oz coconut', ['olive oil=24 oz', 'coconut=12 oz']],
  ['½ tsp ppo lavender eo + 1 tbsp honey', ['lavender eo=0.5 tspPerLbFats', 'honey=1 tbsp']],
  ['honey, 1 tbsp, olive oil, 500 g', ['honey=1 tbsp', 'olive oil=500 g']],
  ['water 12,5 oz\ncastor 62.5g', ['water=12.5 oz', 'castor=62.5 g']],
  ['500 g Olivenöl, 1 TL Honig', ['Olivenöl=500 g', 'Honig=1 tsp']],
  ['olive oil – 400 g, superfat 6 %', ['olive oil=400 g', 'superfat=6 %']],
  ['1. olive 300\n2. coconut 100', ['olive=300 g', 'coconut=100 g']],
  ['olive oil, some coconut', [], 2],
  ['olive 300, and then stir', ['olive=300 g'], 1],
  ['2-3 g mica, olive 300', ['olive=300 g'], 1],
];

describe('a recipe as text', () => {
  for (const [text, lines, faults = 0] of CASES)
    it(JSON.stringify(text), () => {
      const read = readText(text, 'g');
      const said = read.bar.lines.map(({ name, amount }) => `${name}=${amount.value} ${amount.unit}`);
      expect([said, read.faults.length]).to.deep.equal([lines, faults]);
    });

  it('takes its name from a first line without a figure, how many bars it makes, and ounces where the house weighs so', () => {
    const { bar, bars } = readText('Brine:\nFats\n8 coconut\n2 shea\nmakes 12 bars', 'oz');
    expect([bar.name, bars]).to.deep.equal(['Brine', 12]);
    expect(bar.lines.map(({ amount }) => amount)).to.deep.equal([
      { value: 8, unit: 'oz' },
      { value: 2, unit: 'oz' },
    ]);
  });

  it('is a formula, with what is open asked: a name not known, a percent of a scent', () => {
    const answers = (text: string, scentPercents: Answers['scentPercents'] = null): Answers => ({
      matches: new Map(readText(text, 'g').bar.lines.map(({ name }) => [name, matchName(name, NAMED)])),
      ...{ chosen: {}, weights: 'g', scentPercents },
    });
    const text = '700 g olive oil, 300 g coconut oil, 33 % water, 3 % lavender oil';
    const open = recipeOf(text, answers(text));
    expect([open.asksScents, open.faults]).to.deep.equal([true, []]);
    const said = recipeOf(text, answers(text, '%pour'));
    const scent = said.formula!.lines.at(-1)!;
    expect([said.asksScents, scent.amount, scent.stage]).to.deep.equal([
      ...[false, { value: 3, unit: '%pour' }, 'trace'],
    ]);
    expect(said.formula!.lines[2]!.amount).to.deep.equal({ value: 33, unit: '%fats' });
    const unknown = '700 g olive oil, 300 g moonmilk';
    const asked = recipeOf(unknown, answers(unknown));
    expect([asked.formula, asked.faults]).to.deep.equal([
      null,
      ['“moonmilk” is not known. Choose the material it is.'],
    ]);
    const byHand = recipeOf(unknown, {
      ...answers(unknown),
      chosen: { moonmilk: { id: 'goat-milk', title: 'Goat milk', kind: 'milk' } },
    });
    expect(byHand.formula!.lines[1]!.material).to.equal('goat-milk');
  });
});
