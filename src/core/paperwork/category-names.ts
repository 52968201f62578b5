/** How papers name product categories, one or several together. */
import { CATEGORY_WORD } from './lexicon';

const ONE = String.raw`(?:1[0-2]|[1-9])(?:\s?\.?\s?[a-d](?![a-z]))?`;
const JOIN = String.raw`\s*(?:,|/|&|\+|;|and|und|et|y|e|en|-)\s*`;
/** "9", "5A", "5A, 5B", "10A/10B", "7 A & B". */
export const GROUP = String.raw`(${ONE}(?:${JOIN}(?:${ONE}|[a-d](?![a-z])))*)`;
export const SPEAKS = new RegExp(`\\b${CATEGORY_WORD}(?![a-z])`);
/** The categories a text names: "5a, b" are 5A and 5B. */
export function categoriesIn(group: string): string[] {
  const names: string[] = [];
  for (const [, digits, letter] of group.matchAll(/(\d{1,2})?\s?\.?\s?([a-d])?(?![a-z])/g)) {
    if (!digits && !letter) continue;
    const number = digits ?? /\d+/.exec(names.at(-1) ?? '')?.[0];
    if (number) names.push(`${number}${(letter ?? '').toUpperCase()}`);
  }
  const span = /^(\d{1,2})\s?([a-d])\s*-\s*(?:\1\s?)?([a-d])$/.exec(group.trim());
  if (!span) return [...new Set(names)];
  const [, number, from, to] = span;
  const letters = 'ABCD'.slice('abcd'.indexOf(from!), 'abcd'.indexOf(to!) + 1);
  return [...letters].map((letter) => number! + letter);
}
