import { useEffect, useRef } from 'react';
import { lineText } from '../../core/paperwork/page';
import type { OpenPaper } from './open';
import paperStyles from './paper.module.css';

interface Props {
  paper: OpenPaper;
  /** Lines something was taken from. */
  taken: ReadonlySet<number>;
  /** Lines of the field the hands are on. */
  pointed: readonly number[];
}

/** The paper itself, with what was taken from it marked; the field looked at is pointed out. */
export function PaperView({ paper, taken, pointed }: Props) {
  const first = useRef<HTMLElement>(null);
  useEffect(() => {
    first.current?.scrollIntoView({ block: 'nearest' });
  }, [pointed]);
  const mark = (index: number) =>
    pointed.includes(index)
      ? `${paperStyles.paperMark} ${paperStyles.paperMarkPointed}`
      : taken.has(index)
        ? paperStyles.paperMark
        : '';
  if (paper.pages.length === 0) {
    return (
      <div
        className={`${paperStyles.paperPage} overflow-auto p-3 font-narrow`}
        aria-label={`Text of ${paper.fileName}`}
        tabIndex={0}
      >
        {paper.lines.map((line, index) => (
          <p
            key={index}
            ref={pointed[0] === index ? (first as React.RefObject<HTMLParagraphElement>) : undefined}
            className={`relative pl-2 whitespace-pre-wrap ${mark(index)}`}
          >
            {lineText(line)}
          </p>
        ))}
      </div>
    );
  }
  return (
    <div className="grid gap-3">
      {paper.pages.map((page) => (
        <div key={page.number} className={paperStyles.paperPage}>
          <img src={page.picture} alt={`Page ${page.number} of ${paper.fileName}`} className="block w-full" />
          {paper.lines.map((line, index) => {
            if (line.page !== page.number || !mark(index)) return null;
            const left = Math.min(...line.cells.map(({ xPt }) => xPt));
            const right = Math.max(...line.cells.map(({ xPt, widthPt }) => xPt + widthPt));
            const part = (value: number, whole: number) => `${(100 * value) / whole}%`;
            return (
              <span
                key={index}
                ref={pointed[0] === index ? first : undefined}
                aria-hidden="true"
                className={`absolute ${mark(index)}`}
                style={{
                  left: part(left - 3, page.widthPt),
                  width: part(right - left + 6, page.widthPt),
                  top: part(line.yPt - line.heightPt, page.heightPt),
                  height: part(line.heightPt * 1.35, page.heightPt),
                }}
              />
            );
          })}
        </div>
      ))}
    </div>
  );
}
