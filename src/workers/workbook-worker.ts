/** Reads a workbook off the main thread, in the browser. */
import { WorkbookFault, workbookRows } from './workbook';

export type WorkbookAnswer = { rows: string[][] } | { fault: string | null };

addEventListener('message', (event: MessageEvent<Uint8Array>) => {
  workbookRows(event.data).then(
    (rows) => postMessage({ rows } satisfies WorkbookAnswer),
    (error: unknown) =>
      postMessage({
        fault: error instanceof WorkbookFault ? error.message : null,
      } satisfies WorkbookAnswer),
  );
});
