/** PDFs whose text flows over pages: headings, rows in columns. */
import PDFDocument from 'pdfkit';
import { runsOf } from './fonts';

const PAGE_FOOT_PT = 790;
export const LEFT_PT = 50;

export type Document = PDFKit.PDFDocument;

/** Sets a font that draws the text; letters it lacks are left to the first file. */
export function set(document: Document, face: 'display' | 'text' | 'strong', sizePt: number): Document {
  const { file } = runsOf('a', face)[0]!;
  document.registerFont(file.name, file.data);
  return document.font(file.name).fontSize(sizePt).fillColor('#18222d');
}

/** A heading, on the next page where little room is left. */
export function heading(document: Document, text: string): void {
  if (document.y > PAGE_FOOT_PT - 60) document.addPage();
  set(document, 'strong', 11).text(text, LEFT_PT, document.y + 8);
  document.moveDown(0.2);
}

/** Rows in columns that begin at these places, in points from the left. */
export function rows(
  document: Document,
  columnsPt: readonly number[],
  lines: readonly (readonly string[])[],
  face: 'text' | 'strong' = 'text',
): void {
  set(document, face, 9);
  for (const line of lines) {
    const heights = line.map((text, index) =>
      document.heightOfString(text || ' ', { width: (columnsPt[index + 1] ?? 545) - columnsPt[index]! - 6 }),
    );
    const height = Math.max(...heights);
    if (document.y + height > PAGE_FOOT_PT) {
      document.addPage();
      set(document, face, 9);
    }
    const { y } = document;
    line.forEach((text, index) =>
      document.text(text, columnsPt[index], y, {
        width: (columnsPt[index + 1] ?? 545) - columnsPt[index]! - 6,
      }),
    );
    document.y = y + height + 2;
  }
  document.x = LEFT_PT;
}

/** Draws a document of A4 pages to its bytes; with a day, to the same bytes whenever it is drawn, its pages kept to its end. */
export function flowingPdf(
  title: string,
  draw: (document: Document) => void,
  { day }: { day?: string } = {},
): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    const made = day === undefined ? {} : { CreationDate: new Date(`${day}T12:00:00Z`) };
    const document = new PDFDocument({
      size: 'A4',
      margin: LEFT_PT,
      bufferPages: day !== undefined,
      info: { Title: title, Creator: 'Proportia', ...made },
    });
    const chunks: Buffer[] = [];
    document.on('data', (chunk: Buffer) => chunks.push(chunk));
    document.on('end', () => resolve(new Uint8Array(Buffer.concat(chunks))));
    document.on('error', reject);
    draw(document);
    document.end();
  });
}
