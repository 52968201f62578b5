/** What the worktable does to a formula, and how it remembers. */
import { expect } from 'chai';
import type { Formula } from '../../src/core/formula/types';
import {
  addLine,
  changeLine,
  joinBatter,
  moveLine,
  removeLine,
  addPortion,
  removePortion,
  renamePortion,
  sharePortion,
  splitBatter,
} from '../../src/islands/worktable/edits';
import { historyReducer, startHistory, type History } from '../../src/ui/history';
import { asMultiples, governingLimit, othersShare, subjectName } from '../../src/islands/worktable/view';
import { libraryMaterial } from '../../src/library';
import { assessed, limitOn, lines, near, request } from '../support/request';

const FORMULA: Formula = {
  fatsMassG: 1000,
  alkali: { superfatPct: 5 },
  liquid: { basis: 'ofFats', value: 33 },
  lines: lines([
    ['l1', 'olive', 'fats', 70, '%fats'],
    ['l2', 'water', 'liquid', 100, '%liquid'],
    ['l3', 'coconut', 'fats', 30, '%fats'],
    ['l5', 'clay', 'trace', 2, '%fats'],
  ]),
};

describe('changes on the worktable', () => {
  it('adds a material where it usually goes in, modestly, under an id of its own', () => {
    const add = (id: string, formula = FORMULA) => {
      const { formula: changed, id: line } = addLine(formula, libraryMaterial(id)!);
      return changed.lines.find((entry) => entry.id === line)!;
    };
    expect(add('kaolin')).to.deep.include({
      id: 'l6',
      stage: 'intoFats',
      amount: { value: 1, unit: '%fats' },
    });
    expect(add('shea')).to.deep.include({ stage: 'fats', amount: { value: 5, unit: '%fats' } });
    expect(add('goat-milk')).to.deep.include({ stage: 'liquid', amount: { value: 50, unit: '%liquid' } });
    const bare = { ...FORMULA, fatsMassG: null, liquid: null };
    expect([add('shea', bare).amount, add('goat-milk', bare).amount]).to.deep.equal([
      { value: 10, unit: 'g' },
      { value: 10, unit: 'g' },
    ]);
    const taken = { ...FORMULA, lines: [...FORMULA.lines, { ...FORMULA.lines[0]!, id: 'l6' }] };
    expect(add('kaolin', taken).id).to.equal('l7');
  });

  it('moves a line among those of its stage only', () => {
    const order = (formula: Formula) => formula.lines.map(({ id }) => id).join(' ');
    expect(order(moveLine(FORMULA, 'l3', -1))).to.equal('l3 l2 l1 l5');
    expect(order(moveLine(FORMULA, 'l1', -1))).to.equal('l1 l2 l3 l5');
    expect(order(moveLine(FORMULA, 'l5', 1))).to.equal('l1 l2 l3 l5');
    expect(order(removeLine(FORMULA, 'l2'))).to.equal('l1 l3 l5');
  });

  it('splits the batter, shares it out, and joins it again without a trace', () => {
    const split = sharePortion(splitBatter(FORMULA), 'A', 0.7);
    expect(split.portions!.map(({ share }) => Number(share.toFixed(9)))).to.deep.equal([0.7, 0.3]);
    const moved = changeLine(split, 'l5', { portion: 'B' });
    expect(moved.lines[3]!.portion).to.equal('B');
    const joined = joinBatter(moved);
    expect(joined.portions).to.equal(null);
    expect(joined.lines.every(({ portion }) => portion === null)).to.equal(true);
    expect(sharePortion(FORMULA, 'A', 0.4)).to.equal(FORMULA);
  });

  it('has as many portions as wanted, by name, whose shares are one whatever is done to them', () => {
    const whole = ({ portions }: Formula) => (portions ?? []).reduce((sum, { share }) => sum + share, 0);
    const three = addPortion(sharePortion(splitBatter(FORMULA), 'A', 0.6));
    expect(three.portions!.map(({ id }) => id)).to.deep.equal(['A', 'B', 'C']);
    const named = renamePortion(changeLine(three, 'l5', { portion: 'C' }), 'C', 'white top');
    expect(named.lines.find(({ id }) => id === 'l5')!.portion).to.equal('white top');
    expect(renamePortion(named, 'A', 'white top')).to.equal(named);
    expect(renamePortion(named, 'A', '  ')).to.equal(named);
    const shared = sharePortion(named, 'white top', 0.1);
    expect(shared.portions!.at(-1)!.share).to.be.closeTo(0.1, 1e-4);
    for (const formula of [three, named, shared, addPortion(addPortion(shared))])
      expect(whole(formula)).to.be.closeTo(1, 1e-9);
    const gone = removePortion(shared, 'white top');
    expect(gone.lines.find(({ id }) => id === 'l5')!.portion).to.equal(null);
    expect(whole(gone)).to.be.closeTo(1, 1e-9);
    expect(removePortion(gone, 'A').portions).to.equal(null);
  });
});

describe('undo on the worktable', () => {
  const named = (name: string): Formula => ({ ...FORMULA, name });
  const change = (history: History<Formula>, name: string, key: string, at: number) =>
    historyReducer(history, { type: 'change', value: named(name), key, at });

  it('takes changes to one field within a moment back as one, others one by one', () => {
    let history = startHistory(named('start'));
    history = change(history, '2', 'amount l1', 1000);
    history = change(history, '25', 'amount l1', 1500);
    history = change(history, 'other', 'amount l3', 1600);
    history = change(history, 'later', 'amount l3', 9000);
    const names: (string | undefined)[] = [];
    for (let i = 0; i < 4; i++) {
      history = historyReducer(history, { type: 'undo' });
      names.push(history.present.name);
    }
    expect(names).to.deep.equal(['other', '25', 'start', 'start']);
    history = historyReducer(history, { type: 'redo' });
    expect(history.present.name).to.equal('25');
    expect(change(history, 'new', 'k', 0).future).to.deep.equal([]);
  });

  it('remembers a long session without growing for ever', () => {
    let history = startHistory(FORMULA);
    for (let i = 0; i < 500; i++) history = change(history, String(i), `key ${i}`, i);
    expect(history.past.length).to.equal(200);
    expect(history.past[0]!.name).to.equal('299');
  });
});

describe('what the worktable shows', () => {
  const eugenol = limitOn({ type: 'constituent', id: 'eugenol' }, 0.4);
  const loose = limitOn({ type: 'material', id: 'clove' }, 9);
  const a = assessed(
    request(
      [
        ['f', 'olive', 'fats', 1000, 'g'],
        ['c', 'clove', 'trace', 6, 'g'],
        ['n', 'cinnamon', 'trace', 4, 'g'],
      ],
      {},
      { rules: { replace: true, limits: [loose, eugenol] } },
    ),
  );

  it('holds a line against its worst limit, with what the others bring', () => {
    const limit = governingLimit(a, 'c')!;
    expect(limit.id).to.equal('max-eugenol');
    near(othersShare(limit, 'c'), 2.8 / 7.6); // cinnamon brings 4 x 0.7 of 7.6 g
    const { low, nominal, high } = asMultiples(limit);
    expect(low < nominal && nominal < high && nominal > 1).to.equal(true);
    expect(governingLimit(a, 'f')).to.equal(null);
    expect(subjectName(limit, String)).to.equal('Eugenol');
    expect(subjectName({ ...limit, subject: { type: 'kind', id: 'clay' } }, String)).to.equal(
      'Clays together',
    );
  });

  it('draws what is prohibited as far past as can be, and nothing of it as nothing', () => {
    const limit = { ...governingLimit(a, 'c')!, maxPct: 0 };
    expect(asMultiples(limit).nominal).to.equal(Infinity);
    expect(asMultiples({ ...limit, lowPct: 0, nominalPct: 0, highPct: 0 }).high).to.equal(0);
  });
});
