/** What stands on a label in a market: its elements in their order, their words, and what is missing. */
import { OPEN_JAR_WORDS } from './open-jar';
import {
  bestBefore,
  LABEL_LANGUAGE_NAMES,
  wordsIn,
  type LabelLanguage,
  type OwnLabelWords,
} from './languages';
import { LABEL_MANNERS } from './manners';
import type { Market } from '../formula/types';
import { netText } from './heights';
import { monthsAfter } from '../quantities/day';
import type { LabelFinding } from './layout';
import type { Regime } from './standing';

export type ElementId =
  | 'name'
  | 'identity'
  | 'net'
  | 'ingredients'
  | 'use'
  | 'cautions'
  | 'responsible'
  | 'batch'
  | 'durability'
  | 'text';

export type Words = Partial<Record<LabelLanguage, string>>;

export interface Durability {
  /** How long the bar keeps unopened, months. */
  months: number;
  /** The last month of that, YYYY-MM. */
  endsOn: string | null;
  /** Months after opening, judged by use and microbes; null where that means nothing, as for most bars. */
  openMonths?: number | null;
}

export interface LabelInput {
  market: Market;
  regime: Regime;
  name: string;
  identity: Words;
  use: Words;
  cautions: Words;
  /** What labels in the EU speak: the languages of the countries it is sold in. Empty for whatever words are given. */
  languages?: readonly LabelLanguage[];
  /** The maker's own in the place of fixed words. */
  ownWords?: OwnLabelWords;
  /** The maker's own words on the back. */
  text: string;
  ingredients: string;
  netMassG: number | null;
  responsible: readonly string[];
  batchCode: string;
  /** Null where not stated. */
  durability: Durability | null;
}

export interface LabelElement {
  id: ElementId;
  text: string;
}

export interface LabelContent {
  market: Market;
  front: { name: string; identity: string; net: string };
  info: LabelElement[];
  findings: LabelFinding[];
}

/** Up to this a market asks for the month it keeps to. */
export const LONGEST_BEST_BEFORE_MONTHS = 30;
/** The EU's rule has one word before the list, whatever the language; Canada says it in both of its own. */
const LIST_HEADS: Partial<Record<LabelLanguage, string>> = { fr: 'Ingrédients' };
const LIST_HEAD = 'Ingredients';

type Heading = 'ingredients' | 'batch' | 'use' | 'cautions';

type Spoken = Pick<LabelInput, 'market' | 'languages' | 'ownWords'>;

/** The languages that are asked for on a label, in their order. */
function asked({ market, languages = [] }: Spoken): readonly LabelLanguage[] {
  const manners = LABEL_MANNERS[market];
  return manners.isByCountry && languages.length > 0 ? languages : manners.languages;
}

/**
 * Durability as a batch has it: the months of the bar from the day it was made, to the month that day then falls in; no
 * month where it keeps longer than a label says.
 *
 * @example durabilityFrom({ months: 24, endsOn: '2028-11' }, '2026-09-20').endsOn // '2028-09'
 */
export const durabilityFrom = (durability: Durability, madeOn: string): Durability =>
  durability.months > LONGEST_BEST_BEFORE_MONTHS
    ? { ...durability, endsOn: null }
    : { ...durability, endsOn: monthsAfter(madeOn, durability.months).slice(0, 'YYYY-MM'.length) };

/** Marks of no width and of direction, which pasting brings and a label has no use for. */
const drawn = (text: string) => text.replace(/\p{Cf}/gu, '');

const once = (words: readonly string[]) => [...new Set(words)].join(' / ');

function headIn({ ownWords }: Spoken, of: Heading, language: LabelLanguage): string {
  return of === 'ingredients' ? (LIST_HEADS[language] ?? LIST_HEAD) : wordsIn(language, ownWords)[of];
}

function heading(spoken: Spoken, of: Heading): string {
  if (of === 'ingredients' && LABEL_MANNERS[spoken.market].isListHeadFixed) return LIST_HEAD;
  return once(asked(spoken).map((language) => headIn(spoken, of, language)));
}

/** A heading before what it heads. French has a blank before its colon. */
function headed(spoken: Spoken, of: Heading): string {
  const words = heading(spoken, of);
  const isFrench = asked(spoken).at(-1) === 'fr' && words.endsWith(headIn(spoken, of, 'fr'));
  return `${words}${isFrench ? '\u00a0' : ''}:`;
}

/** Words in every language that is asked for; in the EU, where none is said, in any that is given. */
function inLanguages(spoken: Spoken, words: Words): string {
  const isOpen = LABEL_MANNERS[spoken.market].isByCountry && (spoken.languages ?? []).length === 0;
  const wanted = isOpen ? (Object.keys(words) as LabelLanguage[]).sort() : asked(spoken);
  return once(wanted.flatMap((language) => words[language]?.trim() || []));
}

const WORDS: Record<string, string> = {
  name: 'name',
  identity: 'statement of what it is',
  ingredients: 'ingredient list',
  responsible: 'name and address of who answers for it',
  batch: 'batch code',
  durability: 'durability',
  net: 'net content',
};

function missing(element: string, message?: string): LabelFinding {
  return { element, code: 'missing', message: message ?? `The label has no ${WORDS[element]}. Give one.` };
}

function missingWords(input: LabelInput, of: 'identity' | 'use' | 'cautions'): LabelFinding[] {
  const words = input[of];
  const isUsed = Object.values(words).some((text) => text?.trim());
  if (!isUsed && of !== 'identity') return [];
  const lacking = asked(input).filter((language) => !words[language]?.trim());
  return lacking.map((language) =>
    missing(
      of,
      `${input.market} asks for this in ${LABEL_LANGUAGE_NAMES[language]} (${of}). Write it under “Words”.`,
    ),
  );
}

function durabilityText(input: LabelInput): string {
  const { durability, market } = input;
  if (!durability || !LABEL_MANNERS[market].asksForDurability) return '';
  // A period after opening is judged by use and microbes, never taken from how long the bar keeps.
  if (durability.months > LONGEST_BEST_BEFORE_MONTHS)
    return durability.openMonths ? `${OPEN_JAR_WORDS} ${durability.openMonths} M` : '';
  return durability.endsOn ? bestBefore(asked(input), durability.endsOn, input.ownWords) : '';
}

/** Whether a market asks for an element, given what the bar is there. */
function asks(input: LabelInput, element: ElementId): boolean {
  const manners = LABEL_MANNERS[input.market];
  if (element === 'ingredients') return input.regime !== 'soap';
  if (element === 'batch') return manners.asksForBatch;
  if (element === 'durability') return manners.asksForDurability;
  return true;
}

/**
 * The label's words for a market, and what is missing of what it asks for.
 *
 * @example
 * labelContent({ ...bar, market: 'EU' }).findings; // what the market asks for and nobody has said yet
 */
export function labelContent(input: LabelInput): LabelContent {
  const { market } = input;
  const findings: LabelFinding[] = [];
  if (!input.name.trim()) findings.push(missing('name'));
  for (const of of ['identity', 'use', 'cautions'] as const) findings.push(...missingWords(input, of));
  const durability = durabilityText(input);
  const present: Record<string, boolean> = {
    ingredients: input.ingredients.trim() !== '',
    responsible: input.responsible.join('').trim() !== '',
    batch: input.batchCode.trim() !== '',
    // A bar that keeps over 30 months may carry nothing.
    durability: durability !== '' || (input.durability?.months ?? 0) > LONGEST_BEST_BEFORE_MONTHS,
  };
  for (const [element, there] of Object.entries(present)) {
    if (!there && asks(input, element as ElementId)) findings.push(missing(element));
  }
  if (input.netMassG === null || !(input.netMassG >= 1)) findings.push(missing('net'));
  const words = (of: 'use' | 'cautions') => {
    const text = inLanguages(input, input[of]);
    return text && `${headed(input, of)} ${text}`;
  };
  const info: LabelElement[] = [
    {
      id: 'ingredients',
      text: input.ingredients && `${headed(input, 'ingredients')} ${input.ingredients}`,
    },
    { id: 'cautions', text: words('cautions') },
    { id: 'use', text: words('use') },
    { id: 'responsible', text: input.responsible.filter((line) => line.trim()).join(', ') },
    { id: 'batch', text: input.batchCode && `${heading(input, 'batch')} ${input.batchCode}` },
    { id: 'durability', text: durability },
    { id: 'text', text: input.text },
  ];
  return {
    market,
    front: {
      name: drawn(input.name).trim(),
      identity: drawn(inLanguages(input, input.identity)),
      net: input.netMassG === null ? '' : netText(market, input.netMassG),
    },
    info: info.map(({ id, text }) => ({ id, text: drawn(text) })).filter(({ text }) => text.trim() !== ''),
    findings,
  };
}
