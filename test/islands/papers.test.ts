/** What becomes of a reading that a maker looks at: all taken but the doubtful, and rows keyed in beside. */
import { expect } from 'chai';
import { linesFromText } from '../../src/core/paperwork/page';
import { readPaper } from '../../src/core/paperwork/read';
import {
  byHand,
  draftFrom,
  faultsOf,
  papersFrom,
  withKeyed,
  withTheCertain,
} from '../../src/islands/papers/draft';
import { knownConstituents } from '../../src/library/constituents';

const MATERIALS = [{ id: 'rainy-fig', name: 'Rainy Fig' }];
const PAPER = {
  lines: linesFromText(
    'Fernhollow Oils Ltd\nProduct: Rainy Fig\nCertificate number: FO-5512\nDate of issue: 9 January 2026\nComplies with the 51st Amendment\nCategory 4   7.9 %\nCategory 9   3.18 %\nLinalool   78-70-6   0.5 - 1.2 %\nUnheard of   12345-67-8   0.1 %',
  ),
};
const read = () => readPaper(PAPER, knownConstituents, []);

describe('a paper read from a picture', () => {
  it('is taken by one press but for what is doubtful', () => {
    const draft = draftFrom(read(), MATERIALS, null, PAPER);
    expect(faultsOf(draft)).to.not.deep.equal([]);
    const taken = withTheCertain(draft);
    expect(taken.rows.map(({ name, isTaken }) => `${name} ${isTaken}`)).to.deep.equal([
      'Linalool true',
      'Unheard of false',
    ]);
    expect(taken.fields.number.isLooked).to.equal(true);
    const badly = {
      lines: PAPER.lines.map((line, at) =>
        at === 2 || at === 5
          ? { ...line, cells: line.cells.map((cell) => ({ ...cell, isUnsure: true })) }
          : line,
      ),
    };
    const unsure = withTheCertain(draftFrom(read(), MATERIALS, null, badly));
    expect(unsure.fields.number.isLooked).to.equal(false);
    expect(unsure.fields.number.question).to.contain('little certainty');
    expect(unsure.questions.join(' ')).to.contain('compare them: category 4 (7.9 %)');
    const doubtful = { ...draft.fields.issuer, question: 'Is this who issued it?', isLooked: false };
    const still = withTheCertain({ ...draft, fields: { ...draft.fields, issuer: doubtful } });
    expect(still.fields.issuer.isLooked).to.equal(false);
  });
});

describe('a paper keyed in', () => {
  it('takes no level that is asked about: what may be ten times too high waits', () => {
    const none = readPaper({ lines: [] }, knownConstituents, []);
    const empty = byHand(draftFrom(none, MATERIALS, 'rainy-fig'));
    const reading = readPaper(
      {
        lines: linesFromText(
          'Category 4   2.1 %\nCategory 5A   1.9 %\nCategory 6   1.2 %\nCategory 9   79 %',
        ),
      },
      knownConstituents,
      [],
    );
    const keyed = withKeyed(empty, reading);
    expect(keyed.otherCategories.map(({ category }) => category)).to.deep.equal(['4', '5A', '6']);
    expect(keyed.fields.maxPct.isLooked).to.equal(false);
    expect(keyed.fields.maxPct.question).to.be.a('string');
  });

  it('is filed as it was typed, with its rows and the levels of other categories', () => {
    const none = readPaper({ lines: [] }, knownConstituents, []);
    const empty = byHand(draftFrom(none, MATERIALS, 'rainy-fig'));
    expect(empty.questions).to.deep.equal([]);
    const keyed = withKeyed(empty, read());
    const again = withKeyed(
      keyed,
      readPaper({ lines: linesFromText('Category 4   6.1 %') }, knownConstituents, []),
    );
    expect(again.otherCategories).to.deep.equal([{ category: '4', maxPct: 6.1 }]);
    const typed = {
      ...again,
      fields: {
        ...again.fields,
        number: { ...again.fields.number, text: 'BH-1' },
        issuer: { ...again.fields.issuer, text: 'Fernhollow' },
        issuedOn: { ...again.fields.issuedOn, text: '2026-01-09' },
      },
    };
    expect(faultsOf(typed)).to.deep.equal([]);
    const [certificate, allergens] = papersFrom(typed, 'Typed in by hand');
    expect(certificate).to.include({ type: 'certificate', number: 'BH-1', maxPct: 3.18 });
    expect(allergens!.constituents![0]).to.deep.equal({
      id: 'linalool',
      lowPct: 0.5,
      typicalPct: 0.85,
      highPct: 1.2,
    });
  });
});
