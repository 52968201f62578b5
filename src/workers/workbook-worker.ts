/** Reads a workbook off the main thread, in the browser. */
import type { WorkbookSheet } from '../core/sheets/workbook';
import { workbookSheets } from './workbook';
import { WorkbookFault } from './workbook-bounds';

export type WorkbookAnswer = { sheets: WorkbookSheet[] } | { fault: string | null };

addEventListener('message', (event: MessageEvent<Uint8Array>) => {
  workbookSheets(event.data).then(
    (sheets) => postMessage({ sheets } satisfies WorkbookAnswer),
    (error: unknown) =>
      postMessage({
        fault: error instanceof WorkbookFault ? error.message : null,
      } satisfies WorkbookAnswer),
  );
});
