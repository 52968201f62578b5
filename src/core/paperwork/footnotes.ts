/** The notes that marks beside a level lead to: told where they set a condition or hold a figure of their own. */
import { WITH_UNIT } from './levels';
import { plainText } from './lexicon';
import { isClose, lineText, type Cell, type Paper, type PaperLine } from './page';
import { asMark, digitsOf, SIGN, SIGNS_TOGETHER, withoutRaised } from './raised';

/** A raised sign, stars and daggers, or a number in brackets, at the end of what it stands at. */
const AT_END = new RegExp(`(?:${SIGNS_TOGETHER}|\\*+|[†‡]+|(?:\\s*\\(\\d{1,2}\\))+)$`);
const ONE = new RegExp(`${SIGN}+|\\*+|†+|‡+|\\(\\d{1,2}\\)`, 'g');

/** A mark as every way of writing it is counted: the digits of a number, or the stars. */
const plainMark = (mark: string): string => digitsOf(mark.replace(/[()]/g, ''));

/** The marks at the end of a cell. */
const marksAt = ({ raised, text }: Cell): string[] =>
  (AT_END.exec((raised ?? text).trim())?.[0].match(ONE) ?? []).map(plainMark);

/** How a note of a mark begins; `(1)`, `¹`, `1)`, `1.` and `1` are one. */
function beginsWith(mark: string): RegExp {
  if (!/^\d/.test(mark)) return new RegExp(`^${mark.replace(/[*]/g, '\\*')}(?![*†‡])\\s*[.:)]?\\s*(?=\\S)`);
  const words = '(?:(?:note|footnote|remark|fu(?:ß|ss)note|anmerkung|nota|noot|uwaga)\\s*)?';
  return new RegExp(`^(?:${asMark(mark)}[.:)]?\\s*(?=\\S)|${words}\\(?${mark}[).:]*\\s+(?=[^\\s\\d]))`, 'i');
}

/** Any note's beginning: where another one goes on. */
const ANY_NOTE = new RegExp(`^(?:${SIGN}|\\(?\\d{1,2}[).:]*\\s|[*†‡])`);
const MOST_LINES = 3;

const rawLine = ({ cells }: PaperLine): string => cells.map(({ raised, text }) => raised ?? text).join(' ');

/** The note of a mark, below the line it stands in: with the lines that it goes on in. Null where there is none. */
function noteOf(paper: Paper, from: number, mark: string): string | null {
  const begins = beginsWith(mark);
  const at = paper.lines.findIndex((line, index) => index > from && begins.test(rawLine(line).trim()));
  if (at < 0) return null;
  const lines = [paper.lines[at]!];
  for (const next of paper.lines.slice(at + 1, at + MOST_LINES)) {
    if (!isClose(lines.at(-1)!, next) || ANY_NOTE.test(rawLine(next).trim())) break;
    lines.push(next);
  }
  return withoutRaised(lines.map(rawLine).join(' ').trim().replace(begins, '')).trim().replace(/\.$/, '');
}

/** Words that set a condition, in the languages of papers. */
const CONDITION =
  /\b(?:only|unless|if|provided|subject to|except|exclud\w*|not|without|where|when|must|should|shall|at most|at least|maximum|nur|nicht|kein\w*|wenn|sofern|falls|ohne|ausser|vorausgesetzt|hochstens|seulement|uniquement|sauf|si|sous reserve|ne|hors|a condition|doit|solo|salvo|excepto|sin|debe|siempre que|soltanto|tranne|purche|se|non|alleen|niet|mits|behalve|indien|zonder|moet|tylko|nie|jezeli|pod warunkiem|z wyjatkiem)\b/;

const isOfWeight = (note: string): boolean => {
  const plain = plainText(note);
  return CONDITION.test(plain) || new RegExp(WITH_UNIT).test(plain);
};

/**
 * Notes that the marks of a line lead to, of those cells that were read, each as it is to be told: only such as set a
 * condition or hold a figure. `said` is what was read of the line.
 */
export function notesOfLine(paper: Paper, index: number, said: string): { mark: string; note: string }[] {
  const line = paper.lines[index];
  if (!line) return [];
  const read = line.cells.filter(({ text }) => lineText(line) === said || said.endsWith(text));
  return [...new Set(read.flatMap(marksAt))].flatMap((mark) => {
    const note = noteOf(paper, index, mark);
    return note && isOfWeight(note) ? [{ mark, note }] : [];
  });
}
