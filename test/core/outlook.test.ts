/** Judgement calls, on bars as makers describe them. */
import { expect } from 'chai';
import type { TraitMaterial } from '../../src/core/formula/traits';
import type { Formula, UsedOn } from '../../src/core/formula/types';
import { outlookOn } from '../../src/core/outlook';
import type { Judgement } from '../../src/core/outlook/judge';
import { lineMarks } from '../../src/core/outlook/marks';
import { libraryMaterial } from '../../src/library';
import { shippedStore } from '../../src/server/store/snapshot';
import { assessed, lines, type ShortLine } from '../support/request';

const FATS: ShortLine[] = [
  ['o', 'olive', 'fats', 450, 'g'],
  ['c', 'coconut', 'fats', 250, 'g'],
  ['s', 'shea', 'fats', 250, 'g'],
  ['r', 'castor', 'fats', 50, 'g'],
  ['w', 'water', 'liquid', 330, 'g'],
];

function outlook(short: ShortLine[], superfatPct = 6, usedOn?: UsedOn): Record<Judgement['id'], Judgement> {
  const formula: Formula = {
    usedOn,
    alkali: { superfatPct },
    cure: { residualWaterPct: 8 },
    lines: lines(short),
  };
  const asked = {
    format: 'proportia.assessment-request/1',
    formula,
    markets: ['EU' as const],
    onDate: '2026-11-24',
  };
  const found = outlookOn(
    formula,
    assessed(asked, shippedStore('2026-11-24')),
    (id) => libraryMaterial(id) as TraitMaterial | undefined,
  );
  return Object.fromEntries(found.map((judgement) => [judgement.id, judgement])) as Record<
    Judgement['id'],
    Judgement
  >;
}

const withLines = (...more: ShortLine[]) => outlook([...FATS, ...more]);

describe('outlook', () => {
  it('finds nothing to mind in a plain balanced bar', () => {
    const minded = Object.values(withLines()).filter(({ grade }) => grade !== 'calm');
    expect(minded.map(({ id }) => id)).to.deep.equal([]);
  });

  it('adds sugar, honey and milk up for heat', () => {
    expect(withLines(['h', 'honey', 'trace', 10, 'g']).heat.grade).to.equal('calm');
    const together = withLines(
      ['h', 'honey', 'trace', 10, 'g'],
      ['b', 'birch-syrup', 'trace', 15, 'g'],
      ['m', 'goat-milk', 'liquid', 200, 'g'],
    );
    expect(together.heat.grade).to.equal('marked'); // 8 + 9.75 + 9 g of sugars on a kilo
    expect(together.heat.reasons).to.include.members(['Honey', 'Birch syrup', 'Goat’s milk']);
  });

  it('warns where several accelerants meet', () => {
    expect(withLines(['k', 'kaolin', 'intoFats', 20, 'g']).speed.grade).to.equal('some');
    const lively = withLines(
      ['k', 'kaolin', 'intoFats', 20, 'g'],
      ['b', 'beeswax', 'fats', 15, 'g'],
      ['e', 'clove-bud-oil', 'trace', 5, 'g'],
    );
    expect(lively.speed.grade).to.equal('marked');
  });

  it('browns by the vanillin of the scent', () => {
    expect(withLines(['v', 'benzoin-resinoid', 'trace', 10, 'g']).browning.grade).to.equal('some');
    expect(withLines(['v', 'vanillin', 'trace', 2, 'g']).browning).to.include({
      grade: 'marked',
      says: 'Turns dark brown.',
    });
  });

  it('knows the salted bar: hours to cut, lather only with lauric fats, weeping salts', () => {
    const salted = withLines(['x', 'sea-salt-fine', 'trace', 400, 'g']);
    expect(salted.cutting.says).to.contain('one to four hours');
    expect(salted.lather.grade).to.equal('marked');
    const coconut = outlook(
      [
        ['c', 'coconut', 'fats', 900, 'g'],
        ['o', 'olive', 'fats', 100, 'g'],
        ['w', 'water', 'liquid', 330, 'g'],
        ['x', 'sea-salt-fine', 'trace', 400, 'g'],
      ],
      18,
    );
    expect(coconut.lather.grade).to.equal('calm');
    expect(withLines(['x', 'dead-sea-salt', 'trace', 30, 'g']).weeping.grade).to.equal('marked');
    const brine = withLines(['x', 'table-salt', 'lye', 40, 'g']);
    expect([brine.cutting.grade, brine.lather.grade]).to.deep.equal(['calm', 'calm']);
  });

  it('calls a coconut bar with little superfat drying, and a generous one less so', () => {
    const bar = (superfat: number) =>
      outlook(
        [
          ['c', 'coconut', 'fats', 1000, 'g'],
          ['w', 'water', 'liquid', 330, 'g'],
        ],
        superfat,
      ).drying.grade;
    expect([bar(3), bar(10), bar(15), bar(20)]).to.deep.equal(['marked', 'marked', 'some', 'calm']);
  });

  it('keeps sharp grit and cooling oils from the face, and soft fats from long keeping', () => {
    const grit = withLines(['a', 'apricot-shell', 'trace', 20, 'g']);
    expect([grit.scratch.grade, grit.face.grade]).to.deep.equal(['marked', 'marked']);
    expect(withLines(['p', 'poppy-seed', 'trace', 20, 'g']).scratch.grade).to.equal('some');
    expect(withLines(['m', 'peppermint-oil', 'trace', 10, 'g']).face.reasons.join()).to.contain(
      'cools near the eyes',
    );
    const soft = outlook([
      ['g', 'grapeseed', 'fats', 600, 'g'],
      ['c', 'coconut', 'fats', 400, 'g'],
      ['w', 'water', 'liquid', 330, 'g'],
    ]);
    expect(soft.keeping.grade).to.equal('marked');
  });

  it('says which colours stain and which turn', () => {
    const dark = withLines(
      ['k', 'activated-charcoal', 'trace', 25, 'g'],
      ['n', 'nettle-powder', 'trace', 5, 'g'],
    );
    expect(dark.staining.grade).to.equal('marked');
    expect(dark.fading.reasons).to.deep.equal(['Nettle leaf powder: green, fades to brown']);
  });

  it('judges grains and faces by where the bar is used', () => {
    const on = (usedOn: UsedOn | undefined, ...more: ShortLine[]) => outlook([...FATS, ...more], 6, usedOn);
    const pumice: ShortLine = ['p', 'pumice-fine', 'trace', 30, 'g'];
    const salt: ShortLine = ['p', 'sea-salt-fine', 'trace', 100, 'g'];
    const grades = (more: ShortLine) =>
      ['hands', 'body', 'face'].map((usedOn) => on(usedOn as UsedOn, more).scratch.grade);
    expect(grades(pumice)).to.deep.equal(['some', 'marked', 'marked']);
    expect(grades(salt)).to.deep.equal(['calm', 'some', 'marked']);
    expect(on('face').scratch.grade).to.equal('calm');
    expect(on(undefined, pumice).scratch.grade).to.equal('marked'); // a body, where nothing is said
    expect(on('face', pumice).scratch.reasons.join()).to.contain('meant for the face');
    const mint: ShortLine = ['m', 'peppermint-oil', 'trace', 10, 'g'];
    expect(on('face', mint).face.grade).to.equal('marked');
    expect(on('face', mint).face.reasons.join()).to.contain('it is meant for one');
    expect(on('hands', mint).face.grade).to.equal('marked'); // still said, so that nobody sells it for a face
  });

  it('says “not known” of a fragrance nobody described, not “time to work”, and warns where one rices', () => {
    const scent = (behaviour?: TraitMaterial['behaviour']): TraitMaterial => ({
      ...{ id: 'own', name: 'Coal', kind: 'fragrance' },
      ...(behaviour ? { behaviour } : {}),
    });
    const speedOf = (material: TraitMaterial) => {
      const formula: Formula = {
        alkali: { superfatPct: 6 },
        lines: lines([...FATS, ['own', 'own', 'trace', 30, 'g']]),
      };
      const asked = {
        format: 'proportia.assessment-request/1',
        formula,
        markets: ['EU' as const],
        onDate: '2026-11-24',
      };
      const store = shippedStore('2026-11-24');
      const find = (id: string) => (id === 'own' ? material : (libraryMaterial(id) as TraitMaterial));
      const judged = outlookOn(formula, assessed(asked, { ...store, material: find }), find);
      return judged.find(({ id }) => id === 'speed')!;
    };
    const open = speedOf(scent());
    expect([open.grade, open.reasons]).to.deep.equal(['some', ['not known of Coal']]);
    expect(open.says).to.match(/^Not known/);
    expect(speedOf(scent({ speeds: false })).grade).to.equal('calm');
    const riced = speedOf(scent({ rices: true }));
    expect([riced.grade, riced.reasons]).to.deep.equal(['marked', ['Coal rices']]);
  });

  it('marks the line that causes it, grave first, and none that holds nothing', () => {
    const at = (id: string, more: Partial<Parameters<typeof lineMarks>[2]> = {}) =>
      lineMarks({ stage: 'trace' }, libraryMaterial(id) as TraitMaterial, {
        ...{ pctFats: 3, usedOn: 'body' as const, old: null },
        ...more,
      });
    const words = (marks: ReturnType<typeof lineMarks>) => marks.map((mark) => mark.words);
    expect(words(at('kaolin'))).to.deep.equal([]);
    expect(words(at('bentonite'))).to.include('swells');
    expect(words(at('clove-bud-oil'))).to.include('hurries');
    const scrub = (usedOn: UsedOn) =>
      at('walnut-shell', { usedOn }).find((mark) => mark.words === 'scratches')!;
    expect([scrub('body').isGrave, scrub('face').isGrave]).to.deep.equal([false, true]);
    const old = at('sweet-orange-oil', { old: 'Lot S was opened 17 months ago.' });
    expect([old[0]!.words, old[0]!.isGrave]).to.deep.equal(['old', true]);
    expect(at('bentonite', { pctFats: 0 })).to.deep.equal([]);
  });
});
