import { expect } from 'chai';
import type { AssessmentRequest, Material } from '../../src/core/formula/types';
import { findRemedies } from '../../src/core/loads/remedies';
import { assessed, limitOn, MATERIALS, NOTHING_STORED, request, type ShortLine } from '../support/request';

const EUGENOL = limitOn({ type: 'constituent', id: 'eugenol' }, 0.66, { force: 'standard' });
const certified = (id: string, maxPct: number) =>
  limitOn({ type: 'material', id }, maxPct, { id: `cert-${id}` });
const OILS: ShortLine[] = [
  ['f', 'olive', 'fats', 1000, 'g'],
  ['w', 'water', 'liquid', 300, 'g'],
  ['clove', 'clove', 'trace', 6, 'g'],
  ['cin', 'cinnamon', 'trace', 4, 'g'],
];

function remediesFor(asked: AssessmentRequest, cupboard: Material[] = []) {
  return findRemedies(asked, assessed(asked), NOTHING_STORED, cupboard);
}

/** Applies a remedy and assesses it anew. */
function verdictOf(
  asked: AssessmentRequest,
  formula: AssessmentRequest['formula'],
  cupboard: Material[] = [],
) {
  return assessed({ ...asked, formula, materials: [...MATERIALS, ...cupboard] }).verdict;
}

describe('make it fit', () => {
  const limits = [EUGENOL, certified('clove', 9), certified('cinnamon', 9)];
  const over = request(OILS, {}, { rules: { replace: true, limits } });

  it('offers less of one oil, less of both, and drying less; each gives what it promises', () => {
    const found = remediesFor(over);
    expect(found.map(({ kind }) => kind)).to.include.members(['less', 'proportion', 'lessDry']);
    expect(found.filter(({ kind }) => kind === 'less').map(({ lines }) => lines[0])).to.have.members([
      'clove',
      'cin',
    ]);
    for (const { formula, verdict } of found) {
      expect(verdict).to.equal('tight');
      expect(verdictOf(over, formula!)).to.equal(verdict);
    }
    const both = found.find(({ kind }) => kind === 'proportion')!;
    // high 6.06 x 0.9 + 4.04 x 0.8 = 8.686 g in 1264.8 g is 0.687 %, against 0.66 %: a factor of 0.96 or so
    expect(both.kind === 'proportion' && both.factor).to.be.within(0.95, 0.965);
  });

  it('offers to weigh what is spooned, where that is what puts it at risk', () => {
    const spooned = request(
      [...OILS.slice(0, 2), ['k', 'clay', 'trace', 40, 'tbsp', { measuredBy: 'heaped' }]],
      {},
      { rules: { replace: true, limits: [limitOn({ type: 'kind', id: 'clay' }, 30, { force: 'law' })] } },
    );
    expect(assessed(spooned).verdict).to.equal('atRisk');
    const [first] = remediesFor(spooned);
    expect(first).to.deep.include({ kind: 'weigh', lines: ['k'], verdict: 'clear' });
    expect(verdictOf(spooned, first!.formula!)).to.equal('clear');
  });

  it('asks for the certificate of an unproven scent, and offers one of the same kind that fits', () => {
    const unproven = request([...OILS.slice(0, 2), ['p', 'perfume', 'trace', 20, 'g']]);
    const other: Material = {
      ...MATERIALS.find(({ id }) => id === 'perfume')!,
      id: 'other',
      name: 'Other',
      limits: [certified('other', 5)],
    };
    const strict: Material = { ...other, id: 'strict', name: 'Strict', limits: [certified('strict', 0.5)] };
    const found = remediesFor(unproven, [other, strict, ...MATERIALS]);
    expect(found.map(({ kind }) => kind)).to.deep.equal(['askCertificate', 'swap']);
    expect(found[0]).to.deep.include({ lines: ['p'], formula: null });
    expect(found[1]).to.include({ material: 'other', verdict: 'clear' });
    expect(verdictOf(unproven, found[1]!.formula!, [other])).to.equal('clear');
  });

  it('has nothing to offer a bar that fits, and never a load of nothing', () => {
    expect(
      remediesFor(
        request(
          OILS,
          {},
          { rules: { replace: true, limits: [certified('clove', 9), certified('cinnamon', 9)] } },
        ),
      ),
    ).to.deep.equal([]);
    const prohibited = remediesFor(
      request(OILS, {}, { rules: { replace: true, limits: [{ ...EUGENOL, maxPct: 0 }] } }),
    );
    expect(prohibited.map(({ kind }) => kind)).to.deep.equal(['askCertificate', 'askCertificate']);
  });
});
