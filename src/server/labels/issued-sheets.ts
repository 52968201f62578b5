/** An issued label on sheets: so many of it, drawn from its PDF as it was issued. */
import { PDFDocument, rgb, type PDFPage } from 'pdf-lib';
import {
  labelsPerSheet,
  MARK_GAP_MM,
  MARK_MM,
  POINTS_PER_MM,
  SHEET_GAP_MM,
  SHEET_MARGIN_MM,
  SHEETS,
  type Sheet,
} from './pdf';

const pt = (mm: number) => mm * POINTS_PER_MM;
/** So much of what lies past the trim goes on the sheet with it. */
const PAST_MM = 1;

export interface SheetsTask {
  /** The PDF of a label as it was issued. */
  pdf: Uint8Array;
  sheet: Sheet;
  /** How many labels; null for one full sheet. */
  copies: number | null;
  title: string;
}

/** Short lines outside a label's corners, where to cut; the origin at its lower left. */
function cutMarks(page: PDFPage, x: number, y: number, wide: number, high: number): void {
  const [gap, length] = [pt(MARK_GAP_MM), pt(MARK_MM)];
  const line = (x1: number, y1: number, x2: number, y2: number) =>
    page.drawLine({ start: { x: x1, y: y1 }, end: { x: x2, y: y2 }, thickness: 0.25, color: rgb(0, 0, 0) });
  for (const at of [x, x + wide]) {
    line(at, y - gap, at, y - gap - length);
    line(at, y + high + gap, at, y + high + gap + length);
  }
  for (const at of [y, y + high]) {
    line(x - gap, at, x - gap - length, at);
    line(x + wide + gap, at, x + wide + gap + length, at);
  }
}

/** So many of an issued label on as many sheets as they take, drawn as it was issued; null where not one fits on a sheet. */
export async function sheetsOfIssued({ pdf, sheet, copies, title }: SheetsTask): Promise<Uint8Array | null> {
  const from = await PDFDocument.load(pdf);
  const label = from.getPage(0);
  const trim = label.getTrimBox();
  const size = { widthMm: trim.width / POINTS_PER_MM, heightMm: trim.height / POINTS_PER_MM };
  const { columns, rows, isTurned } = labelsPerSheet(size, sheet);
  if (columns < 1 || rows < 1) return null;
  const into = await PDFDocument.create();
  into.setTitle(title);
  into.setCreator('Proportia');
  const past = pt(PAST_MM);
  const drawn = await into.embedPage(label, {
    left: trim.x - past,
    bottom: trim.y - past,
    right: trim.x + trim.width + past,
    top: trim.y + trim.height + past,
  });
  const [wide, high] = isTurned ? [SHEETS[sheet][1], SHEETS[sheet][0]] : SHEETS[sheet];
  const perPage = columns * rows;
  const count = copies ?? perPage;
  let page: PDFPage | null = null;
  for (let at = 0; at < count; at++) {
    const place = at % perPage;
    if (place === 0) page = into.addPage([pt(wide), pt(high)]);
    const [column, row] = [place % columns, Math.floor(place / columns)];
    const x = pt(SHEET_MARGIN_MM) + column * (trim.width + pt(SHEET_GAP_MM));
    const y = pt(high - SHEET_MARGIN_MM) - (row + 1) * trim.height - row * pt(SHEET_GAP_MM);
    page!.drawPage(drawn, { x: x - past, y: y - past });
    cutMarks(page!, x, y, trim.width, trim.height);
  }
  return into.save();
}
