/** The label printer: what any of them does, and a spool that shows what it would print. */

export interface PrintJob {
  id: number;
  /** Id of the issued label, whose PDF is printed. */
  label: string;
  copies: number;
  at: string;
}

/** Anything that prints issued labels. */
export interface LabelPrinter {
  print(label: string, copies: number, at: string): PrintJob;
  /** What was printed last, newest first. */
  jobs(): readonly PrintJob[];
}

/** Jobs shown; older ones fall off. */
const MOST_SHOWN = 100;

/** Prints nothing and shows what it would have. */
export class SpoolPrinter implements LabelPrinter {
  private spool: PrintJob[] = [];
  private count = 0;

  print(label: string, copies: number, at: string): PrintJob {
    const job = { id: ++this.count, label, copies, at };
    this.spool = [job, ...this.spool].slice(0, MOST_SHOWN);
    return job;
  }

  jobs(): readonly PrintJob[] {
    return this.spool;
  }
}

const printer: LabelPrinter = new SpoolPrinter();

/** The printer of this house. */
export const labelPrinter = (): LabelPrinter => printer;
