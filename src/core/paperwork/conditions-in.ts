/** Where a paper speaks of what only a paper shows, and the figure that it states there. Pure; a person decides. */
import { readNumber } from '../quantities/number';
import type { AskedCondition } from './conditions';
import { lineText, type PaperLine } from './page';

/** A line that speaks of a condition. */
export interface SpokenOf {
  /** Of the lines given, from 0. */
  line: number;
  text: string;
  /** The one figure it states, in the condition's unit; null where there is none, or more than one. */
  value: number | null;
}

/** How papers speak of each condition, in six languages; by the beginning of its id. */
const SPOKEN: readonly (readonly [begins: string, words: RegExp])[] = [
  ['peanut-protein', /\bprot[eé][iï]n|\bproteína|\bproteine|\beiwei[sß]|\beiwit/i],
  [
    'wheat-peptides',
    /\bpept[iï]d|mole[ck]ul[a-z]* (?:weight|mass)|moléculaire|\bmolmasse|molekular|moleculair|molecolare/i,
  ],
  ['tagetes', /ter-?thi[eé]n/i],
  [
    'charcoal',
    /\bE ?153\b|231\/2012|(?:vegetable carbon|CI ?77268).*purity|purity.*(?:vegetable carbon|CI ?77268)/i,
  ],
  ['certified', /(?:FDA|lot|batch)[ -]certif|certif[a-z]* (?:lot|batch|no\b|number)/i],
];

/** Units of a figure by how they are written: the condition's unit and what one of it is of that. */
const UNITS: Readonly<Record<'ppm' | 'kDa' | '%', readonly (readonly [RegExp, number])[]>> = {
  ppm: [
    [/^(?:ppm|mg\/kg|[µμ]g\/g)/i, 1],
    [/^(?:ppb|[µμ]g\/kg)/i, 1e-3],
    [/^%/, 1e4],
  ],
  kDa: [
    [/^kDa/i, 1],
    [/^kg\/mol/i, 1],
    [/^(?:Da\b|daltons?|g\/mol)/i, 1e-3],
  ],
  '%': [
    [/^%/, 1],
    [/^(?:ppm|mg\/kg)/i, 1e-4],
  ],
};

const FIGURE =
  /(?<![\d.,/-])([1-9]\d{0,2}(?:[ .,]\d{3})+(?!\d)|\d+(?:[.,]\d+)?)(?:\s?[-–]\s?\d[\d., ]*)?\s*/g;
/** Thousands in a small unit: nobody weighs a peptide to a thousandth of a dalton. */
const GROUPED = /^[1-9]\d{0,2}[ .,]\d{3}$/;
const SIGNIFICANT = 9;

function figuresIn(text: string, unit: 'ppm' | 'kDa' | '%'): (number | null)[] {
  return [...text.matchAll(FIGURE)].flatMap((match) => {
    const rest = text.slice(match.index + match[0].length);
    const known = UNITS[unit].find(([written]) => written.test(rest));
    if (!known) return [];
    // From so much to so much is no one figure.
    if (/[-–]/.test(match[0])) return [null];
    const [, digits = ''] = match;
    const value =
      GROUPED.test(digits) && known[1] === 1e-3
        ? Number(digits.replace(/\D/g, ''))
        : readNumber(digits.replace(/ /g, ''));
    return [Number((value * known[1]).toPrecision(SIGNIFICANT))];
  });
}

/** The words by which a condition is spoken of; undefined where papers are not looked through for it. */
export const spokenWordsOf = (condition: string): RegExp | undefined =>
  SPOKEN.find(([begins]) => condition.startsWith(begins))?.[1];

/**
 * Lines of a paper that speak of a condition, each with the figure it states.
 *
 * @example
 * spokenOf(peanutProtein, lines)[0]; // { line: 12, text: 'Protein content < 0.5 ppm', value: 0.5 }
 */
export function spokenOf(
  { id, most, unit }: Pick<AskedCondition, 'id' | 'most' | 'unit'>,
  lines: readonly PaperLine[],
): SpokenOf[] {
  const words = spokenWordsOf(id);
  if (!words) return [];
  return lines.flatMap((one, line) => {
    const text = lineText(one);
    if (!words.test(text)) return [];
    const figures = most === undefined || !unit || unit === 'pH' ? [] : figuresIn(text, unit);
    return [{ line, text, value: figures.length === 1 ? figures[0]! : null }];
  });
}
