/** What makers write on stalls and in shops, put down without looking at the phrases that ship. */
import { expect } from 'chai';
import { findClaims } from '../../src/core/claims/read';
import type { ClaimClass } from '../../src/core/claims/types';
import { claimReader } from '../../src/rulebook/claims';

const ORDER: ClaimClass[] = ['plain', 'composition', 'cosmetic', 'absolute', 'medicine'];

function worst(text: string): ClaimClass {
  return findClaims(text, claimReader())
    .map((claim) => claim.class.US)
    .reduce<ClaimClass>((a, b) => (ORDER.indexOf(b) > ORDER.indexOf(a) ? b : a), 'plain');
}

const SAID: readonly (readonly [text: string, expected: ClaimClass])[] = [
  ['Wipes out 99 % of germs without drying your hands', 'medicine'],
  ['The tea tree in it fights bacteria all day', 'medicine'],
  ['Keeps your kitchen hands free of bugs and protects against viruses', 'medicine'],
  ['Menthol crystals to clear a stuffy nose on winter mornings', 'medicine'],
  ['Eucalyptus opens up your sinuses in the shower', 'medicine'],
  ['Unblocks the airways when you have a cold', 'medicine'],
  ['Made without nasty chemicals', 'absolute'],
  ['No nasties, ever', 'absolute'],
  ['Free from harmful toxins', 'absolute'],
  ['An aromatherapy bar that melts away stress', 'medicine'],
  ['Helps the little ones sleep', 'medicine'],
  ['Our best seller at the Saturday market', 'plain'],
  ['Best used before the end of March', 'plain'],
  ['Smells of the sea and scrubs off garden soil', 'plain'],
  ['Cut by the two of us in the old signal box', 'plain'],
  ['Leaves skin soft and moisturised', 'cosmetic'],
  ['Lindert Neurodermitis und beruhigt gereizte Haut', 'medicine'],
  ['Tötet Keime ab', 'medicine'],
  ['Eine Seife ohne Chemie', 'absolute'],
  ['Spendet Feuchtigkeit und pflegt trockene Hände', 'cosmetic'],
  ['Riecht nach Wald und wäscht gründlich', 'plain'],
  ['Alivia el eccema y cicatriza heridas', 'medicine'],
  ['Elimina bacterias y virus', 'medicine'],
  ['Jabón sin tóxicos', 'absolute'],
  ['Hidrata y suaviza la piel', 'cosmetic'],
  ['Huele a limón y limpia bien las manos', 'plain'],
];

describe('what is written on stalls', () => {
  for (const [text, expected] of SAID) {
    it(`is ${expected}: ${text}`, () => {
      expect(worst(text)).to.equal(expected);
    });
  }
});
