/** Categories and their levels in running text: "up to 2 % in soap (category 9)". */
import type { Found } from './category-checks';
import { GROUP, SPEAKS, categoriesIn } from './category-names';
import { CAS_PATTERN } from './figures';
import { levelWithUnit, WITH_UNIT, type Ways } from './levels';
import { CATEGORY_WORD, plainText } from './lexicon';
import { lineText, type Paper } from './page';

/** A line of a table of constituents. */
export const CAS_LINE = new RegExp(CAS_PATTERN.source);

/** Letters in between that name no other category, end no sentence and hold no figure with a unit. */
const between = (most: number) => `(?:(?!\\b${CATEGORY_WORD}(?![a-z]))[^%‰\\n.;]){0,${most}}?`;
const IN_TEXT: readonly (readonly [RegExp, group: number, figure: number])[] = [
  [new RegExp(`\\b${CATEGORY_WORD}\\.?\\s*${GROUP}(?!\\d|[.,]\\d)${between(90)}${WITH_UNIT}`, 'g'), 1, 2],
  [new RegExp(`${WITH_UNIT}${between(60)}\\b${CATEGORY_WORD}\\.?\\s*${GROUP}(?!\\d|[.,]\\d)`, 'g'), 3, 1],
];

const ALL_WITH_UNIT = new RegExp(WITH_UNIT, 'g');
const ALL_SPEAK = new RegExp(SPEAKS.source, 'g');
const SENTENCE = 'More figures than categories stand in this sentence. Is this the maximum?';

/** What a line says in running text; the figure may stand in the line after the category. */
export function inText(paper: Paper, index: number, ways: Ways): Found[] {
  const plain = plainText(lineText(paper.lines[index]!));
  if (!SPEAKS.test(plain)) return [];
  const below = paper.lines[index + 1];
  const next = below && !CAS_LINE.test(lineText(below)) ? below : undefined;
  const texts = next ? [plain, `${plain} ${plainText(lineText(next))}`] : [plain];
  for (const text of texts) {
    const figures = text.match(ALL_WITH_UNIT)?.length ?? 0;
    const isUnsure = figures > (text.match(ALL_SPEAK)?.length ?? 0);
    // A sentence that begins with a figure says each before its category.
    const isBefore = text.search(WITH_UNIT) < text.search(SPEAKS);
    for (const [pattern, group, figure] of isBefore ? [...IN_TEXT].reverse() : IN_TEXT) {
      const found = [...text.matchAll(pattern)].flatMap((match): Found[] => {
        const level = levelWithUnit(match[figure]!, match[figure + 1]!, ways);
        if (!level || typeof level === 'string') return [];
        return categoriesIn(match[group]!).map((category) => ({
          value: { category, maxPct: level.maxPct },
          line: index,
          said: match[0],
          question: isUnsure ? SENTENCE : level.question,
        }));
      });
      if (found.length > 0) return found;
    }
  }
  return [];
}
