/** Draws the made-up suppliers' papers, each in a layout of its own, as PDF. */
import PDFDocument from 'pdfkit';

type Document = PDFKit.PDFDocument;

const PAGE_FOOT_PT = 780;

/** A page of A4 with the drawing on it. */
export function drawPaper(title: string, draw: (document: Document) => void): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    const document = new PDFDocument({ size: 'A4', margin: 50, info: { Title: title, Creator: 'Made up' } });
    const chunks: Buffer[] = [];
    document.on('data', (chunk: Buffer) => chunks.push(chunk));
    document.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    document.on('error', reject);
    draw(document);
    document.end();
  });
}

/** Labels with their values beside them, in two columns. */
export function drawPairs(
  document: Document,
  pairs: readonly (readonly [string, string])[],
  columnPt = 170,
): void {
  for (const [label, value] of pairs) {
    const { y } = document;
    document.text(label, 50, y, { lineBreak: false });
    document.text(value, columnPt, y);
  }
  document.moveDown();
}

/** A table by column starts; long names wrap within their column, and a table goes on over the page. */
export function drawTable(
  document: Document,
  columnsPt: readonly number[],
  rows: readonly (readonly string[])[],
  stepPt = 16,
): void {
  let y = document.y + 4;
  for (const row of rows) {
    if (y > PAGE_FOOT_PT) {
      document.addPage();
      y = document.y;
    }
    let foot = y;
    row.forEach((text, column) => {
      const end = columnsPt[column + 1] ?? 545;
      document.text(text, columnsPt[column], y, { width: end - columnsPt[column]! - 8 });
      foot = Math.max(foot, document.y);
    });
    y = Math.max(y + stepPt, foot + 3);
  }
  document.x = 50;
  document.y = y + 6;
}
