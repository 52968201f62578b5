/** What a paper's levels say of each other: stated twice, far apart, or by kinds of products alone. */
import type { Taken } from './labelled';
import { levelAtEnd, levelUnit, readLevel, type Ways } from './levels';
import { OTHER_SOAP, plainText, SOAP_KIND } from './lexicon';
import { lineText, type Paper } from './page';

/** The category that holds bar soap. */
export const BAR_SOAP_CATEGORY = '9';

/** Maximum for a category, percent of the finished product; 0 is not permitted, 100 not restricted. */
export interface CategoryMax {
  category: string;
  maxPct: number;
}

export type Found = Taken<CategoryMax>;

/** One reading a category; where a paper states it twice with different figures, both are offered. */
export function once(found: readonly Found[]): Found[] {
  const byCategory = new Map<string, Found>();
  for (const entry of found) {
    const { category, maxPct } = entry.value;
    const before = byCategory.get(category);
    if (!before) byCategory.set(category, entry);
    else if (before.value.maxPct !== maxPct) {
      const [lower, higher] = before.value.maxPct < maxPct ? [before, entry] : [entry, before];
      const question = `The paper states both ${before.value.maxPct} % and ${maxPct} %. Which holds?`;
      byCategory.set(category, { ...lower, question, others: [higher.value] });
    }
  }
  return [...byCategory.values()];
}

/** So many times what any other category may hold is more likely a lost point. */
const FAR_ABOVE = 10;
const LEAST_OTHERS = 3;
/** Fine fragrance of its own kind, and what is not restricted, say nothing of the others. */
const APART = new Set(['12']);

/** Asks about a level that stands far above all others of the paper. */
export function farAbove(found: readonly Found[]): Found[] {
  return found.map((entry) => {
    const { category, maxPct } = entry.value;
    const others = found
      .filter(({ value }) => value.category !== category && !APART.has(value.category))
      .map(({ value }) => value.maxPct)
      .filter((one) => one < 100);
    if (entry.question !== null || maxPct >= 100 || APART.has(category) || others.length < LEAST_OTHERS)
      return entry;
    if (maxPct < FAR_ABOVE * Math.max(...others)) return entry;
    return {
      ...entry,
      question: `${maxPct} % is ten times what any other category may hold. Is a point missing?`,
    };
  });
}

/**
 * The level of soap where a paper names kinds of products and no categories: always asked about. A figure counts with a
 * unit of its own or of the paper's levels.
 */
export function soapKinds(paper: Paper, ways: Ways): Found[] {
  const texts = paper.lines.map(lineText);
  const unit = texts.map((text) => (/\d/.test(text) ? null : levelUnit(text))).find((one) => one !== null);
  const found = paper.lines.flatMap((line, index): Found[] => {
    const plain = plainText(texts[index]!);
    const last = line.cells.at(-1)!.text;
    if (!SOAP_KIND.test(plain) || OTHER_SOAP.test(plain)) return [];
    if (!unit && levelUnit(last) === null) return [];
    const own = { ...ways, unit: unit ?? ways.unit };
    const level = readLevel(last, own) ?? levelAtEnd(last, own);
    if (level === null || typeof level === 'string') return [];
    const question = `No categories are named; “${texts[index]!.trim()}” was taken as category ${BAR_SOAP_CATEGORY}, which holds bar soap. Is it?`;
    return [
      {
        value: { category: BAR_SOAP_CATEGORY, maxPct: level.maxPct },
        line: index,
        said: texts[index]!,
        question,
      },
    ];
  });
  return once(found);
}
