/** What opening a paper may have to ask: the word of a locked one, which pages of a long one, which file of a mail. */

/** A page of a long paper, as it is proposed. */
export interface ProposedPage {
  number: number;
  /** Its first words. */
  head: string;
  /** Why it may matter; empty where it does not look so. */
  says: string;
}

export type Question =
  | { kind: 'word'; fileName: string; isWrong: boolean }
  | { kind: 'pages'; fileName: string; pages: readonly ProposedPage[]; most: number }
  | { kind: 'file'; fileName: string; files: readonly string[] };

/** A word, pages, or the place of a file; null where nobody wants to go on. */
export type Answer = string | number[] | number | null;

export type Ask = (question: Question) => Promise<Answer>;

/**
 * Pages as somebody types them; null for what is none.
 *
 * @example pagesIn('3, 5-7', 40) // [3, 5, 6, 7]
 */
export function pagesIn(text: string, count: number): number[] | null {
  const pages = new Set<number>();
  for (const part of text.split(/[,;\s]+/).filter(Boolean)) {
    const [, from, to = from] = /^(\d+)(?:[-–](\d+))?$/.exec(part) ?? [];
    if (!from || Number(from) < 1 || Number(to) > count || Number(to) < Number(from)) return null;
    for (let page = Number(from); page <= Number(to); page++) pages.add(page);
  }
  return [...pages].sort((a, b) => a - b);
}
