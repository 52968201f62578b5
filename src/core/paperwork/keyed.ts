/** Rows of a paper that somebody keys in or pastes, as a paper would say them. Pure. */
import { linesFromText, type PaperLine } from './page';

const SHARE = String.raw`(?:[<≤]\s*)?\d[\d.,]*\s*%?(?:\s*(?:-|–|to|bis|à)\s*\d[\d.,]*)?\s*%?`;
const ROW = new RegExp(`^(.+?)[\\s:;,|]+(${SHARE}|not permitted|no restriction)$`, 'i');
const CATEGORY = /^(?:cat(?:egory)?\.?\s*)?(\d{1,2}[a-d]?)$/i;
const CAS = /^(.*?)[\s(;,|]*\b(\d{2,7}-\d{2}-\d)\b[\s);,|]*(.*)$/;

/** Between two cells of a row. */
const GAP = '    ';

/** One keyed row as a line of a table: a category with its level, or a constituent with its number and share. */
function asLine(row: string): string | null {
  const found = ROW.exec(row.trim());
  if (!found) return null;
  const [, name, share] = found as unknown as [string, string, string];
  const category = CATEGORY.exec(name.trim());
  if (category) return ['Category ' + category[1]!.toUpperCase(), share.replace(/\s*%?$/, ' %')].join(GAP);
  const numbered = CAS.exec(name);
  if (!numbered) return [name.trim(), share].join(GAP);
  const called = [numbered[1], numbered[3]].map((part) => part!.trim()).filter((part) => part !== '');
  return [called.join(' '), numbered[2]!, share].join(GAP);
}

/**
 * Keyed rows as lines for the reader of papers, under heads that say what they are; what was keyed for each line after the
 * heads, and the rows that say no share.
 *
 * @example
 * keyedLines('Linalool 78-70-6 0.5 - 1.2 %\n4 7.9').lines.length; // 3, the heads with them
 */
export function keyedLines(text: string): { lines: PaperLine[]; said: string[]; unread: string[] } {
  const rows = text.split(/\r?\n/).filter((row) => row.trim() !== '');
  const made = rows.map((row) => ({ row, line: asLine(row) }));
  const lines = made.flatMap(({ line }) => line ?? []);
  return {
    lines: lines.length === 0 ? [] : linesFromText(['Constituent    CAS    Share %', ...lines].join('\n')),
    said: made.filter(({ line }) => line !== null).map(({ row }) => row.trim()),
    unread: made.filter(({ line }) => line === null).map(({ row }) => row.trim()),
  };
}
