/**
 * A question about the house read by a small grammar: "bars without palm that are clear in the US with clay under 2 %",
 * "what is left of lot CL2622", "curing since September". What was understood comes back as filters, each with the place
 * of its words; what was not, as words. Pure.
 */
import { folded } from '../folded';
import type { Verdict } from '../formula/answer';
import type { Food } from '../formula/traits';
import type { Kind, Market } from '../formula/types';
import type { FactId } from '../claims/types';
import { FACTS, KINDS_SAID, MARKETS_SAID, STATES, SUBJECTS, VERDICTS_SAID, type Subject } from './ask-words';
import { readDays } from './ask-days';

/** What a bar may hold: a material, any of a kind, or what comes from a food. */
export type What =
  | { by: 'material'; id: string; name: string }
  | { by: 'kind'; kind: Kind; name: string }
  | { by: 'food'; food: Food; name: string };

/** Percent of the fats. */
export interface Bound {
  relation: 'under' | 'over';
  pct: number;
}

export type Filter =
  | { kind: 'holds'; what: What; bound: Bound | null }
  | { kind: 'stands'; verdict: Verdict; market: Market | null }
  | { kind: 'soldIn'; market: Market }
  | { kind: 'fact'; fact: FactId }
  | { kind: 'stock'; is: 'some' | 'none' }
  | { kind: 'state'; state: string; name: string }
  | { kind: 'days'; from: string | null; to: string | null }
  | { kind: 'bar'; id: string; name: string }
  | { kind: 'lot'; code: string };

/** A filter with its words in the question: from a letter, up to another. */
export interface Understood {
  filter: Filter;
  /** What is asked for is what it does not hold of. */
  not: boolean;
  words: string;
  from: number;
  to: number;
}

export interface Asked {
  subject: Subject;
  filters: Understood[];
  /** Words that say nothing to the grammar. */
  unread: string[];
}

/** Names of the house that a question may speak of. */
export interface Named {
  bars: readonly { id: string; name: string }[];
  materials: readonly { id: string; names: readonly string[] }[];
  lots: readonly { code: string }[];
}

interface Token {
  text: string;
  from: number;
  to: number;
}

const FILLERS = new Set(
  'that which who are is be was were the a an my our all any show me list find and or of in on it its there do does i we have has had what how much many whats please bars bar with to for made poured begun from currently now still than but everywhere only'.split(
    ' ',
  ),
);
const NOT = new Set(['without', 'no', 'not', 'excluding', 'except', 'lacking']);
const WITH = new Set([
  'with',
  'holding',
  'containing',
  'contains',
  'contain',
  'has',
  'having',
  'holds',
  'hold',
  'using',
]);
const BOUNDS: readonly (readonly [words: readonly string[], relation: Bound['relation']])[] = [
  [['less', 'than'], 'under'],
  [['at', 'most'], 'under'],
  [['up', 'to'], 'under'],
  [['no', 'more', 'than'], 'under'],
  [['under'], 'under'],
  [['below'], 'under'],
  [['more', 'than'], 'over'],
  [['at', 'least'], 'over'],
  [['over'], 'over'],
  [['above'], 'over'],
];
const IN = new Set(['in', 'for', 'on']);
/** Between things of one list, whose "no" is said once: "no palm or milk". */
const AND = new Set(['and', 'or', 'nor']);

function tokensOf(text: string): Token[] {
  return [...text.matchAll(/[\p{L}\p{N}][\p{L}\p{N}.,’'/-]*|%/gu)].map((match) => {
    const word = match[0].replace(/[.,’'/-]+$/, '');
    return { text: folded(word), from: match.index, to: match.index + word.length };
  });
}

/** Names as their words, the longest first, so that "rose clay" is not taken for clay. */
interface Phrase<T> {
  words: readonly string[];
  is: T;
}

function phrasesOf<T>(all: readonly (readonly [name: string, is: T])[]): Phrase<T>[] {
  return all
    .map(([name, is]) => ({ words: tokensOf(name).map(({ text }) => text), is }))
    .filter(({ words }) => words.length > 0)
    .sort((a, b) => b.words.length - a.words.length);
}

/** Whether two words are the same but for a plural. */
const isSame = (typed: string, known: string) =>
  typed === known || typed === `${known}s` || `${typed}s` === known || typed === `${known}es`;

class Reader {
  at = 0;
  constructor(readonly tokens: readonly Token[]) {}

  get word(): string | undefined {
    return this.tokens[this.at]?.text;
  }

  /** Takes the words where they stand next. */
  takes(words: readonly string[]): boolean {
    if (!words.every((word, index) => isSame(this.tokens[this.at + index]?.text ?? '', word))) return false;
    this.at += words.length;
    return true;
  }

  takesOne<T>(phrases: readonly Phrase<T>[]): T | null {
    return phrases.find(({ words }) => this.takes(words))?.is ?? null;
  }

  number(): number | null {
    const read = /^\d+(?:[.,]\d+)?$/.test(this.word ?? '') ? Number(this.word!.replace(',', '.')) : null;
    if (read === null) return null;
    this.at++;
    if (this.word === '%' || this.word === 'percent' || this.word === 'pct') this.at++;
    return read;
  }

  /** Goes back to where it was unless something was read. */
  tries<T>(read: () => T | null): T | null {
    const before = this.at;
    const found = read();
    if (found === null) this.at = before;
    return found;
  }
}

interface Words {
  whats: Phrase<What>[];
  bars: Phrase<{ id: string; name: string }>[];
  lots: Phrase<string>[];
}

/** What bars may hold, made once for a list of materials: a house knows some thousand names. */
const whatsKnown = new WeakMap<Named['materials'], Phrase<What>[]>();

function whatsOf(materials: Named['materials']): Phrase<What>[] {
  const known = whatsKnown.get(materials);
  if (known) return known;
  const kinds = KINDS_SAID.map(([name, kind]) => [name, { by: 'kind', kind, name }] as const);
  const foods = (['palm', 'milk', 'nut', 'gluten'] as const).map(
    (food) => [food, { by: 'food', food, name: food }] as const,
  );
  const own = materials.flatMap(({ id, names }) =>
    names.map((name) => [name, { by: 'material', id, name: names[0]! }] as const),
  );
  // Of names as long as each other a kind or a food comes first: "milk" is any milk.
  const made = phrasesOf<What>([...foods, ...kinds, ...own]);
  whatsKnown.set(materials, made);
  return made;
}

/** The names that a text may speak of; of bars and lots only those that stand in it. */
function wordsOf({ bars, materials, lots }: Named, text: string): Words {
  const whole = folded(text);
  const inText = (name: string) => name.trim() !== '' && whole.includes(folded(name));
  return {
    whats: whatsOf(materials),
    bars: phrasesOf(bars.filter(({ name }) => inText(name)).map((bar) => [bar.name, bar] as const)),
    lots: phrasesOf(lots.filter(({ code }) => inText(code)).map(({ code }) => [code, code] as const)),
  };
}

const marketIn = (reader: Reader): Market | null =>
  reader.tries(() => {
    while (IN.has(reader.word ?? '') || reader.word === 'the') reader.at++;
    return reader.takesOne(MARKETS_SAID);
  });

function boundIn(reader: Reader): Bound | null {
  return reader.tries(() => {
    const found = BOUNDS.find(([words]) => reader.takes(words));
    const pct = found ? reader.number() : null;
    return found && pct !== null ? { relation: found[1], pct } : null;
  });
}

/** A filter with whether it is denied, and whether a list of denied things goes on after it. */
interface Read {
  filter: Filter;
  not: boolean;
}

/** "clay under 2 %", "under 2 % clay", "no palm", "palm free"; `goesOn`: what stands before it was denied. */
function holdsIn(reader: Reader, { whats }: Words, goesOn: boolean): Read | null {
  return reader.tries(() => {
    let not: boolean | null = null;
    for (;;) {
      if (reader.takes(['free', 'from']) || reader.takes(['free', 'of'])) not = true;
      else if (NOT.has(reader.word ?? '')) [not, reader.at] = [true, reader.at + 1];
      else if (WITH.has(reader.word ?? '')) [not, reader.at] = [not ?? false, reader.at + 1];
      else break;
    }
    const before = boundIn(reader);
    while (reader.word === 'any' || reader.word === 'the' || reader.word === 'of') reader.at++;
    const what = reader.takesOne(whats);
    if (!what) return null;
    if (reader.word === 'free') {
      reader.at++;
      return { filter: { kind: 'holds', what, bound: null }, not: true };
    }
    const bound = before ?? boundIn(reader);
    return { filter: { kind: 'holds', what, bound }, not: not ?? (goesOn && bound === null) };
  });
}

function standsIn(reader: Reader): Filter | null {
  return reader.tries(() => {
    const verdict = reader.takesOne(VERDICTS_SAID);
    return verdict && { kind: 'stands', verdict, market: marketIn(reader) };
  });
}

function soldIn(reader: Reader): Filter | null {
  return reader.tries(() => {
    const isSold = reader.takes(['sold']) || IN.has(reader.word ?? '');
    const market = marketIn(reader);
    return isSold && market ? { kind: 'soldIn', market } : null;
  });
}

function stockIn(reader: Reader): Filter | null {
  for (const words of [
    ['none', 'left'],
    ['nothing', 'left'],
    ['sold', 'out'],
    ['not', 'in', 'stock'],
    ['used', 'up'],
  ])
    if (reader.takes(words)) return { kind: 'stock', is: 'none' };
  for (const words of [['in', 'stock'], ['to', 'sell'], ['something', 'left'], ['left'], ['ready']])
    if (reader.takes(words)) return { kind: 'stock', is: 'some' };
  return null;
}

const daysIn = (reader: Reader, today: string): Filter | null =>
  reader.tries(() => {
    const read = readDays(
      reader.tokens.slice(reader.at).map(({ text }) => text),
      today,
    );
    if (!read) return null;
    reader.at += read.words;
    return { kind: 'days', from: read.from, to: read.to };
  });

function plainIn(reader: Reader, words: Words, today: string): Filter | null {
  const of = <T>(phrases: readonly Phrase<T>[], made: (one: T) => Filter): Filter | null => {
    const found = reader.takesOne(phrases);
    return found === null ? null : made(found);
  };
  return (
    of(words.lots, (code) => ({ kind: 'lot', code })) ??
    of(words.bars, ({ id, name }) => ({ kind: 'bar', id, name })) ??
    of(FACTS, (fact) => ({ kind: 'fact', fact })) ??
    stockIn(reader) ??
    standsIn(reader) ??
    of(STATES, (state) => ({ kind: 'state', ...state })) ??
    daysIn(reader, today) ??
    soldIn(reader)
  );
}

/** What stands next, as words of two senses fit best: said as it is, then what a bar holds, then denied. */
function next(reader: Reader, words: Words, today: string, goesOn: boolean): Read | null {
  const plain = plainIn(reader, words, today);
  if (plain) return { filter: plain, not: false };
  const holds = holdsIn(reader, words, goesOn);
  if (holds) return holds;
  return reader.tries(() => {
    if (!NOT.has(reader.word ?? '')) return null;
    reader.at++;
    const denied = plainIn(reader, words, today);
    return denied && { filter: denied, not: true };
  });
}

/** What can be asked of bars and of lots alone; of a batch all of it, for it has a bar and lots. */
const ASKED_OF: Record<Exclude<Subject, 'batches'>, readonly Filter['kind'][]> = {
  bars: ['holds', 'stands', 'soldIn', 'fact', 'stock', 'bar'],
  lots: ['holds', 'stock', 'days', 'lot'],
};

/** What a question is about: what it says, or bars or lots, as far as all of it can be asked of those; else batches. */
function subjectOf(said: Subject | null, filters: readonly Filter[]): Subject {
  const likely = said ?? (filters.some(({ kind }) => kind === 'lot') ? 'lots' : 'bars');
  if (likely === 'batches') return likely;
  return filters.every(({ kind }) => ASKED_OF[likely].includes(kind)) ? likely : 'batches';
}

/**
 * A question as filters; null where nothing of it is understood, or most of it is not.
 *
 * @example
 * readAsk('bars without palm', named, '2026-11-24'); // { subject: 'bars', filters: [{ … words: 'without palm' }], unread: [] }
 */
export function readAsk(text: string, named: Named, today: string): Asked | null {
  const tokens = tokensOf(text);
  const reader = new Reader(tokens);
  const words = wordsOf(named, text);
  const filters: Understood[] = [];
  const unread: string[] = [];
  let subject: Subject | null = null;
  // Whether what was read last was denied and the list may go on.
  let goesOn = false;
  while (reader.at < tokens.length) {
    const begun = reader.at;
    const said = reader.takesOne(SUBJECTS);
    if (said) {
      subject ??= said;
      continue;
    }
    const read = next(reader, words, today, goesOn);
    if (read) {
      const [from, to] = [tokens[begun]!.from, tokens[reader.at - 1]!.to];
      filters.push({ ...read, words: text.slice(from, to), from, to });
      goesOn = read.not && read.filter.kind === 'holds';
      continue;
    }
    const word = tokens[reader.at++]!.text;
    goesOn &&= AND.has(word);
    if (!FILLERS.has(word) && !NOT.has(word) && !WITH.has(word)) unread.push(word);
  }
  if (filters.length === 0 || unread.length >= filters.length) return null;
  return {
    subject: subjectOf(
      subject,
      filters.map(({ filter }) => filter),
    ),
    filters,
    unread,
  };
}
