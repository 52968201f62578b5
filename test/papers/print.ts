/** Prints made-up papers through Chromium and reads their PDFs as the paper tray does. */
import { chromium, type Browser } from '@playwright/test';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { linesFromItems, type PaperLine } from '../../src/core/paperwork/page';
import { readPaper, type PaperReading } from '../../src/core/paperwork/read';
import { knownConstituents } from '../../src/library/constituents';
import playwright from '../../playwright.config';

/** The lines of a PDF, as the paper tray takes them. */
export async function pdfLines(bytes: Uint8Array): Promise<PaperLine[]> {
  const pdf = await getDocument({ data: bytes, verbosity: 0 }).promise;
  const lines: PaperLine[] = [];
  for (let number = 1; number <= pdf.numPages; number++) {
    const page = await pdf.getPage(number);
    const { height } = page.getViewport({ scale: 1 });
    const { items } = await page.getTextContent();
    const texts = items.flatMap((item) =>
      'str' in item
        ? [
            {
              text: item.str,
              xPt: item.transform[4] as number,
              yPt: height - (item.transform[5] as number),
              widthPt: item.width,
              heightPt: item.height,
            },
          ]
        : [],
    );
    lines.push(...linesFromItems(number, texts));
  }
  await pdf.destroy();
  return lines;
}

/** A press: opens once, prints many. */
export class Press {
  private constructor(private readonly browser: Browser) {}
  static async open(): Promise<Press> {
    return new Press(await chromium.launch(playwright.use?.launchOptions));
  }
  async print(html: string): Promise<Uint8Array> {
    const page = await this.browser.newPage();
    try {
      await page.setContent(html, { waitUntil: 'load' });
      return new Uint8Array(await page.pdf({ format: 'A4', preferCSSPageSize: true }));
    } finally {
      await page.close();
    }
  }
  async read(html: string): Promise<PaperReading> {
    return readPaper({ lines: await pdfLines(await this.print(html)) }, knownConstituents);
  }
  close(): Promise<void> {
    return this.browser.close();
  }
}
