import type { OpenPaper } from './open';

/** Paper shown around what is cut out, in heights of its line; and how wide it is cut at most, in the same. */
const AROUND = 0.7;
const MOST_WIDE = 9;

const digitsOf = (text: string) => text.replace(/\D/g, '');

/**
 * What stands on the picture of a line, cut out and enlarged, to be looked at beside what is asked of it: the cell of
 * one of the figures where the line has it, with as much before it as fits; else the line.
 */
export function CutOut({
  paper,
  line: at,
  figures,
}: {
  paper: OpenPaper;
  line: number | null;
  figures: readonly string[];
}) {
  const line = at === null ? undefined : paper.lines[at];
  const page = line && paper.pages.find(({ number }) => number === line.page);
  if (!line || !page) return null;
  const wanted = new Set(figures.map(digitsOf));
  const shown = line.cells.filter(({ text }) => wanted.has(digitsOf(text)));
  const cells = shown.length > 0 ? shown : line.cells;
  const top = line.yPt - line.heightPt * (1 + AROUND / 2);
  const high = line.heightPt * (1 + AROUND);
  const right = Math.max(...cells.map(({ xPt, widthPt }) => xPt + widthPt)) + line.heightPt;
  const first = Math.min(...line.cells.map(({ xPt }) => xPt)) - line.heightPt;
  const left = shown.length > 0 ? Math.max(first, right - MOST_WIDE * line.heightPt) : first;
  const wide = right - left;
  return (
    <span className="my-1 block w-full max-w-96 border border-line bg-white">
      <span className="relative block overflow-hidden" style={{ aspectRatio: `${wide} / ${high}` }}>
        <img
          src={page.picture}
          alt={`On the page: ${line.cells.map(({ text }) => text).join(' ')}`}
          className="absolute max-w-none"
          style={{
            width: `${(100 * page.widthPt) / wide}%`,
            left: `${(-100 * left) / wide}%`,
            top: `${(-100 * top) / high}%`,
          }}
        />
      </span>
    </span>
  );
}
