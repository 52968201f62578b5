/** The ways a pour can be rested or changed, the moulds it fills and the parts it is made of. */
import { expect } from 'chai';
import { heatBatters, lyePct } from '../../src/core/heat/batter';
import { filledShape } from '../../src/core/heat/mould';
import { simulate } from '../../src/core/heat/simulate';
import { advise, bandsOfWays, pourInWay, WAYS, type Question } from '../../src/core/heat/ways';
import type { Formula } from '../../src/core/formula/types';
import { LIBRARY } from '../../src/library';
import { around, batter, formulaOf, WOOD, type Asked } from '../support/heat';
import { many } from '../support/many';

describe('the ways a pour can be rested', () => {
  const question = (asked: Asked, more: Partial<Question> = {}): Question => ({
    formula: formulaOf(asked),
    materials: LIBRARY,
    mould: { id: 'm', name: 'Block', volumeMl: 1200, cavities: 12 },
    around: around('leave'),
    startC: 40,
    ...more,
  });

  it('reckons all six side by side, and says how far it is', () => {
    const work = bandsOfWays(question({}), { runs: 3 });
    const told: number[] = [];
    let next = work.next();
    for (; !next.done; next = work.next()) told.push(next.value);
    expect(told).to.deep.equal(Array.from({ length: 18 }, (_, at) => at + 1));
    expect(next.value.map(({ way }) => way)).to.deep.equal([...WAYS]);
  });

  it('advises the cold where sugars crack and milk scorches, and a blanket where the edge would stay behind', () => {
    const adviceFor = (asked: Asked, more: Partial<Question> = {}) => {
      const work = bandsOfWays(question(asked, more), { runs: many(12, 25) });
      let next = work.next();
      while (!next.done) next = work.next();
      return advise(next.value)!;
    };
    const sweet = adviceFor(
      {
        more: [
          ['honey', 3],
          ['coconut-milk', 10],
        ],
      },
      { startC: 45 },
    );
    expect(sweet.way).to.equal('chill');
    expect(sweet.avoids[0]!.what).to.equal('crack');
    const plain = adviceFor({}, { around: around('leave', 17) });
    expect(plain.way).to.equal('warm');
    expect(plain.avoids.map(({ what, instead }) => [what, instead])).to.deep.include(['ring', 'leave']);
    expect(plain.lookFrom).to.be.below(plain.lookTo);
  });

  it('pours less water as stronger lye, however it is stated', () => {
    const stated = (liquid: Formula['liquid']) => {
      const asked = question({});
      const { batters } = pourInWay({ ...asked, formula: { ...asked.formula, liquid } }, 'lessWater')!;
      return lyePct(batters[0]!);
    };
    const plain = lyePct(batter()[0]!);
    const ratio = (100 - plain) / plain;
    const found = [
      stated({ basis: 'ofFats', value: 33 }),
      stated({ basis: 'perAlkali', value: ratio }),
      stated({ basis: 'alkaliConcentration', value: plain }),
    ];
    for (const pct of found) expect(pct).to.be.closeTo(100 / (1 + 0.85 * ratio), 0.1);
  });

  it('fills a mould as high as the batter goes, by its own measures or by a guess', () => {
    const block = { id: 'm', name: 'Block', volumeMl: 1200, cavities: 12 };
    const guess = filledShape(block, 600);
    expect(guess.isGuessed).to.equal(true);
    const { lengthMm, widthMm, heightMm } = guess.shape;
    expect((lengthMm * widthMm * heightMm) / 1000).to.be.closeTo(600, 1e-6);
    const make = { wall: 'wood', form: 'column', widthMm: 80, lengthMm: 80 } as const;
    const column = filledShape({ ...block, make }, 5000);
    expect((Math.PI * 40 ** 2 * column.shape.heightMm) / 1000).to.be.closeTo(1200, 1e-6);
    const single = filledShape({ ...block, isSingle: true }, 1200);
    expect((single.shape.lengthMm * single.shape.widthMm * single.shape.heightMm) / 1000).to.be.closeTo(
      100,
      1e-6,
    );
  });

  it('lays portions one on the other, each with its own recipe, and is null where a formula does not reckon', () => {
    const formula = formulaOf({ more: [['table-salt', 40]] });
    const split: Formula = {
      ...formula,
      portions: [
        { id: 'grey', share: 0.5 },
        { id: 'white', share: 0.5 },
      ],
      lines: formula.lines.map((line) =>
        line.material === 'table-salt' ? { ...line, portion: 'grey' } : line,
      ),
    };
    const parts = heatBatters(split, LIBRARY)!;
    expect(parts.map(({ portion, saltG }) => [portion, Math.round(saltG)])).to.deep.equal([
      ['grey', 320],
      ['white', 0],
    ]);
    expect(parts[0]!.share).to.be.above(parts[1]!.share);
    const { firm } = simulate({ batters: parts, shape: WOOD, around: around('leave'), startC: 40 });
    expect(firm[0]!.middleHour).to.be.below(firm[1]!.edgeHour!);
    expect(heatBatters({ alkali: {}, lines: [] }, LIBRARY)).to.equal(null);
  });
});
