/** What the wrap offers beside a label: the usual cautions, claims and checklists, and who brings what to a list. */
import { expect } from 'chai';
import type { TraitMaterial } from '../../src/core/formula/traits';
import { readList } from '../../src/core/ingredients/reading';
import { proposeCautions } from '../../src/core/labels/cautions';
import { mixFinder } from '../../src/core/formula/mix';
import { libraryMaterial } from '../../src/library';
import { assessed, MATERIALS, request } from '../support/request';

describe('help with a label', () => {
  it('proposes the usual cautions for what is in the bar, in both languages', () => {
    const of = (...ids: string[]) => proposeCautions(ids.map((id) => libraryMaterial(id) as TraitMaterial));
    expect(of('olive').en).to.equal('Avoid contact with eyes; rinse well if it happens.');
    expect(of('olive', 'pumice-fine').en).to.contain('not for the face');
    expect(of('peppermint-oil').en).to.contain('not for small children');
    expect(of('activated-charcoal').fr).to.contain('tacher');
  });

  it('proposes them for what stands in a mix, and in a mix of mixes, too', () => {
    const parts = (...ids: string[]) => ids.map((material) => ({ material, parts: 1 }));
    const mixes = new Map(
      [
        { id: 'cool', name: 'Cool', parts: parts('lavender-oil', 'peppermint-oil') },
        { id: 'grit', name: 'Grit', parts: parts('kaolin', 'pumice-fine', 'activated-charcoal') },
        { id: 'both', name: 'Both', parts: parts('cool', 'grit') },
        { id: 'brine', name: 'Brine', parts: [...parts('sea-salt-coarse'), { material: 'water', parts: 4 }] },
        { id: 'rub', name: 'Rub', parts: parts('sea-salt-coarse', 'kaolin') },
        { id: 'plain', name: 'Plain', parts: parts('kaolin', 'olive') },
      ].map((mix) => [mix.id, mix]),
    );
    const find = mixFinder(libraryMaterial, mixes);
    const of = (id: string) => proposeCautions([find(id) as TraitMaterial]).en;
    expect(of('plain')).to.equal('Avoid contact with eyes; rinse well if it happens.');
    // Salt is dissolved in brine; in a clay it still scratches.
    expect(of('brine')).not.to.contain('face');
    expect(of('rub')).to.contain('not for the face');
    expect(of('cool')).to.contain('not for small children').and.not.to.contain('face');
    expect(of('grit')).to.contain('not for the face').and.to.contain('stain');
    expect(of('both')).to.contain('children').and.to.contain('face').and.to.contain('stain');
  });

  it('reads a list: who brings an entry and why it stands where it does', () => {
    const a = assessed(
      request(
        [
          ['o', 'olive', 'fats', 1000, 'g'],
          ['w', 'water', 'liquid', 300, 'g'],
          ['k', 'clay', 'trace', 5, 'g'],
          ['r', 'red', 'trace', 20, 'g'],
          ['p', 'perfume', 'trace', 20, 'g'],
        ],
        {},
        {
          rules: {
            replace: true,
            declarables: [
              {
                id: 'linalool',
                name: 'Linalool',
                markets: ['EU'],
                thresholdPct: 0.001,
                allFrom: '2020-01-01',
              },
            ],
          },
        },
      ),
    );
    const list = a.ingredients.find(({ school }) => school === 'formed')!;
    const entries = new Map(readList(list, a, MATERIALS).map((entry) => [entry.name, entry]));
    expect(entries.get('Soap olive')).to.include({ why: 'the soap made of olive', place: 'by weight' });
    expect(entries.get('INCI clay')!.place).to.contain('any order');
    expect(entries.get('CI 77491')!.place).to.equal('colours come last');
    expect(entries.get('Parfum')!.why).to.contain('perfume');
    expect(entries.get('Linalool')!.why).to.contain('named above 0.001 %');
  });
});
