/** Cautions at their step, spoons as they are in the formula, and the order of the pot. */
import { expect } from 'chai';
import type { TraitMaterial } from '../../src/core/formula/traits';
import { assess } from '../../src/core/assess';
import { REQUEST_FORMAT, type Formula } from '../../src/core/formula/types';
import { exactness } from '../../src/core/making/exact';
import { ownSpoon } from '../../src/core/making/own-spoon';
import { cautionsAt, isPlaced, momentsOf } from '../../src/core/making/moments';
import { runSheet } from '../../src/core/making/run-sheet';
import type { RunSheet } from '../../src/core/making/run-sheet-types';
import { spoonsSaid } from '../../src/core/making/spoons';
import { LIBRARY, libraryMaterial } from '../../src/library';
import { limitOn, lines, type ShortLine } from '../support/request';

const FATS: ShortLine[] = [
  ['o', 'olive', 'fats', 700, 'g'],
  ['c', 'coconut', 'fats', 300, 'g'],
  ['w', 'water', 'liquid', 330, 'g'],
];

function sheetOf(...more: ShortLine[]): RunSheet {
  const all = lines([...FATS, ...more]).map((line) => ({
    ...line,
    ...(line.amount.unit === 'tsp' ? { measuredBy: 'spoon' as const } : {}),
  }));
  const formula: Formula = { alkali: { superfatPct: 6 }, cure: { residualWaterPct: 8 }, lines: all };
  const materials = all.map(({ material }) => libraryMaterial(material) as TraitMaterial);
  const made = runSheet(formula, materials, { onDate: '2026-11-30' });
  if (!made.ok) throw new Error(JSON.stringify(made.errors));
  return made;
}
const stepOf = ({ steps }: RunSheet, material: string) =>
  steps.find(({ weigh }) => weigh.some((one) => one.material === material))!;

describe('cautions at their step', () => {
  it('places every caution of the library by a rule', () => {
    const all = LIBRARY.flatMap(({ cautions = [] }) => cautions);
    expect(all.length).to.be.above(30);
    expect(all.filter((one) => !isPlaced(one))).to.deep.equal([]);
  });

  it('shows a caution where it bites: alcohol at the liquid, dust in the pot, and what was never heard of at once', () => {
    expect(momentsOf('Boil the alcohol off first, or the lye boils over.')).to.include('liquid');
    expect(momentsOf('Something of one’s own.')).to.deep.equal(['choice', 'pot']);
    const boils = LIBRARY.find(({ cautions }) =>
      cautions?.some((one) => one.startsWith('Boil the alcohol and')),
    )!;
    const step = stepOf(sheetOf(['b', boils.id, 'liquid', 100, 'g']), boils.id);
    expect(step.cautions.join(' ')).to.contain('Boil the alcohol and the gas off first');
    expect(
      stepOf(sheetOf(['t', 'titanium-dioxide', 'trace', 5, 'g']), 'titanium-dioxide').cautions.join(' '),
    ).to.contain('Do not breathe the dust');
    expect(cautionsAt(undefined, 'pot')).to.deep.equal([]);
  });

  it('says what alkali in the eyes wants', () => {
    const alkali = sheetOf().steps.find(({ id }) => id === 'weigh-alkali')!;
    expect(alkali.cautions.join(' ')).to.match(/eyes: running water for 15 minutes, then a doctor/);
  });
});

describe('the order of the pot', () => {
  it('lays silk into the liquid and takes it apart in hot lye, never “until nothing is left” in plain liquid', () => {
    const sheet = sheetOf(['s', 'tussah-silk', 'lye', 1, 'g']);
    const silk = stepOf(sheet, 'tussah-silk');
    expect(silk.how)
      .to.contain('in the heat of the lye, not before')
      .and.not.contain('until nothing is left');
    const joined = sheet.steps.find(({ id }) => id === 'lye')!;
    expect(joined.after).to.include(silk.id);
    expect(joined.how).to.match(/while it is hot, until no thread of .*silk.* is left/i);
    expect(sheetOf().steps.find(({ id }) => id === 'lye')!.how).not.to.contain('thread');
  });

  it('thins honey, waits with salt, puts solids in and pours liquids, and freezes what is milky', () => {
    const sheet = sheetOf(
      ['h', 'honey', 'trace', 20, 'g'],
      ['k', 'sea-salt-fine', 'trace', 100, 'g'],
      ['m', 'goat-milk', 'liquid', 50, 'g'],
    );
    expect(stepOf(sheet, 'honey').how).to.match(/Thin it with as much warm water/);
    expect(stepOf(sheet, 'sea-salt-fine').how).to.match(/must not sink/);
    expect(stepOf(sheet, 'coconut').how)
      .to.match(/Put in Coconut oil/)
      .and.not.match(/splashes/);
    expect(stepOf(sheet, 'olive').how).to.match(/Pour in .* it splashes/);
    expect(stepOf(sheet, 'goat-milk').how).to.match(/Frozen or ice cold/);
    expect(stepOf(sheet, 'water').how).not.to.match(/Frozen/);
  });
});

describe('spoons', () => {
  it('are said as they are in the formula, to the eighth, with the grams about', () => {
    const step = stepOf(sheetOf(['r', 'poppy-seed', 'trace', 2, 'tsp']), 'poppy-seed');
    const { massG } = step.weigh[0]!;
    expect(step.how).to.contain('Take 2 level teaspoons of Poppy seed (about');
    expect(step.how).to.contain(`${massG.toFixed(1)} g; weigh it to clear the doubt`);
    expect(spoonsSaid(1.5, 'tsp', 'spoon')).to.equal('1½ level teaspoons');
    expect(spoonsSaid(0.26, 'tbsp', 'heaped')).to.equal('¼ heaped tablespoon');
    expect(spoonsSaid(1, 'cup', 'eye')).to.equal('1 cup');
  });

  it('are weighed by their maker: mean and spread take the place of the usual doubt, everywhere', () => {
    const found = ownSpoon([4.2, 4.5, 4.4], 'tsp')!;
    expect([found.meanG.toFixed(2), found.gPerMl]).to.deep.equal(['4.37', 0.8859]);
    // t of two degrees of freedom 2.92, a spread of 0.1528 g, one spoon more: 2.92 · 0.1528 · √(4/3) / 4.367.
    expect(found.pct).to.be.closeTo(11.8, 0.05);
    expect([ownSpoon([4.2, 4.5], 'tsp'), ownSpoon([4, 0, 4], 'tsp')]).to.deep.equal([null, null]);
    expect(ownSpoon([4, 4, 4], 'tsp')!.pct).to.equal(2);
    const formula: Formula = {
      alkali: { superfatPct: 6 },
      cure: { residualWaterPct: 8 },
      lines: lines([...FATS, ['k', 'kaolin', 'trace', 2, 'tsp']]).map((line) =>
        line.id === 'k' ? { ...line, measuredBy: 'spoon' } : line,
      ),
    };
    const rangeOf = (spoonPct: number | null) => {
      const kaolin = { ...libraryMaterial('kaolin')!, spoonPct };
      const find = (id: string) => (id === 'kaolin' ? kaolin : libraryMaterial(id));
      const request = { format: REQUEST_FORMAT, formula, markets: ['EU' as const], onDate: '2026-11-30' };
      const limit = limitOn({ type: 'material', id: 'kaolin' }, 5);
      const result = assess(request, { material: find, limits: [limit], declarables: [] });
      if (!result.ok) throw new Error('does not reckon');
      const { nominalPct, lowPct, highPct } = result.assessment.limits.find(({ id }) => id === limit.id)!;
      return [lowPct / nominalPct, highPct / nominalPct];
    };
    const [usual, own] = [rangeOf(null), rangeOf(4)];
    expect(usual[1]! - 1).to.be.closeTo(0.15, 0.01);
    expect([1 - own[0]!, own[1]! - 1].map((one) => one.toFixed(2))).to.deep.equal(['0.04', '0.04']);
  });

  it('are told in ounces where the house weighs so, the grams beside', () => {
    const all = lines([...FATS, ['r', 'poppy-seed', 'trace', 2, 'tsp']]).map((line) =>
      line.id === 'r' ? { ...line, measuredBy: 'spoon' as const } : line,
    );
    const materials = all.map(({ material }) => libraryMaterial(material) as TraitMaterial);
    const made = runSheet({ alkali: { superfatPct: 6 }, lines: all }, materials, { weights: 'oz' });
    if (!made.ok) throw new Error(JSON.stringify(made.errors));
    expect(stepOf(made, 'olive').how).to.contain('until it shows 24.69 oz (700 g): it splashes');
    expect(stepOf(made, 'poppy-seed').how).to.match(/Take 2 level teaspoons .*\(about 0\.\d+ oz \(/);
    expect(stepOf(sheetOf(), 'olive').how).to.contain('until it shows 700 g: it splashes');
  });

  it('each step says how exact it must be, and why', () => {
    const { steps } = sheetOf();
    const of = (material: string) =>
      steps.flatMap(({ weigh }) => weigh).find((one) => one.material === material)!;
    expect(exactness(of('sodium-hydroxide'), 'scale').how).to.equal('gram');
    const olive = exactness(of('olive'), 'scale');
    expect([olive.how, Number(olive.pct.toFixed(1))]).to.deep.equal(['within', 2]);
    expect(exactness({ ...of('olive'), overG: 1 }, 'spoon').why).to.match(/limit/);
    // By spoon is fine where the formula takes it by spoon; by eye only where it says so.
    const ways = (['spoon', 'heaped', 'eye'] as const).map((measure) => exactness(of('olive'), measure).how);
    expect(ways).to.deep.equal(['spoon', 'heaped', 'eye']);
  });
});
