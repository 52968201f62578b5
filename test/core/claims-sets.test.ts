/** Claims in sets of phrases that were classed by reading before they were tried, and what no phrase knows. */
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { BY_LIKENESS, findClaims, readText } from '../../src/core/claims/read';
import { learnLikeness } from '../../src/core/claims/learn';
import { likelyOf } from '../../src/core/claims/likeness';
import { wordsOf } from '../../src/core/claims/text';
import type { ClaimClass } from '../../src/core/claims/types';
import { SETS, setOf, taught } from '../../scripts/sayings';
import { LABEL_WORDS } from '../../src/core/labels/languages';
import { claimReader } from '../../src/rulebook/claims';
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
  const isAsked = (text: string) =>
    readText(text, claimReader()).sentences.some(({ reading }) => reading === 'unknown');
  for (const file of SETS) {
    it(`are read as they are meant or asked about, and plain sentences change nothing in law: ${file}`, () => {
      const lines = readFileSync(`src/rulebook/sayings/${file}`, 'utf8').split('\n');
      const rows = lines.flatMap((line) => {
        const found = /^(\w+) \| \w\w \| (.+)$/.exec(line);
        return found ? [{ kind: found[1]!, text: found[2]! }] : [];
      });
      expect(rows.length).to.be.above(80);
      const right = ({ kind, text }: (typeof rows)[number]) => {
        const [eu, us] = WANTED[kind]!;
        return gravest(text, 'EU') === eu && gravest(text, 'US') === us;
      };
      const wrong = rows.filter((row) => !right(row) && (row.kind === 's' || !isAsked(row.text)));
      expect(wrong.map(({ kind, text }) => `${kind} ${text}`)).to.deep.equal([]);
      // Asking about everything would be no reading.
      const asked = rows.filter(({ text }) => isAsked(text));
      expect(asked.length, asked.map(({ text }) => text).join('; ')).to.be.at.most(0.04 * rows.length);
    });
  }
});

describe('what sentences are like', () => {
  const like = (say: string) => readText(say, claimReader());

  it('is what the sentences on file teach: the file was written from them as they are', () => {
    const taughtNow = learnLikeness(taught());
    const { likeness } = claimReader();
    const apart = taughtNow.weights.filter((weight, at) => Math.abs(weight - likeness!.weights[at]!) > 1);
    expect(apart.length, 'npm run claims writes it anew').to.be.below(0.001 * taughtNow.weights.length);
  });

  it('reads a set that was held back better than one class for all, and few plain sentences as claims', () => {
    const held = learnLikeness(taught('twelfth.txt'));
    const rows = setOf('twelfth.txt').map(({ kind, say }) => ({
      kind,
      read: likelyOf(
        held,
        wordsOf(say).map(({ text }) => text),
      ),
    }));
    const right = rows.filter(({ kind, read }) => read.kind === kind).length;
    const alarms = rows.filter(
      ({ kind, read }) => kind === 'plain' && read.kind !== 'plain' && read.certainty > 0.9,
    );
    expect(right / rows.length).to.be.above(0.75);
    expect(alarms.length).to.be.at.most(2);
  });

  it('is told as a claim with the words that tell it, where no phrase knows any', () => {
    const { claims, sentences } = like('Cut by hand. A balm for worn out nerves and bad moods.');
    expect(sentences.map(({ reading }) => reading)).to.deep.equal(['plain', 'likely']);
    expect(claims.map(({ phrase, words, class: of }) => [phrase, words, of.EU, of.US])).to.deep.equal([
      [BY_LIKENESS, 'A balm for worn out nerves and bad moods', 'medicine', 'medicine'],
    ]);
    expect(claims[0]!.why).to.include('“nerves”');
    // Once the maker has said what it promises, it is no longer a likeness.
    const own = [{ say: sentences[1]!.say, class: 'plain' as const, language: 'en' as const }];
    const after = readText('A balm for worn out nerves and bad moods', claimReader(own));
    expect(after.claims.map(({ class: of }) => of.EU)).to.deep.equal(['plain']);
  });

  it('is nothing that a denial, one word, or the fixed words of a label promise', () => {
    const fixed = Object.values(LABEL_WORDS).flatMap(({ soap, use, usual }) => [
      soap,
      use,
      ...Object.values(usual),
    ]);
    for (const text of ['Moods', 'It is no balm for worn out nerves and bad moods', ...fixed])
      expect(
        like(text).claims.filter(({ phrase }) => phrase === BY_LIKENESS),
        text,
      ).to.deep.equal([]);
  });
});

describe('what no phrase knows', () => {
  const read = (text: string) =>
    readText(text, claimReader()).sentences.map(({ words, reading }) => [words, reading]);

  it('is asked about where it speaks of the body, and told as read where it does not', () => {
    expect(read('The shoulder of a young lynx. Cut by hand! Heals hands')).to.deep.equal([
      ['The shoulder of a young lynx', 'unknown'],
      ['Cut by hand', 'plain'],
      ['Heals hands', 'claims'],
    ]);
    expect(read('Rinse the skin well.\nNicht auf der Haut lassen')).to.deep.equal([
      ['Rinse the skin well', 'plain'],
      ['Nicht auf der Haut lassen', 'plain'],
    ]);
    expect(read('')).to.deep.equal([]);
  });

  it('is asked about where one word alone speaks of a promise, and all around it is plain', () => {
    const reading = (text: string) => {
      const { claims, sentences } = readText(text, claimReader());
      return [sentences[0]!.reading, claims.length];
    };
    for (const text of [
      'An itch to travel brought us to this coast',
      'Der Schmerz, ein Stück zu zerschneiden',
      'Une fièvre de Noël dans l’atelier',
    ])
      expect(reading(text), text).to.deep.equal(['unknown', 0]);
    for (const text of ['Eases an itch', 'Vertreibt Mücken', 'Calme la toux', 'Psoriasis'])
      expect(reading(text)[0], text).to.equal('claims');
    // A house's own word counts wherever it stands.
    const own = claimReader([{ say: 'itch', class: 'medicine', language: 'en' }]);
    expect(readText('An itch to travel brought us to this coast', own).claims).to.have.lengthOf(1);
  });

  it('is known once a reader has said what it promises', () => {
    const [sentence] = readText('L’épaule d’un jeune lynx', claimReader()).sentences;
    expect(sentence!.reading).to.equal('unknown');
    const own = [{ say: sentence!.say, class: 'plain' as const, language: 'fr' as const }];
    const after = readText('L’épaule d’un jeune lynx', claimReader(own));
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
        findClaims(text, claimReader()).map(({ phrase }) => phrase),
        text,
      ).to.deep.equal([]);
  });

  it('is found where its words stand apart in a sentence, in any order, and nowhere else', () => {
    const found = (text: string) =>
      findClaims(text, claimReader()).map(({ phrase, words }) => [phrase, words]);
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
        findClaims(text, claimReader()).map(({ class: of }) => of.EU),
        text,
      ).to.deep.equal(['medicine']);
    expect(findClaims('It does not treat acne', claimReader())).to.deep.equal([]);
  });
});
