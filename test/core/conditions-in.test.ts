/** What only a paper shows, found on papers: lines written down before the finder was tried on them. */
import { expect } from 'chai';
import { spokenOf, spokenWordsOf } from '../../src/core/paperwork/conditions-in';
import { linesFromText } from '../../src/core/paperwork/page';
import { rulebook } from '../../src/rulebook';

/** Lines of papers, written down before the finder was tried on them: condition, line, what it states (null: no figure to take), whether it speaks of it at all. */
const LINES: [condition: string, line: string, states: number | null | 'silent'][] = [
  ['peanut-protein', 'Protein content   < 0.5 ppm', 0.5],
  ['peanut-protein', 'Residual protein (Bradford)  0.2 mg/kg', 0.2],
  ['peanut-protein', 'Proteingehalt: 0,3 mg/kg', 0.3],
  ['peanut-protein', 'Teneur en protéines résiduelles : inférieure à 0,5 ppm', 0.5],
  ['peanut-protein', 'Contenido de proteína   no detectado', null],
  ['peanut-protein', 'Protein: not detected (LOD 0.1 ppm)', 0.1],
  ['peanut-protein', 'Peanut protein 0.00003 %', 0.3],
  ['peanut-protein', 'Protein, ppb  400 ppb', 0.4],
  ['peanut-protein', 'Specification max. 0.5 ppm protein, result 0.2 ppm', null],
  ['peanut-protein', 'Free fatty acids 0.05 %', 'silent'],
  ['peanut-protein', 'Peroxide value 1.2 meq/kg', 'silent'],
  ['peanut-protein', 'Protein   0.5', null],
  ['peanut-protein', 'Eiwitgehalte  max. 0,4 ppm', 0.4],
  ['wheat-peptides', 'Average molecular weight of peptides: 3000 Da', 3],
  ['wheat-peptides', 'Mean molecular mass 2.9 kDa', 2.9],
  ['wheat-peptides', 'Mittlere Molmasse der Peptide 3.200 g/mol', 3.2],
  ['wheat-peptides', 'Poids moléculaire moyen 3 500 Da', 3.5],
  ['wheat-peptides', 'Peptide content 25 %', null],
  ['wheat-peptides', 'Molecular weight 350 - 5000 Da', null],
  ['tagetes-terthienyl', 'alpha-Terthienyl  0.21 %', 0.21],
  ['tagetes-terthienyl', 'α-Terthienyl content: 2100 ppm', 0.21],
  ['tagetes-terthienyl', 'Ocimene 40.2 %', 'silent'],
  ['charcoal-purity', 'Complies with the purity criteria for E 153', null],
  ['charcoal-purity', 'Entspricht den Reinheitskriterien für E153 (VO 231/2012)', null],
  ['charcoal-purity', 'Ash 2.1 %', 'silent'],
  ['certified-ci-19140', 'FDA certified, lot number AX1234', null],
  ['certified-ci-19140', 'Certification lot: AX1234', null],
  ['certified-ci-19140', 'ISO 9001 certified company', 'silent'],
  ['certified-ci-19140', 'Strength 91 %', 'silent'],
];

describe('what only a paper shows, on papers', () => {
  const conditionOf = (id: string) => rulebook().conditions.find((one) => one.id === id)!;

  for (const [condition, text, states] of LINES)
    it(`${condition}: “${text}”`, () => {
      const found = spokenOf(conditionOf(condition), linesFromText(text));
      expect(found.map(({ value }) => value)).to.deep.equal(states === 'silent' ? [] : [states]);
    });

  it('is looked for, whatever is asked of a material', () => {
    const asked = rulebook().conditions.filter(({ ofProduct }) => !ofProduct);
    expect(asked.filter(({ id }) => !spokenWordsOf(id)).map(({ id }) => id)).to.deep.equal([]);
  });
});
