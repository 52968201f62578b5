/** Draws a layout as SVG, letters as outlines, so that it looks the same wherever it is opened. */
import type { Layout } from '../../core/labels/layout';
import { glyphPaths } from './fonts';

export interface Picture {
  mime: 'image/png' | 'image/svg+xml';
  data: Buffer;
}

const number = (value: number) => String(Number(value.toFixed(3)));
const attribute = (text: string) =>
  text.replace(/[&<>"]/g, (letter) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[letter]!);

/** Ink of what stands past the room there is; shown on screen only. */
const OVER_INK = '#a01d3f';

function texts(layout: Layout): string {
  return layout.texts
    .map(({ text, face, sizeMm, xMm, yMm, isOver }) => {
      const d = glyphPaths(text, face, sizeMm, xMm, yMm);
      return `<path d="${d}" fill="${isOver ? OVER_INK : layout.ink}"/>`;
    })
    .join('\n');
}

/** The SVG of a layout in millimetres. `pictures` holds the maker's pictures by key. Guides show where it folds. */
export function layoutSvg(
  layout: Layout,
  title: string,
  pictures: ReadonlyMap<string, Picture>,
  withGuides: boolean,
): string {
  const { widthMm, heightMm, paper, ink } = layout;
  const lowest = Math.max(
    heightMm,
    ...layout.texts.filter(({ isOver }) => isOver).map(({ yMm, sizeMm }) => yMm + sizeMm * 0.4),
  );
  const ground =
    layout.outline === 'disc'
      ? `<circle cx="${number(widthMm / 2)}" cy="${number(heightMm / 2)}" r="${number(widthMm / 2)}" fill="${paper}"/>`
      : `<rect width="${number(widthMm)}" height="${number(heightMm)}" fill="${paper}"/>`;
  const rules = layout.rules
    .filter(({ isGuide }) => withGuides || !isGuide)
    .map(
      ({ x1Mm, y1Mm, x2Mm, y2Mm, weightMm, isGuide }) =>
        `<line x1="${number(x1Mm)}" y1="${number(y1Mm)}" x2="${number(x2Mm)}" y2="${number(y2Mm)}" stroke="${ink}" stroke-width="${number(weightMm)}"${isGuide ? ' stroke-dasharray="1.5 1"' : ''}/>`,
    );
  const bars = layout.bars.map(
    ({ xMm, yMm, widthMm: w, heightMm: h }) =>
      `<rect x="${number(xMm)}" y="${number(yMm)}" width="${number(w)}" height="${number(h)}" fill="${ink}"/>`,
  );
  const images = layout.images.flatMap(({ key, xMm, yMm, widthMm: w, heightMm: h }) => {
    const picture = pictures.get(key);
    if (!picture) return [];
    const data = `data:${picture.mime};base64,${picture.data.toString('base64')}`;
    return [
      `<image x="${number(xMm)}" y="${number(yMm)}" width="${number(w)}" height="${number(h)}" href="${data}"/>`,
    ];
  });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${number(widthMm)}mm" height="${number(lowest)}mm" viewBox="0 0 ${number(widthMm)} ${number(lowest)}" role="img">`,
    `<title>${attribute(title)}</title>`,
    ground,
    ...images,
    ...rules,
    ...bars,
    texts(layout),
    '</svg>',
  ].join('\n');
}
