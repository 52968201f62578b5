/** The product's file on paper: what is missing in red first, an index with pages, then its sections. */
import { createHash } from 'node:crypto';
import { strToU8, zipSync, type Zippable } from 'fflate';
import type { FileSection, FileTable, ProductFile } from '../../core/file/types';
import { flowingPdf, heading, LEFT_PT, rows, set, type Document } from './flow';

const WIDTH_PT = 495;
const RED = '#9c1f3c';

function paragraph(document: Document, text: string, colour?: string): void {
  set(document, 'text', 9);
  if (colour) document.fillColor(colour);
  document.text(text, LEFT_PT, document.y, { width: WIDTH_PT });
  document.moveDown(0.2);
}

function table(document: Document, { columns, at, rows: lines }: FileTable): void {
  const places = at.map((part) => LEFT_PT + (part / 100) * WIDTH_PT);
  rows(document, places, [columns], 'strong');
  rows(document, places, lines);
  document.moveDown(0.4);
}

const pageNumber = (document: Document) => {
  const { start, count } = document.bufferedPageRange();
  return start + count;
};

/** Draws a section; answers the page it begins on. */
function drawSection(
  document: Document,
  { title, lines, tables, closing, missing }: FileSection,
  number: number,
): number {
  heading(document, `${number}. ${title}`);
  const begins = pageNumber(document);
  for (const one of missing) paragraph(document, `Missing: ${one}`, RED);
  for (const line of lines) paragraph(document, line);
  for (const one of tables) if (one.rows.length > 0) table(document, one);
  for (const line of closing) paragraph(document, line);
  return begins;
}

function draw(document: Document, file: ProductFile): void {
  const { title, of, onDate, rulebookEdition, isNot, missing, sections, attached } = file;
  set(document, 'display', 18).text(title);
  paragraph(document, `${of} Made on ${onDate} from the records on file, rulebook ${rulebookEdition}.`);
  paragraph(document, isNot);
  heading(document, missing.length > 0 ? `Missing: ${missing.length}` : 'Nothing is seen to be missing');
  for (const one of missing) paragraph(document, one, RED);
  heading(document, 'Index');
  const places = sections.map(({ title: of }, at) => {
    paragraph(document, `${at + 1}. ${of}`);
    return { page: pageNumber(document) - 1, y: document.y };
  });
  if (attached.length > 0) {
    heading(document, 'Files that go along in the ZIP');
    rows(
      document,
      [LEFT_PT, 250],
      attached.map(({ name, what }) => [name, what]),
    );
  }
  document.addPage();
  const starts = sections.map((one, at) => drawSection(document, one, at + 1));
  places.forEach(({ page, y }, at) => {
    document.switchToPage(page);
    set(document, 'text', 9).text(`page ${starts[at]}`, LEFT_PT + WIDTH_PT - 60, y - 13, {
      ...{ width: 60, align: 'right', lineBreak: false },
    });
  });
}

/** The file as PDF: the same bytes for the same file. */
export function productFilePdf(file: ProductFile): Promise<Uint8Array> {
  return flowingPdf(file.title, (document) => draw(document, file), { day: file.onDate });
}

export interface FileZipJob {
  file: ProductFile;
  /** Papers, labels and records by their names in the ZIP. */
  bytes: { name: string; bytes: Uint8Array }[];
}

/** The file with all that goes along, and a list of sums. The same bytes for the same file. */
export async function productFileZip({ file, bytes }: FileZipJob): Promise<Uint8Array> {
  const all = [{ name: 'file.pdf', bytes: await productFilePdf(file) }, ...bytes];
  const sums = all.map(
    ({ name, bytes: one }) => `${createHash('sha256').update(one).digest('hex')}  ${name}\n`,
  );
  const text = strToU8(sums.join(''));
  const mtime = new Date(`${file.onDate}T12:00:00`);
  const zip: Zippable = {};
  for (const { name, bytes: one } of [...all, { name: 'sums-sha256.txt', bytes: text }])
    zip[name] = [one, { mtime, level: /\.(?:pdf|png|jpg|webp)$/.test(name) ? 0 : 6 }];
  return zipSync(zip);
}
