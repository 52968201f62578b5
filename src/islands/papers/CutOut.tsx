import type { OpenPaper } from './open';

/** Paper shown around a line, in its heights; and how large it is shown. */
const AROUND = 0.7;
const SHOWN_HIGH_PX = 44;
const MOST_WIDE_PX = 380;

/** A line of a page as it stands on the picture, cut out and enlarged, to be looked at beside what is asked of it. */
export function CutOut({ paper, line: at }: { paper: OpenPaper; line: number | null }) {
  const line = at === null ? undefined : paper.lines[at];
  const page = line && paper.pages.find(({ number }) => number === line.page);
  if (!line || !page) return null;
  const top = line.yPt - line.heightPt * (1 + AROUND / 2);
  const high = line.heightPt * (1 + AROUND);
  const left = Math.min(...line.cells.map(({ xPt }) => xPt)) - line.heightPt;
  const right = Math.max(...line.cells.map(({ xPt, widthPt }) => xPt + widthPt)) + line.heightPt;
  const scale = Math.min(SHOWN_HIGH_PX / high, MOST_WIDE_PX / (right - left));
  return (
    <span
      className="my-1 block max-w-full overflow-hidden border border-line bg-white"
      style={{ width: (right - left) * scale, height: high * scale, position: 'relative' }}
    >
      <img
        src={page.picture}
        alt={`The line on the page: ${line.cells.map(({ text }) => text).join(' ')}`}
        style={{
          position: 'absolute',
          maxWidth: 'none',
          width: page.widthPt * scale,
          left: -left * scale,
          top: -top * scale,
        }}
      />
    </span>
  );
}
