/** What the cupboard says is to be minded, and words that screens share. */
import { expect } from 'chai';
import type { Lot } from '../../src/core/making/cost';
import type { Formula } from '../../src/core/formula/types';
import { compareFormulas } from '../../src/core/formula/compare';
import { signsOf, stockOf } from '../../src/core/stock/signs';
import type { TraitMaterial } from '../../src/core/formula/traits';
import { bodyOf, draftOf, likeThis } from '../../src/islands/cupboard/material-draft';
import { applyTrial, daysOfChange, NOTHING_TRIED } from '../../src/islands/worktable/trial';
import { placeLine } from '../../src/islands/worktable/edits';
import { LIBRARY, libraryMaterial } from '../../src/library';
import { rulebook } from '../../src/rulebook';
import type { CupboardEntry } from '../../src/core/records/cupboard';
import { differenceInWords } from '../../src/ui/differences';
import { dayInWords, grams, money, percent, stock } from '../../src/ui/words';
import { lines } from '../support/request';

const TODAY = '2026-11-24';

function entry(id: string, more: Partial<CupboardEntry> = {}): CupboardEntry {
  const material = libraryMaterial(id)!;
  return {
    material,
    written: material,
    supplier: null,
    papers: { certificate: null, allergens: null },
    lots: [],
    mix: null,
    revision: 1,
    usedIn: 0,
    conditions: [],
    letters: [],
    isFromLibrary: true,
    ...more,
  };
}

const lot = (more: Partial<Lot>): Lot => ({
  id: 'l',
  material: 'm',
  supplier: '',
  code: 'L1',
  receivedOn: '2026-01-01',
  openedOn: null,
  bestBefore: null,
  quantityG: 100,
  leftG: 50,
  quarantine: null,
  price: null,
  revision: 1,
  ...more,
});

describe('what is to be minded in the cupboard', () => {
  const short = (one: CupboardEntry) =>
    signsOf(one, { today: TODAY, peroxides: rulebook().peroxides }).map((sign) => sign.short);
  const certificate = (ask: string | null) => ({
    paper: {
      id: 'c',
      materialId: 'm',
      type: 'certificate' as const,
      number: 'C',
      edition: '51st',
      issuedOn: '2026-01-01',
      issuer: 'X',
    },
    others: [],
    reasons: ['the only one on file'],
    ask,
  });

  it('is a scent without a certificate, but not a clay or a mix without one', () => {
    expect(short(entry('clove-bud-oil'))).to.deep.equal(['no certificate']);
    expect(short(entry('kaolin'))).to.deep.equal([]);
    expect(short(entry('clove-bud-oil', { mix: [{ material: 'x', parts: 1 }] }))).to.deep.equal([]);
    expect(
      short(entry('clove-bud-oil', { papers: { certificate: certificate(null), allergens: null } })),
    ).to.deep.equal([]);
  });

  it('is a paper to ask for, a lot past its day, and citrus opened long ago, gravest first', () => {
    const papers = { certificate: certificate('Ask for a new one.'), allergens: null };
    const old = lot({ bestBefore: '2026-06-01' });
    const opened = lot({ code: 'L2', openedOn: '2025-01-01' });
    expect(short(entry('sweet-orange-oil', { papers, lots: [opened, old] }))).to.deep.equal([
      'past its day',
      'ask for paper',
      'opened long ago',
    ]);
    expect(
      short(entry('sweet-orange-oil', { papers, lots: [lot({ bestBefore: '2026-06-01', leftG: 0 })] })),
    ).to.deep.equal(['ask for paper']);
  });

  it('is a lot whose paper tells of too much peroxide, before anything else', () => {
    const measured = lot({ openedOn: '2025-01-01', peroxideMmolPerL: 31, peroxideOn: '2026-10-01' });
    expect(short(entry('sweet-orange-oil', { lots: [measured] }))[0]).to.equal('no certificate');
    expect(short(entry('sweet-orange-oil', { lots: [measured] }))).to.include('too much peroxide');
    const fine = { ...measured, peroxideMmolPerL: 3 };
    expect(short(entry('sweet-orange-oil', { lots: [fine] }))).to.deep.equal(['no certificate']);
  });

  it('adds up what is left over all lots', () => {
    expect(stockOf([lot({ leftG: 20 }), lot({ leftG: 30 })])).to.equal(50);
    expect(stockOf([])).to.equal(0);
  });
});

const FORMULA: Formula = {
  fatsMassG: 1000,
  alkali: { superfatPct: 5 },
  liquid: { basis: 'ofFats', value: 33 },
  cure: { residualWaterPct: 8 },
  lines: lines([
    ['a', 'olive', 'fats', 100, '%fats'],
    ['b', 'clove', 'trace', 1, '%fats'],
    ['c', 'clay', 'intoFats', 2, '%fats'],
    ['d', 'perfume', 'trace', 3, '%fats'],
  ]),
};

describe('dragging a line', () => {
  const order = (formula: Formula) => formula.lines.map(({ id, stage }) => `${id}:${stage}`).join(' ');

  it('puts it where another stands and gives it that place’s stage', () => {
    expect(order(placeLine(FORMULA, 'd', 'b'))).to.equal('a:fats d:trace b:trace c:intoFats');
    expect(order(placeLine(FORMULA, 'b', 'c'))).to.equal('a:fats c:intoFats b:intoFats d:trace');
    expect(placeLine(FORMULA, 'b', 'b')).to.equal(FORMULA);
    expect(placeLine(FORMULA, 'x', 'b')).to.equal(FORMULA);
  });
});

describe('what-if', () => {
  const trial = { ...NOTHING_TRIED, line: 'b' };

  it('changes nothing while nothing is tried, and only what is tried', () => {
    expect(applyTrial(FORMULA, trial)).to.equal(FORMULA);
    expect(applyTrial(FORMULA, { ...trial, cured: 4 }).cure).to.deep.equal({ residualWaterPct: 4 });
    expect(applyTrial({ ...FORMULA, cure: { massRatio: 0.9 } }, { ...trial, cured: 81 }).cure).to.deep.equal({
      massRatio: 0.81,
    });
    expect(applyTrial(FORMULA, { ...trial, superfat: 8 }).alkali).to.deep.equal({ superfatPct: 8 });
    const weighed = { ...FORMULA, alkali: { massG: 140 } };
    expect(applyTrial(weighed, { ...trial, superfat: 8 })).to.equal(weighed);
    const loaded = applyTrial(FORMULA, { ...trial, load: 150 });
    expect(loaded.lines.map(({ amount }) => amount.value)).to.deep.equal([100, 1.5, 2, 3]);
    expect(FORMULA.lines[1]!.amount.value).to.equal(1);
  });

  it('knows the days on which rules change, in order and each once', () => {
    const days = daysOfChange(rulebook(), TODAY);
    expect(days).to.include('2028-07-31').and.to.include('2028-08-01');
    expect(days).to.deep.equal([...new Set(days)].sort());
    expect(days.every((day) => day > TODAY)).to.equal(true);
    expect(daysOfChange(rulebook(), '2099-01-01')).to.deep.equal([]);
  });
});

describe('words that screens share', () => {
  it('tell differences between formulas as a maker would', () => {
    const after: Formula = {
      ...FORMULA,
      alkali: { superfatPct: 8 },
      lines: [
        FORMULA.lines[0]!,
        { ...FORMULA.lines[1]!, amount: { value: 2, unit: '%fats' }, measuredBy: 'spoon' },
        FORMULA.lines[2]!,
      ],
    };
    const names = (id: string) => id.toUpperCase();
    expect(compareFormulas(FORMULA, after).map((one) => differenceInWords(one, names))).to.deep.equal([
      'CLOVE 1 % fats → 2 % fats',
      'CLOVE: none → level spoon',
      'without PERFUME (3 % fats)',
      'superfat, %: 5 → 8',
    ]);
    const added = compareFormulas(after, FORMULA).map((one) => differenceInWords(one, names));
    expect(added).to.include('with PERFUME 3 % fats');
  });

  it('write masses, shares, money and days for reading', () => {
    expect([grams(1.234), grams(12.34), stock(999), stock(1500), stock(20000)]).to.deep.equal([
      '1.23\u00a0g',
      '12.3\u00a0g',
      '999\u00a0g',
      '1.5\u00a0kg',
      '20\u00a0kg',
    ]);
    expect([percent(0), percent(0.75), percent(12.345), percent(0.0123), percent(0.00012)]).to.deep.equal([
      '0\u00a0%',
      '0.75\u00a0%',
      '12.3\u00a0%',
      '0.0123\u00a0%',
      '0.00012\u00a0%',
    ]);
    expect(money(1.5, 'EUR')).to.equal('€1.50');
    expect(money(2, 'GBP')).to.equal('£2.00');
    expect(dayInWords('2026-11-24')).to.equal('24 Nov 2026');
  });
});

describe('the saponification value of an own fat', () => {
  const taken = (naohPerGram: string, alkali: 'NaOH' | 'KOH' | '') =>
    bodyOf({ ...draftOf(null, null), kind: 'fat', naohPerGram, alkali }, null).saponification!.naohPerGram;

  it('is taken of either alkali, in grams or milligrams, and never of one that nobody said', () => {
    expect(taken('190', 'KOH')).to.be.closeTo(0.1354, 1e-4);
    expect(taken('0.19', 'KOH')).to.be.closeTo(0.1354, 1e-4);
    expect(taken('135', 'NaOH')).to.equal(0.135);
    expect(taken('0,135', 'NaOH')).to.equal(0.135);
    expect(draftOf(null, null).alkali).to.equal('');
    expect(Number.isNaN(taken('190', ''))).to.equal(true);
    expect(draftOf(libraryMaterial('olive')!, null).alkali).to.equal('NaOH');
  });

  it('keeps how a material behaves through its form, and leaves what nobody said unknown', () => {
    for (const { id } of LIBRARY) {
      const known = libraryMaterial(id) as TraitMaterial;
      const { behaviour = {}, origin, concerns = [], fattyAcids = null } = known;
      const sent = bodyOf(draftOf(known, null), known);
      const { grainUm: _sent, ...kept } = sent.behaviour ?? {};
      const { grainUm: _known, ...had } = behaviour;
      expect(kept, id).to.deep.equal(had);
      expect([sent.origin, sent.concerns, sent.fattyAcids], id).to.deep.equal([origin, concerns, fattyAcids]);
    }
    const blank = bodyOf({ ...draftOf(null, null), name: 'Coal', kind: 'fragrance' }, null);
    expect([blank.behaviour, blank.origin]).to.deep.equal([{}, undefined]);
  });

  it('is like a relative in what that does, and keeps its own name, names and ceiling', () => {
    const clove = libraryMaterial('clove-bud-oil') as TraitMaterial;
    const draft = { ...draftOf(null, 'our still'), name: 'Clove of ours', inci: 'Own Name', ownMaxPct: '1' };
    const like = likeThis(draft, clove);
    expect([like.name, like.inci, like.supplier, like.ownMaxPct, like.kind]).to.deep.equal([
      ...['Clove of ours', 'Own Name', 'our still', '1', 'essentialOil'],
    ]);
    expect([like.speeds, like.origin]).to.deep.equal(['yes', clove.origin ?? '']);
  });
});
