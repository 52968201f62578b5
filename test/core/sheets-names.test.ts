/** Which material a name in a sheet is taken for, and whether that is asked about. */
import { expect } from 'chai';
import { matchName, namedMaterials } from '../../src/core/sheets/match';
import { LIBRARY } from '../../src/library';

const MATERIALS = namedMaterials(LIBRARY);
const find = (name: string) => matchName(name, MATERIALS);

describe('names of materials', () => {
  it('answer to themselves, sure, whatever words they share with others', () => {
    const wrong = LIBRARY.filter(({ id, name }) => find(name)?.id !== id || !find(name)!.isSure);
    expect(wrong.map(({ name }) => name)).to.deep.equal([]);
  });

  it('that leave out which of a kind is meant are asked about, and kinds alone are none', () => {
    for (const name of ['Bay EO', 'Coffee', 'Clove EO', 'Cedarwood', 'Salt', 'Almond oil', 'Green clay'])
      expect(find(name)?.isSure, name).to.equal(false);
    expect(find('Salt')?.kind).to.equal('salt');
    for (const name of ['FO', 'EO', 'Oil', 'FO 2']) expect(find(name), name).to.equal(null);
    expect(find('Lime oil, cold pressed')?.id).to.not.equal(find('Lime oil, distilled')?.id);
  });
});
