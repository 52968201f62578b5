/** What a bar is said not to be. The sentences were written down before the finder was tried on them. */
import { expect } from 'chai';
import { findClaims, readText } from '../../src/core/claims/read';
import { claimReader } from '../../src/rulebook/claims';

describe('a claim denied', () => {
  it('is none of what is in a bar where the denial is plain, and one where it is not', () => {
    const facts = (text: string) => findClaims(text, claimReader()).map(({ fact }) => fact);
    for (const text of [
      'Not vegan.',
      'Milk and syrup: hot and quick. Not vegan.',
      'This bar is not vegan.',
      'It isn’t vegan: it holds ewe’s milk',
      'Not a vegan soap',
      'Not suitable for vegans',
      'No longer vegan since we use goat milk',
      'This one is not unscented',
      'Not palm free',
      'Not gluten free',
      'Not nut free: it contains almond oil',
      'Pas végan',
      'Ce savon n’est pas végane',
      'Il n’est plus végan',
      'Ce savon n’est pas sans gluten',
      'Nicht vegan',
      'Diese Seife ist nicht mehr vegan',
      'Keine vegane Seife',
      'Nicht palmölfrei',
      'No es vegano',
      'No apto para veganos',
    ])
      expect(facts(text), text).to.deep.equal([]);
    for (const [text, fact] of [
      ['Not only vegan but kind', 'vegan'],
      ['Vegan, not palm free', 'vegan'],
      ['If it is not vegan, it is not ours', 'vegan'],
      ['No vegan has to go without', 'vegan'],
      ['Not perfumed', 'unscented'],
      ['Not tested on animals and vegan', 'vegan'],
      ['No palm oil', 'palmFree'],
      ['Nicht nur vegan', 'vegan'],
      ['Pas seulement végan', 'vegan'],
      ['Wenn es nicht vegan ist, machen wir es nicht', 'vegan'],
    ] as const)
      expect(facts(text), text).to.include(fact);
    const readings = readText('Milk of ewes. Not vegan.', claimReader()).sentences.map(
      ({ reading }) => reading,
    );
    expect(readings).to.deep.equal(['plain', 'plain']);
  });
});
