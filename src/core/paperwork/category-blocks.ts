/** Levels that stand some lines below their category, one block a category: its use, a label and the figure between them. */
import { GROUP, categoriesIn } from './category-names';
import { once, type Found } from './category-checks';
import { readLevel, type Level, type Ways } from './levels';
import { CATEGORY_WORD, plainText } from './lexicon';
import { lineText, type Paper } from './page';

const HEAD = new RegExp(
  `^${CATEGORY_WORD}\\.?\\s*(?:n[°ºro]?\\.?|nr\\.?|no\\.?)?\\s*[:#]?\\s*${GROUP}\\s*[:.]?$`,
);
/** A block goes on for so many lines at most. */
const MOST_LINES = 6;
/** One block may be a sentence's end: two are a way of writing. */
const LEAST_BLOCKS = 2;

const SEVERAL = 'Several figures stand below this category. Is this the maximum?';

/** The categories of a block by their heads, each with the level below it; none where fewer than two are found. */
export function inBlocks({ lines }: Paper, ways: Ways): Found[] {
  const heads = lines.flatMap((line, at) => {
    const match = HEAD.exec(plainText(lineText(line)).trim());
    return match ? [{ at, categories: categoriesIn(match[1]!) }] : [];
  });
  const found = heads.flatMap(({ at, categories }, place): Found[] => {
    const end = Math.min(heads[place + 1]?.at ?? lines.length, at + 1 + MOST_LINES);
    const levels = lines.slice(at + 1, end).flatMap((line, below) => {
      const level = readLevel(line.cells.at(-1)!.text, ways);
      return level !== null && typeof level === 'object' ? [{ level, line: at + 1 + below }] : [];
    });
    const [first] = levels as [{ level: Level; line: number } | undefined];
    if (!first) return [];
    const isOne = levels.every(({ level }) => level.maxPct === first.level.maxPct);
    const question = isOne ? first.level.question : SEVERAL;
    const said = `${lineText(lines[at]!)} ${lineText(lines[first.line]!)}`;
    return categories.map((category) => ({
      value: { category, maxPct: first.level.maxPct },
      line: first.line,
      said,
      question,
    }));
  });
  return found.length < LEAST_BLOCKS ? [] : once(found);
}
