/** Draws a layout as PDF with embedded fonts and text that can be selected: one up with bleed, or many on a sheet. */
import PDFDocument from 'pdfkit';
import SVGtoPDF from 'svg-to-pdfkit';
import type { Layout } from '../../core/labels/layout';
import { openJarPath } from '../../core/labels/open-jar';
import { runsOf, runWidth } from './fonts';
import type { Picture } from './svg';

/** Points in a millimetre: 72 to the inch, 25.4 mm to the inch. */
export const POINTS_PER_MM = 72 / 25.4;
/** Past the trim the paper's colour goes on, so that a cut a hair off shows no white. */
const BLEED_MM = 3;
export const MARK_MM = 4;
export const MARK_GAP_MM = 1;
export const SHEET_MARGIN_MM = 10;
export const SHEET_GAP_MM = 6;

export const SHEETS = { A4: [210, 297], Letter: [215.9, 279.4] } as const;
export type Sheet = keyof typeof SHEETS;

type Document = PDFKit.PDFDocument;
const pt = (mm: number) => mm * POINTS_PER_MM;

type PlacedText = Pick<Layout['texts'][number], 'text' | 'face' | 'sizeMm' | 'xMm' | 'yMm'>;

function drawText(document: Document, { text, face, sizeMm, xMm, yMm }: PlacedText, ink: string): void {
  const size = pt(sizeMm);
  let x = pt(xMm);
  for (const run of runsOf(text, face)) {
    if (run.isJar) {
      document.path(openJarPath(size, x, pt(yMm))).fill(ink);
    } else {
      document.registerFont(run.file.name, run.file.data);
      document.font(run.file.name).fontSize(size).fillColor(ink);
      document.text(run.text, x, pt(yMm), { lineBreak: false, baseline: 'alphabetic' });
    }
    x += runWidth(run, size);
  }
}

function drawTexts(document: Document, layout: Layout): void {
  for (const text of layout.texts) drawText(document, text, layout.ink);
}

function drawGround(
  document: Document,
  { widthMm, heightMm, outline, paper }: Layout,
  bleedMm: number,
): void {
  if (/^#f{6}$/i.test(paper)) return;
  document.fillColor(paper);
  if (outline === 'disc')
    document.circle(pt(widthMm / 2), pt(heightMm / 2), pt(widthMm / 2 + bleedMm)).fill();
  else
    document.rect(pt(-bleedMm), pt(-bleedMm), pt(widthMm + 2 * bleedMm), pt(heightMm + 2 * bleedMm)).fill();
}

/** Draws a label with its top left at the document's present origin. */
function drawLabel(
  document: Document,
  layout: Layout,
  pictures: ReadonlyMap<string, Picture>,
  bleedMm: number,
): void {
  drawGround(document, layout, bleedMm);
  for (const { key, xMm, yMm, widthMm, heightMm } of layout.images) {
    const picture = pictures.get(key);
    const size = { width: pt(widthMm), height: pt(heightMm) };
    if (picture?.mime === 'image/png') document.image(picture.data, pt(xMm), pt(yMm), size);
    if (picture?.mime === 'image/svg+xml')
      SVGtoPDF(document, picture.data.toString('utf8'), pt(xMm), pt(yMm), size);
  }
  for (const { x1Mm, y1Mm, x2Mm, y2Mm, weightMm, isGuide } of layout.rules) {
    if (isGuide) continue;
    document.moveTo(pt(x1Mm), pt(y1Mm)).lineTo(pt(x2Mm), pt(y2Mm)).lineWidth(pt(weightMm)).stroke(layout.ink);
  }
  for (const { xMm, yMm, widthMm, heightMm } of layout.bars) {
    document.rect(pt(xMm), pt(yMm), pt(widthMm), pt(heightMm)).fill(layout.ink);
  }
  drawTexts(document, layout);
}

/** Short lines outside the corners, where to cut. */
function drawCutMarks(document: Document, { widthMm, heightMm }: Layout, gapMm: number): void {
  document.lineWidth(0.25).strokeColor('#000000');
  for (const xMm of [0, widthMm]) {
    for (const [fromMm, toMm] of [
      [-gapMm, -gapMm - MARK_MM],
      [heightMm + gapMm, heightMm + gapMm + MARK_MM],
    ] as const)
      document.moveTo(pt(xMm), pt(fromMm)).lineTo(pt(xMm), pt(toMm)).stroke();
  }
  for (const yMm of [0, heightMm]) {
    for (const [fromMm, toMm] of [
      [-gapMm, -gapMm - MARK_MM],
      [widthMm + gapMm, widthMm + gapMm + MARK_MM],
    ] as const)
      document.moveTo(pt(fromMm), pt(yMm)).lineTo(pt(toMm), pt(yMm)).stroke();
  }
}

function finished(document: Document): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    document.on('data', (chunk: Buffer) => chunks.push(chunk));
    document.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    document.on('error', reject);
    document.end();
  });
}

function newDocument(widthMm: number, heightMm: number, title: string): Document {
  const size: [number, number] = [pt(widthMm), pt(heightMm)];
  return new PDFDocument({ size, margin: 0, info: { Title: title, Creator: 'Proportia' } });
}

/** What goes beside the labels on paper. */
interface Beside {
  pictures?: ReadonlyMap<string, Picture>;
  note?: string | null;
}

const NOTE_MM = 2.2;
const NOTE_EDGE_MM = 1;

/** Words in the corner of a page, where nothing is cut out of it. */
function drawNote(document: Document, note: string | null): void {
  if (note === null) return;
  const at = { xMm: NOTE_EDGE_MM, yMm: NOTE_EDGE_MM + NOTE_MM };
  drawText(document, { text: note, face: 'strong', sizeMm: NOTE_MM, ...at }, '#000000');
}

/** One label on a page of its own, with bleed and cut marks around the trim. */
export function layoutPdf(
  layout: Layout,
  title: string,
  { pictures = new Map<string, Picture>(), note = null }: Beside = {},
): Promise<Uint8Array> {
  const edgeMm = BLEED_MM + MARK_GAP_MM + MARK_MM;
  const { widthMm, heightMm } = layout;
  const document = newDocument(widthMm + 2 * edgeMm, heightMm + 2 * edgeMm, title);
  const boxAround = (aroundMm: number) => [
    pt(edgeMm - aroundMm),
    pt(edgeMm - aroundMm),
    pt(edgeMm + widthMm + aroundMm),
    pt(edgeMm + heightMm + aroundMm),
  ];
  Object.assign(document.page.dictionary.data as object, {
    TrimBox: boxAround(0),
    BleedBox: boxAround(BLEED_MM),
  });
  drawNote(document, note);
  document.translate(pt(edgeMm), pt(edgeMm));
  drawLabel(document, layout, pictures, BLEED_MM);
  drawCutMarks(document, layout, BLEED_MM + MARK_GAP_MM);
  return finished(document);
}

/** As many labels as a sheet holds, upright or turned, whichever holds more; 0 where it holds none. */
export function labelsPerSheet(
  { widthMm, heightMm }: Pick<Layout, 'widthMm' | 'heightMm'>,
  sheet: Sheet,
): { columns: number; rows: number; isTurned: boolean } {
  const fit = (wide: number, high: number) => ({
    columns: Math.floor((wide - 2 * SHEET_MARGIN_MM + SHEET_GAP_MM) / (widthMm + SHEET_GAP_MM)),
    rows: Math.floor((high - 2 * SHEET_MARGIN_MM + SHEET_GAP_MM) / (heightMm + SHEET_GAP_MM)),
  });
  const [wide, high] = SHEETS[sheet];
  const [upright, turned] = [fit(wide, high), fit(high, wide)];
  const isTurned = turned.columns * turned.rows > upright.columns * upright.rows;
  return { ...(isTurned ? turned : upright), isTurned };
}

/** A sheet full of labels with cut marks; null where not one fits. */
export async function sheetPdf(
  layout: Layout,
  title: string,
  sheet: Sheet,
  { pictures = new Map<string, Picture>(), note = null }: Beside = {},
): Promise<Uint8Array | null> {
  const { columns, rows, isTurned } = labelsPerSheet(layout, sheet);
  if (columns < 1 || rows < 1) return null;
  const [wide, high] = isTurned ? [SHEETS[sheet][1], SHEETS[sheet][0]] : SHEETS[sheet];
  const document = newDocument(wide, high, title);
  drawNote(document, note);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      document.save();
      document.translate(
        pt(SHEET_MARGIN_MM + column * (layout.widthMm + SHEET_GAP_MM)),
        pt(SHEET_MARGIN_MM + row * (layout.heightMm + SHEET_GAP_MM)),
      );
      drawLabel(document, layout, pictures, 1);
      drawCutMarks(document, layout, MARK_GAP_MM);
      document.restore();
    }
  }
  return finished(document);
}
