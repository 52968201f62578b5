/** How much of a paper is read: more than any supplier's paper holds, little enough to read in a moment. */
import { lineText, type Paper, type PaperLine } from './page';

const MOST_LINES = 4000;
/** Letters and cells of one line. */
const LONGEST_LINE = 1000;
const MOST_CELLS = 80;

/** A line in the place of one that is not read, so that the others keep their numbers. */
function unread(line: PaperLine): PaperLine {
  return { ...line, cells: [{ text: '', xPt: 0, widthPt: 0 }] };
}

function isTooLong(line: PaperLine): boolean {
  return line.cells.length > MOST_CELLS || lineText(line).length > LONGEST_LINE;
}

/** The part of a paper that is read, and what has to be said about the rest. */
export function readablePart(paper: Paper): { paper: Paper; questions: string[] } {
  const questions: string[] = [];
  const read = paper.lines.slice(0, MOST_LINES);
  const tooLong = read.filter(isTooLong).length;
  if (paper.lines.length > MOST_LINES) {
    questions.push(
      `This paper has ${paper.lines.length} lines; only the first ${MOST_LINES} were read. Type in what the rest says.`,
    );
  }
  if (tooLong > 0) {
    const lines = tooLong === 1 ? 'One line is' : `${tooLong} lines are`;
    questions.push(`${lines} too long to be a row of a paper and were not read. Type in what stands there.`);
  }
  return { paper: { lines: read.map((line) => (isTooLong(line) ? unread(line) : line)) }, questions };
}
