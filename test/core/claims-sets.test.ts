/** Claims in sets of phrases that were classed by reading before they were tried, and what no phrase knows. */
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { findClaims, readText } from '../../src/core/claims/find';
import type { ClaimClass } from '../../src/core/claims/types';
import { BODY_WORDS, claimPatterns } from '../../src/rulebook/claims';
import { gravest } from '../support/claims';

describe('claims in what makers write', () => {
  const WANTED: Record<string, [eu: ClaimClass, us: ClaimClass]> = {
    m: ['medicine', 'medicine'],
    c: ['cosmetic', 'cosmetic'],
    a: ['absolute', 'absolute'],
    p: ['composition', 'composition'],
    s: ['plain', 'plain'],
    bd: ['cosmetic', 'medicine'],
  };
  for (const file of [
    'phrases',
    'further',
    'third',
    'fourth',
    'fifth',
    'sixth',
    'seventh',
    'eighth',
    'ninth',
    'tenth',
    'eleventh',
    'twelfth',
  ]) {
    it(`are read as they are meant, and plain sentences change nothing in law: ${file}`, () => {
      const lines = readFileSync(`test/core/claims/${file}.txt`, 'utf8').split('\n');
      const rows = lines.flatMap((line) => {
        const found = /^(\w+) \| \w\w \| (.+)$/.exec(line);
        return found ? [{ kind: found[1]!, text: found[2]! }] : [];
      });
      expect(rows.length).to.be.above(110);
      const wrong = rows.filter(({ kind, text }) => {
        const [eu, us] = WANTED[kind]!;
        return gravest(text, 'EU') !== eu || gravest(text, 'US') !== us;
      });
      expect(wrong.map(({ kind, text }) => `${kind} ${text}`)).to.deep.equal([]);
    });
  }
});

describe('what no phrase knows', () => {
  const read = (text: string) =>
    readText(text, claimPatterns(), BODY_WORDS).sentences.map(({ words, reading }) => [words, reading]);

  it('is asked about where it speaks of the body, and told as read where it does not', () => {
    expect(read('Knees like a lamb. Cut by hand! Heals hands')).to.deep.equal([
      ['Knees like a lamb', 'unknown'],
      ['Cut by hand', 'plain'],
      ['Heals hands', 'claims'],
    ]);
    expect(read('Rinse the skin well.\nNicht auf der Haut lassen')).to.deep.equal([
      ['Rinse the skin well', 'plain'],
      ['Nicht auf der Haut lassen', 'plain'],
    ]);
    expect(read('')).to.deep.equal([]);
  });

  it('is known once a reader has said what it promises', () => {
    const [sentence] = readText('L’épaule d’un jeune lynx', claimPatterns(), BODY_WORDS).sentences;
    expect(sentence!.reading).to.equal('unknown');
    const own = [{ say: sentence!.say, class: 'plain' as const, language: 'fr' as const }];
    const after = readText('L’épaule d’un jeune lynx', claimPatterns(own), BODY_WORDS);
    expect(after.sentences[0]!.reading).to.equal('claims');
    expect(after.claims.map(({ class: of }) => of.US)).to.deep.equal(['plain']);
  });

  it('that warns people with allergies promises nothing', () => {
    for (const text of [
      'Nicht für Allergiker geeignet.',
      'Allergiker sollten die Liste lesen.',
      'Déconseillé aux personnes allergiques.',
    ])
      expect(
        findClaims(text, claimPatterns()).map(({ phrase }) => phrase),
        text,
      ).to.deep.equal([]);
  });

  it('is found where its words stand apart in a sentence, in any order, and nowhere else', () => {
    const found = (text: string) =>
      findClaims(text, claimPatterns()).map(({ phrase, words }) => [phrase, words]);
    expect(found('After a week your hands will, says Ann, feel so much softer.')).to.deep.equal([
      ['en-apart-care', 'hands will, says Ann, feel so much softer'],
    ]);
    expect(found('Softer, he finds, are his beard and hair')).to.deep.equal([
      ['en-apart-care', 'Softer, he finds, are his beard'],
    ]);
    // Two sentences, a denial, and words that tell how it is used.
    expect(found('It is softer now. Cut by many hands.')).to.deep.equal([]);
    expect(found('It will not turn hands into anything softer')).to.deep.equal([]);
    expect(found('Rinse hands in water that is softer')).to.deep.equal([]);
    // What is found in a sentence already is not found again.
    expect(found('Heals hands, which grow softer').map(([phrase]) => phrase)).to.deep.equal(['heal']);
  });

  it('promises that something is gone for good are no negations', () => {
    for (const text of [
      'No more eczema',
      'Nie wieder Akne',
      'Keine Akne mehr',
      'Plus jamais d’acné',
      'Nunca más acné',
    ])
      expect(
        findClaims(text, claimPatterns()).map(({ class: of }) => of.EU),
        text,
      ).to.deep.equal(['medicine']);
    expect(findClaims('It does not treat acne', claimPatterns())).to.deep.equal([]);
  });
});
