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
      'Vegan ist diese Seife leider nicht',
      'Für Veganer nicht geeignet',
      'Nichts für Veganer',
      'Unscented it is not',
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
      ['Unsere vegane Seife ist nicht teuer', 'vegan'],
      ['Vegan is not a fashion here', 'vegan'],
      ['Pas seulement végan', 'vegan'],
      ['Wenn es nicht vegan ist, machen wir es nicht', 'vegan'],
    ] as const)
      expect(facts(text), text).to.include(fact);
    // What one clause denies says nothing of the next; an allergy is warned of.
    const phrases = (text: string) => findClaims(text, claimReader()).map(({ class: of }) => of.EU);
    expect(phrases('It is not a cure, but my psoriasis has calmed down since.')).to.deep.equal(['medicine']);
    expect(phrases('It does not dry out your hands.')).to.deep.equal(['cosmetic']);
    for (const text of [
      'Contient de l’huile d’amande douce, attention aux allergies.',
      'Enthält Mandelöl, bei Nussallergie bitte eine andere nehmen.',
      'Mit Mandelöl, also nichts für Menschen mit Nussallergie.',
      'Cuidado con las alergias.',
      'Careful if you have a nut allergy.',
    ])
      expect(phrases(text), text).to.deep.equal([]);
    const readings = readText('Milk of ewes. Not vegan.', claimReader()).sentences.map(
      ({ reading }) => reading,
    );
    expect(readings).to.deep.equal(['plain', 'plain']);
  });
});
