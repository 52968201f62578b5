/** A paper that came before with the same number says what it says otherwise now, line by line. */
import { expect } from 'chai';
import { saysOtherwise } from '../../src/core/paperwork/came-before';
import type { AcceptedPaper, MaterialDocument } from '../../src/core/records/papers';

const PAPER: AcceptedPaper = {
  type: 'certificate',
  number: 'WS-77',
  edition: '51st',
  issuedOn: '2026-03-03',
  issuer: 'Weir Street Oils',
  category: '9',
  maxPct: 2.75,
  otherCategories: [{ category: '4', maxPct: 1.25 }],
  flashPointC: 82,
};
const filed = (more: Partial<MaterialDocument> = {}): MaterialDocument => ({
  ...PAPER,
  ...{ id: 'd', materialId: 'm', takenOn: '2026-04-01' },
  ...more,
});

describe('a paper of a number that is on file', () => {
  it('says what it says otherwise, and nothing where it says the same', () => {
    expect(saysOtherwise(PAPER, [])).to.equal(null);
    expect(saysOtherwise(PAPER, [filed({ number: 'WS-78' }), filed({ type: 'allergens' })])).to.equal(null);
    expect(saysOtherwise(PAPER, [filed({ number: ' ws-77 ' })])).to.deep.equal([]);
    const now: AcceptedPaper = { ...PAPER, maxPct: 2.5, otherCategories: [], vanillinPct: 0.2 };
    expect(saysOtherwise(now, [filed()])).to.deep.equal([
      'category 9: 2.75 % before, 2.5 % now',
      'category 4: 1.25 % before, nothing now',
      'vanillin: nothing before, 0.2 % now',
    ]);
    // Of two on file, the one that was taken in last.
    const older = filed({ id: 'o', takenOn: '2025-01-01', maxPct: 9 });
    expect(saysOtherwise(PAPER, [older, filed({ maxPct: 3 })])).to.deep.equal([
      'category 9: 3 % before, 2.75 % now',
    ]);
  });

  it('holds constituents beside each other', () => {
    const rows = (highPct: number) => [{ id: 'linalool', lowPct: 1, typicalPct: 2, highPct }];
    const paper: AcceptedPaper = { ...PAPER, type: 'allergens', constituents: rows(3) };
    expect(saysOtherwise(paper, [filed({ type: 'allergens', constituents: rows(4) })])).to.deep.equal([
      'linalool: 1 to 4 % before, 1 to 3 % now',
    ]);
  });
});
