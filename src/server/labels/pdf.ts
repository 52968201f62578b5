/** Draws a layout as a one-page PDF with embedded fonts and text that can be selected. */
import PDFDocument from 'pdfkit';
import type { Layout } from '../../core/labels/layout';
import { runsOf, runWidth } from './fonts';

/** Points in a millimetre: 72 to the inch, 25.4 mm to the inch. */
const POINTS_PER_MM = 72 / 25.4;

function drawTexts(document: PDFKit.PDFDocument, layout: Layout): void {
  for (const { text, face, sizeMm, xMm, yMm } of layout.texts) {
    const size = sizeMm * POINTS_PER_MM;
    let x = xMm * POINTS_PER_MM;
    for (const run of runsOf(text, face)) {
      document.registerFont(run.file.name, run.file.data);
      document.font(run.file.name).fontSize(size);
      document.text(run.text, x, yMm * POINTS_PER_MM, { lineBreak: false, baseline: 'alphabetic' });
      x += runWidth(run, size);
    }
  }
}

/** The PDF of a layout; its page is the label itself. `title` stands in the document's properties. */
export function layoutPdf(layout: Layout, title: string): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    const size: [number, number] = [layout.widthMm * POINTS_PER_MM, layout.heightMm * POINTS_PER_MM];
    const document = new PDFDocument({ size, margin: 0, info: { Title: title, Creator: 'Proportia' } });
    const chunks: Buffer[] = [];
    document.on('data', (chunk: Buffer) => chunks.push(chunk));
    document.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    document.on('error', reject);
    for (const { x1Mm, y1Mm, x2Mm, y2Mm, weightMm } of layout.rules) {
      document
        .moveTo(x1Mm * POINTS_PER_MM, y1Mm * POINTS_PER_MM)
        .lineTo(x2Mm * POINTS_PER_MM, y2Mm * POINTS_PER_MM)
        .lineWidth(weightMm * POINTS_PER_MM)
        .stroke();
    }
    drawTexts(document, layout);
    document.end();
  });
}
