/** Where words before a phrase undo it: a negation of what a bar does, a plain denial of what it is. */
import type { Word } from './text';

/** A negation counts over so many words. */
const NEGATION_REACH = 6;

/** Words that undo what follows, in four languages: a text may mix them. */
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
  ...['not', 'isnt', 'arent', 'wasnt', 'dont', 'doesnt', 'never', 'stopped'],
  ...['non', 'ne', 'n', 'pas'],
  ...['nicht', 'kein', 'keine', 'keinen'],
]);
const SMALL: ReadonlySet<string> = new Set([
  ...['a', 'an', 'the', 'entirely', 'strictly', 'fully', 'quite', 'suitable', 'fit', 'for', 'longer'],
  ...['it', 'is', 'soap', 'ours', 'call', 'calling', 'say', 'says'],
  ...['claim', 'that', 'believe', 'anyone', 'who'],
  ...['est', 'sont', 'plus', 'un', 'une', 'du', 'tout', 'fait', 'adapte', 'aux', 'convient', 'pour', 'les'],
  ...['ganz', 'mehr', 'fur'],
  ...['es', 'son', 'apto', 'apta', 'para', 'ya'],
]);
/** "If it is not vegan, it is not ours", "nothing that is not": what is denied there is claimed. */
const TURNS: ReadonlySet<string> = new Set([
  ...['if', 'unless', 'nothing', 'why', 'si', 'rien', 'pourquoi', 'wenn', 'falls', 'nichts', 'nada'],
]);

/** Whether a word is one of those that denials are made of. */
export const isOfDenial = (text: string): boolean =>
  NEGATIONS.has(text) || DENIALS.has(text) || SMALL.has(text);

const PLAIN_NO: ReadonlySet<string> = new Set(['no', 'nothing', 'nichts', 'rien', 'nada']);
const AFTER_NO: ReadonlySet<string> = new Set([
  ...['longer', 'for', 'pour', 'fur'],
  ...['es', 'son', 'apto', 'apta', 'para'],
]);

/** "No longer vegan", "nothing for vegans": a plain *no* before a name may be the claim itself, as in "no palm". */
const isPlainNo = (words: readonly Word[], at: number) =>
  PLAIN_NO.has(words[at]!.text) && AFTER_NO.has(words[at + 1]!.text);

/** Words between what is denied and the denial behind it: "für Veganer ist sie nicht geeignet", "vegan it is not". */
const BETWEEN: ReadonlySet<string> = new Set([
  ...['it', 'they', 'this', 'is', 'are', 'sadly'],
  ...['ist', 'sind', 'sie', 'er', 'es', 'diese', 'seife', 'leider'],
]);
const BEHIND: ReadonlySet<string> = new Set(['not', 'isnt', 'arent', 'nicht']);
/** What may follow it there: with any other word it is that which is denied, as in "our vegan soap is not dear". */
const ENDS: ReadonlySet<string> = new Set(['geeignet', 'gedacht', 'bestimmt', 'mehr', 'suitable', 'any']);

/** Whether a denial stands behind words and ends their clause: "vegan ist sie nicht". */
function isDeniedBehind(words: readonly Word[], end: number): boolean {
  let place = end;
  while (place < words.length && !words[place]!.opens && BETWEEN.has(words[place]!.text)) place++;
  const [no, next] = [words[place], words[place + 1]];
  return no !== undefined && BEHIND.has(no.text) && !no.opens && (!next || next.opens || ENDS.has(next.text));
}

/** Whether what a bar is said to be, from the word `at` up to `end`, is denied in so many words. */
export function isDenied(words: readonly Word[], at: number, end: number): boolean {
  return isDeniedBefore(words, at) || isDeniedBehind(words, end);
}

function isDeniedBefore(words: readonly Word[], at: number): boolean {
  let place = at - 1;
  while (place >= 0 && !words[place + 1]!.opens && SMALL.has(words[place]!.text)) place--;
  if (place < 0 || words[place + 1]!.opens) return false;
  if (!DENIALS.has(words[place]!.text) && !isPlainNo(words, place)) return false;
  while (place > 0 && !words[place]!.opens) if (TURNS.has(words[--place]!.text)) return false;
  return true;
}
