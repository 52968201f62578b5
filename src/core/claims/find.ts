/**
 * Finds claims in a text: word by word, in four languages, longest phrase first. Hyphens and accents do
 * not matter; a negation shortly before a phrase undoes it ("does not treat acne").
 */
import { MARKETS, type Market } from '../formula/types';
import { LANGUAGES, type ClaimClass, type ClaimFinding, type Language, type ClaimPhrase } from './types';

interface Word {
  text: string;
  from: number;
  to: number;
  /** Whether a sentence or clause ends before this word. */
  opens: boolean;
}

const LONGEST_GAP = 2;
/** A negation counts over so many words. */
const NEGATION_REACH = 6;

/** Words that undo what follows, in both languages: a text may mix them. */
const NEGATIONS: ReadonlySet<string> = new Set([
  ...['not', 'no', 'never', 'cannot', 'cant', 'doesnt', 'dont', 'isnt', 'wont', 'neither', 'nor'],
  ...['ne', 'n', 'pas', 'jamais', 'ni', 'aucun', 'aucune'],
  ...['nicht', 'kein', 'keine', 'keinen', 'nie', 'ohne', 'nunca', 'sin', 'ningun', 'ninguna'],
]);

/** Lower case, without accents or apostrophes; what reads the same is compared the same. */
function plain(text: string): string {
  return text
    .normalize('NFD')
    .replace(/[\u0300-\u036f’']/g, '')
    .toLowerCase()
    .replace(/œ/g, 'oe');
}

function wordsOf(text: string): Word[] {
  const words: Word[] = [];
  let end = 0;
  for (const match of text.matchAll(/[\p{L}\p{N}%]+(?:[’'][\p{L}]+)*/gu)) {
    const between = text.slice(end, match.index);
    // French elision parts into two words: "l'acné", "n'est".
    const pieces = match[0].split(/(?<=^(?:[ldnmtscj]|qu)[’'])/i);
    let from = match.index;
    pieces.forEach((piece, index) => {
      const opens = index === 0 && /[.!?;:\n,•]/.test(between);
      words.push({ text: plain(piece), from, to: from + piece.length, opens });
      from += piece.length;
    });
    end = match.index + match[0].length;
  }
  return words;
}

type Step = { kind: 'gap' } | { kind: 'word'; forms: string[]; isOptional: boolean };

interface Pattern {
  phrase: ClaimPhrase;
  steps: Step[];
  weight: number;
}

function stepsOf(say: string): Step[] {
  return say.split(/\s+/).map((part): Step => {
    if (part === '..') return { kind: 'gap' };
    const isOptional = /^\(.*\)$/.test(part);
    const forms = (isOptional ? part.slice(1, -1) : part).split('|').map(plain);
    return { kind: 'word', forms, isOptional };
  });
}

/** Phrases made ready for finding; longer ones come first, so that they win over their parts. */
export function preparePhrases(phrases: readonly ClaimPhrase[]): Pattern[] {
  return phrases
    .flatMap((phrase) =>
      phrase.say.map((say) => {
        const steps = stepsOf(say);
        return { phrase, steps, weight: steps.filter((step) => step.kind === 'word').length };
      }),
    )
    .sort((a, b) => b.weight - a.weight);
}

function fits(word: string, form: string): boolean {
  return form.endsWith('*') ? word.startsWith(form.slice(0, -1)) : word === form;
}

/**
 * Where a pattern ends if it begins at a word; -1 where it does not fit. Two words that hyphen or blank parts
 * ("anti-bacterial") fit one that the phrase writes together. `failed` holds the places a step was tried at in
 * vain, so that no place is tried twice however many gaps a phrase has.
 */
function endOf(
  words: readonly Word[],
  at: number,
  steps: readonly Step[],
  failed: Set<number>,
  step = 0,
): number {
  if (step === steps.length) return at;
  const place = at * steps.length + step;
  if (failed.has(place)) return -1;
  const end = tryStep(words, at, steps, failed, step);
  if (end < 0) failed.add(place);
  return end;
}

function tryStep(
  words: readonly Word[],
  at: number,
  steps: readonly Step[],
  failed: Set<number>,
  step: number,
): number {
  const wanted = steps[step]!;
  if (wanted.kind === 'gap') {
    for (let skip = 0; skip <= LONGEST_GAP && at + skip <= words.length; skip++) {
      const end = endOf(words, at + skip, steps, failed, step + 1);
      if (end >= 0) return end;
    }
    return -1;
  }
  const one = words[at]?.text;
  const two = words[at + 1] && !words[at + 1]!.opens ? one + words[at + 1]!.text : undefined;
  if (one !== undefined && wanted.forms.some((form) => fits(one, form))) {
    const end = endOf(words, at + 1, steps, failed, step + 1);
    if (end >= 0) return end;
  }
  if (two !== undefined && wanted.forms.some((form) => form.length > 5 && fits(two, form))) {
    const end = endOf(words, at + 2, steps, failed, step + 1);
    if (end >= 0) return end;
  }
  return wanted.isOptional ? endOf(words, at, steps, failed, step + 1) : -1;
}

function isNegated(words: readonly Word[], at: number): boolean {
  for (let back = 1; back <= NEGATION_REACH && at - back >= 0; back++) {
    if (words[at - back + 1]!.opens) return false;
    if (NEGATIONS.has(words[at - back]!.text)) return true;
  }
  return false;
}

function classes(phrase: ClaimPhrase): Record<Market, ClaimClass> {
  return Object.fromEntries(
    MARKETS.map((market) => [market, phrase.markets?.[market] ?? phrase.class]),
  ) as Record<Market, ClaimClass>;
}

/**
 * Every claim in a text, in its order; a word belongs to one claim at most.
 *
 * @example
 * findClaims('Cures eczema', preparePhrases(phrases)); // [{ … a claim of medicine }]
 */
export function findClaims(
  text: string,
  patterns: readonly Pattern[],
  languages: readonly Language[] = LANGUAGES,
): ClaimFinding[] {
  const words = wordsOf(text);
  const taken = new Array<boolean>(words.length).fill(false);
  const found: ClaimFinding[] = [];
  for (const { phrase, steps } of patterns) {
    if (!languages.includes(phrase.language)) continue;
    const failed = new Set<number>();
    for (let at = 0; at < words.length; at++) {
      if (taken[at]) continue;
      const end = endOf(words, at, steps, failed);
      if (end <= at || end > words.length || taken.slice(at, end).some(Boolean)) continue;
      taken.fill(true, at, end);
      // What promises nothing only keeps its words from being taken for a promise.
      if (phrase.isSilent) continue;
      if (!phrase.ignoresNegation && isNegated(words, at)) continue;
      const [from, to] = [words[at]!.from, words[end - 1]!.to];
      found.push({
        phrase: phrase.id,
        language: phrase.language,
        words: text.slice(from, to),
        from,
        to,
        class: classes(phrase),
        fact: phrase.fact ?? null,
        why: phrase.why,
        plainer: phrase.plainer,
      });
    }
  }
  return found.sort((a, b) => a.from - b.from);
}

export type { Pattern };
