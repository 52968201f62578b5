/**
 * Reads a text for claims: by phrases first, and what no phrase knows by what it is like. What is surely like a claim is
 * told as one, what may be one is asked about, and every other sentence is told as read plain.
 */
import { isOfDenial, NEGATIONS } from './denied';
import { fitsAny, lookThrough, type Found } from './find';
import { classesOf, likelyOf, type Likely, type Likeness } from './likeness';
import type { Pattern } from './patterns';
import { sentences, type Word } from './text';
import { LANGUAGES, type ClaimFinding, type Language } from './types';

/** Words of a language that speak of the body, and words beside which they only tell how soap is used or kept from it. */
export interface BodyWords {
  speaks: readonly string[];
  plain: readonly string[];
  /** Words of a warning, which promises nothing whatever else it is like. */
  warns: readonly string[];
}

/** Everything that claims are read by. */
export interface ClaimReader {
  patterns: readonly Pattern[];
  body: Readonly<Record<Language, BodyWords>>;
  likeness: Likeness;
}

/** The phrase of a claim that was found by what its sentence is like. */
export const BY_LIKENESS = 'by-likeness';

/**
 * How a sentence was read: a claim was found in it by a phrase or by what it is like; it may promise something, which
 * only a reader can say; or neither.
 */
export type Reading = 'claims' | 'likely' | 'unknown' | 'plain';

export interface ReadSentence {
  words: string;
  from: number;
  /** Its words alone, as a phrase says them. */
  say: string;
  reading: Reading;
  /** What it is like; null where phrases told. */
  like: Likely | null;
}

/** From here on a likeness is told as a claim: sooner where nothing of it changes what a bar is in law. */
const SURE = 0.9;
const SURE_OF_WORDS = 0.8;
/** It rests on more than one word: without the one that tells most it would still not be as plain as this. */
const TOO_PLAIN_WITHOUT = 0.7;
/**
 * Below so much certainty that it is plain a sentence is asked about; less where a phrase knows some of its words, where
 * it tells how soap is used, or where it is as short as a name.
 */
const ASKED_BELOW = 0.4;
const KNOWN_ASKED_BELOW = 0.1;
const OF_USE_ASKED_BELOW = 0.3;
const NAME_ASKED_BELOW = 0.1;
const WORDS_OF_A_NAME = 2;
/** One word alone tells too little to be like anything. */
const FEWEST_WORDS = 2;

/** A claim that rests on one word alone is asked about from here on: so plain is the sentence around it. */
const PLAIN_AROUND = 0.8;
const WORDS_AROUND = 4;

interface Tests {
  speaks: (word: string) => boolean;
  isPlain: (word: string) => boolean;
  warns: (word: string) => boolean;
}

const testsOf = (body: ClaimReader['body']): Tests => ({
  speaks: fitsAny(LANGUAGES.flatMap((language) => body[language].speaks)),
  isPlain: fitsAny(LANGUAGES.flatMap((language) => body[language].plain)),
  warns: fitsAny(LANGUAGES.flatMap((language) => body[language].warns)),
});

/**
 * Whether a sentence is surely like a claim. A denial undoes what speaks of the body; of what is in a bar it is the
 * claim itself.
 */
function isSurely(said: readonly Word[], { kind, certainty, plainWithoutBest }: Likely): boolean {
  if (kind === 'plain' || plainWithoutBest > TOO_PLAIN_WITHOUT) return false;
  if (kind === 'composition' || kind === 'absolute') return certainty >= SURE_OF_WORDS;
  return certainty >= SURE && !said.some(({ text }) => NEGATIONS.has(text));
}

function askedBelow(words: number, isKnown: boolean, isOfUse: boolean): number {
  if (words <= WORDS_OF_A_NAME) return NAME_ASKED_BELOW;
  if (isKnown) return KNOWN_ASKED_BELOW;
  return isOfUse ? OF_USE_ASKED_BELOW : ASKED_BELOW;
}

/** Words beside a denial of what is in a bar that say nothing of their own: "this bar is". */
const FEW_BESIDE = 3;

/** Whether a sentence says what is not in a bar, and hardly anything else. */
function isDenial(said: readonly Word[], denied: readonly boolean[]): boolean {
  return (
    denied.some(Boolean) &&
    said.filter(({ text }, at) => !denied[at] && !isOfDenial(text)).length <= FEW_BESIDE
  );
}

/** How a sentence without a claim is read; `known` are its words that a phrase took. */
function readingOf(
  said: readonly Word[],
  known: readonly boolean[],
  like: Likely | null,
  { speaks, isPlain, warns }: Tests,
): Reading {
  const isOfUse = said.some(({ text }) => isPlain(text));
  if (like) {
    const isKnown = known.some(Boolean);
    if (!isKnown && !said.some(({ text }) => warns(text)) && isSurely(said, like)) return 'likely';
    const below = askedBelow(said.length, isKnown, isOfUse);
    if (like.plain < below) return 'unknown';
  }
  return !isOfUse && said.some(({ text }, at) => !known[at] && speaks(text)) ? 'unknown' : 'plain';
}

/** Whether all that was found in a sentence of some words is single words that name an illness, a pest or a mark. */
function isOfNames(
  found: readonly ClaimFinding[],
  said: readonly Word[],
  doubted: ReadonlySet<string>,
): boolean {
  const isName = ({ words, phrase }: ClaimFinding) => doubted.has(phrase) && !/\s/.test(words);
  return said.length >= WORDS_AROUND && found.every(isName);
}

function readSentences(
  text: string,
  { words, taken, denied, claims }: Found,
  reader: ClaimReader,
): ReadSentence[] {
  const tests = testsOf(reader.body);
  const doubted = new Set(
    reader.patterns.flatMap(({ phrase }) => (phrase.isDoubtedAlone ? [phrase.id] : [])),
  );
  return sentences(text, words).map(([start, end]): ReadSentence => {
    const said = words.slice(start, end);
    const [from, to] = [said[0]!.from, said.at(-1)!.to];
    const found = claims.filter((claim) => claim.from < to && claim.to > from);
    const sentence = { words: text.slice(from, to), from, say: said.map((one) => one.text).join(' ') };
    const told: ReadSentence = { ...sentence, reading: 'claims', like: null };
    if (found.length > 0 && !isOfNames(found, said, doubted)) return told;
    if (found.length === 0 && isDenial(said, denied.slice(start, end)))
      return { ...sentence, reading: 'plain', like: null };
    const like =
      said.length >= FEWEST_WORDS
        ? likelyOf(
            reader.likeness,
            said.map((one) => one.text),
          )
        : null;
    if (found.length === 0)
      return { ...sentence, reading: readingOf(said, taken.slice(start, end), like, tests), like };
    return like && like.plain >= PLAIN_AROUND ? { ...sentence, reading: 'unknown', like } : told;
  });
}

/** The language most of whose little words a sentence holds. */
const LITTLE_WORDS: Record<Language, ReadonlySet<string>> = {
  en: new Set('the a an and of for with in on to is it its my your no that from by at'.split(' ')),
  fr: new Set(
    'le la les l un une des du de d et pour avec en sur est il au aux sans qui que ne pas'.split(' '),
  ),
  de: new Set(
    'der die das den dem ein eine und fur mit im in auf ist es von zu zum zur ohne nicht'.split(' '),
  ),
  es: new Set('el la los las un una y para con en sobre es del de al sin que no su por lo'.split(' ')),
};

function languageOf(say: string): Language {
  const words = say.split(' ');
  const count = (language: Language) => words.filter((word) => LITTLE_WORDS[language].has(word)).length;
  return LANGUAGES.reduce((best, language) => (count(language) > count(best) ? language : best));
}

const quoted = (words: readonly string[]) => words.map((word) => `“${word}”`).join(' and ');

/** A sentence that is surely like a claim, as a finding. */
function asClaim({ words, from, say, like }: ReadSentence): ClaimFinding {
  const because = like!.because.length > 0 ? ` because of ${quoted(like!.because)}` : '';
  return {
    phrase: BY_LIKENESS,
    language: languageOf(say),
    words,
    from,
    to: from + words.length,
    class: classesOf(like!.kind),
    fact: null,
    why: `No phrase says this; it reads like such claims${because}. Say here if it is none.`,
    plainer: '',
  };
}

/**
 * Every claim of a text, in its order, and every sentence with how it was read.
 *
 * @example
 * readText('Cheeks like apples. Cut by hand.', claimReader()).sentences; // unknown, then plain
 */
export function readText(
  text: string,
  reader: ClaimReader,
): { claims: ClaimFinding[]; sentences: ReadSentence[] } {
  const found = lookThrough(text, reader.patterns, LANGUAGES);
  const read = readSentences(text, found, reader);
  const likely = read.filter(({ reading }) => reading === 'likely').map(asClaim);
  const doubted = read.filter(({ reading }) => reading === 'unknown');
  const isTold = (claim: ClaimFinding) =>
    !doubted.some(({ from, words }) => claim.from < from + words.length && claim.to > from);
  const told = found.claims.filter(isTold);
  return { claims: [...told, ...likely].sort((a, b) => a.from - b.from), sentences: read };
}

/**
 * Every claim in a text, in its order; a word belongs to one claim at most.
 *
 * @example
 * findClaims('Cures eczema', claimReader()); // [{ … a claim of medicine }]
 */
export const findClaims = (text: string, reader: ClaimReader): ClaimFinding[] =>
  readText(text, reader).claims;
