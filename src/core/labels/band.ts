/** The band around a bar: name and what it is, the list, net weight and who answers for it. */
import { breakLines, placeLines, type Box, type Layout, type Metrics, type TextStyle } from './layout';

/** Good practice for legible small print where no height is fixed, millimetres of x-height (rules by market). */
const LEAST_X_HEIGHT_MM = 1.2;
/** Digits of the net weight, EU and UK: up to 50 g, to 200 g, to 1000 g, above (rules by market). */
const NET_DIGIT_HEIGHTS: readonly (readonly [upToG: number, heightMm: number])[] = [
  [50, 2],
  [200, 3],
  [1000, 4],
  [Infinity, 6],
];

export interface BandContent {
  name: string;
  identity: string;
  ingredients: string;
  netMassG: number;
  batchCode: string;
  responsible: readonly string[];
}

export interface BandSize {
  widthMm: number;
  heightMm: number;
  marginMm: number;
}

/** The band the first label is made on. */
export const STANDARD_BAND: BandSize = { widthMm: 200, heightMm: 45, marginMm: 3 };

const GAP_MM = 5;
const NAME_SHARE = 0.26;
const SIDE_SHARE = 0.24;
const HAIRLINE_MM = 0.15;
const DISPLAY_SIZES_MM = [9, 8, 7, 6, 5, 4];

/** Least height of the net weight's digits for a mass in grams, millimetres. */
export function netDigitHeightMm(netMassG: number): number {
  return NET_DIGIT_HEIGHTS.find(([upToG]) => netMassG <= upToG)![1];
}

function addMissing(layout: Layout, content: BandContent, metrics: Metrics): void {
  const required: [string, string][] = [
    ['name', content.name],
    ['ingredients', content.ingredients],
    ['responsible', content.responsible.join('')],
    ['batchCode', content.batchCode],
  ];
  for (const [element, text] of required) {
    if (text.trim() === '') {
      layout.findings.push({ element, code: 'missing', message: `The label has no ${element}. Give one.` });
    }
  }
  const all = [
    content.name,
    content.identity,
    content.ingredients,
    content.batchCode,
    ...content.responsible,
  ];
  const letters = metrics.missing(all.join(' '));
  if (letters.length > 0) {
    const message = `The shipped fonts cannot draw ${letters.join(' ')}. Write it another way.`;
    layout.findings.push({ element: 'text', code: 'cannot-draw', message });
  }
}

function reportOverflow(layout: Layout, element: string, tookMm: number, hasMm: number): void {
  if (tookMm <= hasMm + 1e-9) return;
  const message = `The ${element} needs ${(tookMm - hasMm).toFixed(1)} mm more height than the band has.`;
  layout.findings.push({ element, code: 'does-not-fit', message });
}

function placeName(layout: Layout, content: BandContent, box: Box, metrics: Metrics): void {
  const identity: TextStyle = { element: 'identity', face: 'text', sizeMm: 2.9, leading: 1.2 };
  const lower = breakLines(content.identity, identity, box.widthMm, metrics);
  const lowerMm = lower.length * identity.sizeMm * identity.leading + 2;
  const styles = DISPLAY_SIZES_MM.map((sizeMm): TextStyle => ({
    element: 'name',
    face: 'display',
    sizeMm,
    leading: 1.1,
  }));
  const fits = (style: TextStyle) => {
    const broken = breakLines(content.name, style, box.widthMm, metrics);
    const whole = content.name.split(/\s+/).filter(Boolean).join(' ');
    return (
      broken.join(' ') === whole && broken.length * style.sizeMm * style.leading + lowerMm <= box.heightMm
    );
  };
  const style = styles.find(fits) ?? styles[styles.length - 1]!;
  const tookMm = placeLines(layout, breakLines(content.name, style, box.widthMm, metrics), style, box);
  const below = { ...box, yMm: box.yMm + tookMm + 2 };
  reportOverflow(layout, 'name', tookMm + 2 + placeLines(layout, lower, identity, below), box.heightMm);
}

function placeList(layout: Layout, content: BandContent, box: Box, metrics: Metrics): void {
  const sizeMm = LEAST_X_HEIGHT_MM / metrics.xHeight('text');
  const style: TextStyle = { element: 'ingredients', face: 'text', sizeMm, leading: 1.25 };
  const lines = breakLines(`Ingredients: ${content.ingredients}`, style, box.widthMm, metrics);
  reportOverflow(layout, 'ingredient list', placeLines(layout, lines, style, box), box.heightMm);
}

function placeSide(layout: Layout, content: BandContent, box: Box, metrics: Metrics): void {
  const netSize = netDigitHeightMm(content.netMassG) / metrics.digitHeight('strong');
  const net: TextStyle = { element: 'net', face: 'strong', sizeMm: netSize, leading: 1.2 };
  const small: TextStyle = {
    element: 'responsible',
    face: 'text',
    sizeMm: LEAST_X_HEIGHT_MM / metrics.xHeight('text'),
    leading: 1.25,
  };
  const netTook = placeLines(
    layout,
    breakLines(`${content.netMassG} g`, net, box.widthMm, metrics),
    net,
    box,
  );
  const rest = { ...box, yMm: box.yMm + netTook + 2 };
  const address = content.responsible.flatMap((line) => breakLines(line, small, box.widthMm, metrics));
  const addressTook = placeLines(layout, address, small, rest);
  const batch: TextStyle = { ...small, element: 'batchCode' };
  const lines = breakLines(`Batch ${content.batchCode}`, batch, box.widthMm, metrics);
  const batchBox = { ...rest, yMm: rest.yMm + addressTook + 1.5 };
  const batchTook = placeLines(layout, lines, batch, batchBox);
  reportOverflow(layout, 'address and batch', netTook + 2 + addressTook + 1.5 + batchTook, box.heightMm);
}

/** Lays the band out. Findings tell what is missing, cannot be drawn, or does not fit and by how much. */
export function layoutBand(content: BandContent, size: BandSize, metrics: Metrics): Layout {
  const { widthMm, heightMm, marginMm } = size;
  const layout: Layout = { widthMm, heightMm, texts: [], rules: [], findings: [] };
  const innerMm = widthMm - 2 * marginMm - 2 * GAP_MM;
  const column = (xMm: number, share: number): Box => ({
    xMm,
    yMm: marginMm,
    widthMm: innerMm * share,
    heightMm: heightMm - 2 * marginMm,
  });
  const name = column(marginMm, NAME_SHARE);
  const list = column(name.xMm + name.widthMm + GAP_MM, 1 - NAME_SHARE - SIDE_SHARE);
  const side = column(list.xMm + list.widthMm + GAP_MM, SIDE_SHARE);
  addMissing(layout, content, metrics);
  placeName(layout, content, name, metrics);
  placeList(layout, content, list, metrics);
  placeSide(layout, content, side, metrics);
  for (const box of [list, side]) {
    const xMm = box.xMm - GAP_MM / 2;
    layout.rules.push({
      x1Mm: xMm,
      y1Mm: marginMm,
      x2Mm: xMm,
      y2Mm: heightMm - marginMm,
      weightMm: HAIRLINE_MM,
    });
  }
  return layout;
}
