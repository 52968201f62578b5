/** The text of a PDF, page by page, lines by their height on the page. */
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

interface Item {
  str: string;
  transform: number[];
}

/** Lines of each page, left to right. */
export async function readPdfText(bytes: Uint8Array): Promise<string[]> {
  const document = await getDocument({ data: new Uint8Array(bytes) }).promise;
  const pages: string[] = [];
  for (let page = 1; page <= document.numPages; page++) {
    const { items } = await (await document.getPage(page)).getTextContent();
    const lines = new Map<number, Item[]>();
    for (const item of items as Item[]) {
      const y = Math.round(item.transform[5]!);
      // Baselines of a line lie within a point or two of each other.
      const near = [...lines.keys()].find((known) => Math.abs(known - y) <= 2) ?? y;
      lines.set(near, [...(lines.get(near) ?? []), item]);
    }
    const sorted = [...lines].sort(([a], [b]) => b - a);
    pages.push(
      sorted
        .map(([, row]) =>
          row
            .sort((a, b) => a.transform[4]! - b.transform[4]!)
            .map(({ str }) => str)
            .join(' '),
        )
        .join('\n'),
    );
  }
  return pages;
}
