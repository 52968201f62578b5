/** A letter to the supplier: what is asked of a material, and its words in the supplier's language. Pure. */
import { isScent } from '../formula/scents';
import { daysBetween } from '../quantities/day';
import type { CupboardEntry } from '../records/cupboard';
import { LETTER_WORDS, type LetterLanguage } from './letter-words';

/** One thing that is asked. Its id stays the same for as long as it is. */
export type Ask =
  | { kind: 'certificate'; id: string }
  | { kind: 'renew'; id: string; number: string; issuedOn: string }
  | { kind: 'condition'; id: string; asks: string }
  | { kind: 'lot'; id: string; code: string; why: string };

/** A letter that was written, kept with its day. */
export interface WrittenLetter {
  on: string;
  language: LetterLanguage;
  /** Ids of what it asks. */
  about: string[];
  subject: string;
  body: string;
}

/** Days after which it is asked whether to write again. */
const PATIENCE_DAYS = 14;

type Asked = Pick<CupboardEntry, 'material' | 'mix' | 'papers' | 'conditions' | 'lots'>;

/**
 * What a supplier is asked of a material: a certificate that is missing, papers behind their edition or old, what only a
 * paper shows, lots that are held back. A mix made here asks nobody.
 *
 * @example
 * asksOf(entry).map(({ id }) => id); // ['certificate', 'condition peanut-protein']
 */
export function asksOf({ material, mix, papers, conditions, lots }: Asked): Ask[] {
  if (mix) return [];
  const asks: Ask[] = [];
  if (isScent(material) && !papers.certificate) asks.push({ kind: 'certificate', id: 'certificate' });
  for (const governing of [papers.certificate, papers.allergens])
    if (governing?.ask) {
      const { number, issuedOn } = governing.paper;
      asks.push({ kind: 'renew', id: `renew ${number}`, number, issuedOn });
    }
  for (const { condition, state } of conditions)
    if (state !== 'met')
      asks.push({ kind: 'condition', id: `condition ${condition.id}`, asks: condition.asks });
  // What was made here has no supplier.
  for (const { code, quarantine, supplier } of lots)
    if (quarantine !== null && supplier !== '')
      asks.push({ kind: 'lot', id: `lot ${code}`, code, why: quarantine });
  return asks;
}

/** Who writes to whom about what. */
export interface LetterFacts {
  /** The material, as the supplier knows it. */
  material: string;
  supplier: string | null;
  /** The maker's name; null where none is set. */
  maker: string | null;
}

/**
 * The letter for some asks. Conditions and reasons are quoted as they stand in the rulebook and at the lot.
 *
 * @example letterOf({ material: 'Peanut oil', supplier: 'Fennmoor Oils', maker: 'Signal Row' }, asks, 'de').subject
 */
export function letterOf(
  { material, supplier, maker }: LetterFacts,
  asks: readonly Ask[],
  language: LetterLanguage,
): { subject: string; body: string } {
  const words = LETTER_WORDS[language];
  const lines = asks.map((ask) => {
    switch (ask.kind) {
      case 'certificate':
        return words.certificate;
      case 'renew':
        return words.renew(ask.number, ask.issuedOn);
      case 'condition':
        return words.condition(ask.asks);
      case 'lot':
        return words.lot(ask.code, ask.why);
    }
  });
  const body = [
    words.greeting(supplier),
    words.opening(material),
    lines.map((line) => `- ${line}`).join('\n'),
    words.closing,
    [words.regards, maker ?? ''].filter(Boolean).join('\n'),
  ].join('\n\n');
  return { subject: words.subject(material), body };
}

/** A letter that nobody answered, with what is still asked and no later letter asks. */
export interface Unanswered {
  letter: WrittenLetter;
  asks: Ask[];
}

/** What was asked of a supplier and is not on file yet, each by the newest letter that asks it; the oldest letter first. */
export function unanswered(letters: readonly WrittenLetter[], asks: readonly Ask[]): Unanswered[] {
  const found = new Map<WrittenLetter, Ask[]>();
  const newest = [...letters].sort((a, b) => b.on.localeCompare(a.on));
  for (const ask of asks) {
    const letter = newest.find(({ about }) => about.includes(ask.id));
    if (letter) found.set(letter, [...(found.get(letter) ?? []), ask]);
  }
  return [...found]
    .map(([letter, left]) => ({ letter, asks: left }))
    .sort((a, b) => a.letter.on.localeCompare(b.letter.on));
}

/** Whether it has been long enough to write again. */
export const isOverdue = ({ on }: Pick<WrittenLetter, 'on'>, today: string): boolean =>
  daysBetween(on, today) >= PATIENCE_DAYS;
