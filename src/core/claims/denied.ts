/** Where words before a phrase undo it: a negation of what a bar does, a plain denial of what it is. */
import type { Word } from './text';

/** A negation counts over so many words. */
const NEGATION_REACH = 6;

/** Words that undo what follows, in both languages: a text may mix them. */
export const NEGATIONS: ReadonlySet<string> = new Set([
  ...['not', 'no', 'never', 'cannot', 'cant', 'doesnt', 'dont', 'isnt', 'wont', 'neither', 'nor'],
  ...['ne', 'n', 'pas', 'jamais', 'ni', 'aucun', 'aucune'],
  ...['nicht', 'kein', 'keine', 'keinen', 'nie', 'ohne', 'nunca', 'sin', 'ningun', 'ninguna'],
]);

/** "No more itching", "nie wieder Akne", "plus jamais": beside a negation these make it a promise. */
const FOR_GOOD: ReadonlySet<string> = new Set(['more', 'again', 'longer', 'wieder', 'mehr', 'plus', 'mas']);

const isForGood = (word: Word | undefined) => word !== undefined && FOR_GOOD.has(word.text);

/** Whether words from `at` up to `end` are undone by a negation shortly before them. */
export function isNegated(words: readonly Word[], at: number, end: number): boolean {
  for (let back = 1; back <= NEGATION_REACH && at - back >= 0; back++) {
    if (words[at - back + 1]!.opens) return false;
    const place = at - back;
    if (!NEGATIONS.has(words[place]!.text)) continue;
    const after = words[end];
    const lasts =
      isForGood(words[place + 1]) ||
      (!words[place]!.opens && isForGood(words[place - 1])) ||
      (isForGood(after) && !after!.opens);
    return !lasts;
  }
  return false;
}

/** Words that deny what a bar is, right before it or with nothing but small words in between. */
const DENIALS: ReadonlySet<string> = new Set([
  ...['not', 'isnt', 'arent', 'wasnt', 'non', 'ne', 'n', 'pas', 'nicht', 'kein', 'keine', 'keinen'],
]);
const SMALL: ReadonlySet<string> = new Set([
  ...['a', 'an', 'the', 'entirely', 'strictly', 'fully', 'quite', 'suitable', 'fit', 'for', 'longer'],
  ...['est', 'sont', 'plus', 'un', 'une', 'du', 'tout', 'fait', 'adapte', 'aux', 'convient'],
  ...['ganz', 'mehr', 'fur', 'es', 'son', 'apto', 'apta', 'para', 'ya'],
]);
/** "If it is not vegan, it is not ours", "nothing that is not": what is denied there is claimed. */
const TURNS: ReadonlySet<string> = new Set([
  ...['if', 'unless', 'nothing', 'why', 'si', 'rien', 'pourquoi', 'wenn', 'falls', 'nichts', 'nada'],
]);

/** Whether a word is one of those that denials are made of. */
export const isOfDenial = (text: string): boolean =>
  NEGATIONS.has(text) || DENIALS.has(text) || SMALL.has(text);

/** "No longer vegan", "no es vegano": a plain *no* before a name may be the claim itself, as in "no palm". */
function isPlainNo(words: readonly Word[], at: number): boolean {
  return words[at]!.text === 'no' && ['longer', 'es', 'son', 'apto', 'apta'].includes(words[at + 1]!.text);
}

/** Whether what a bar is said to be from the word `at` on is denied in so many words. */
export function isDenied(words: readonly Word[], at: number): boolean {
  let place = at - 1;
  while (place >= 0 && !words[place + 1]!.opens && SMALL.has(words[place]!.text)) place--;
  if (place < 0 || words[place + 1]!.opens) return false;
  if (!DENIALS.has(words[place]!.text) && !isPlainNo(words, place)) return false;
  for (; place >= 0; place--) {
    if (TURNS.has(words[place]!.text)) return false;
    if (words[place]!.opens) break;
  }
  return true;
}
