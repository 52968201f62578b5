/**
 * A scale on a serial line whose settings nobody knows: it is listened to in one setting after another, and the one in
 * which its lines can be read is its. Pure but for the waiting, which whoever opens the line does.
 */
import { readScaleLine } from './lines';

/** How a serial line is set. */
export interface SerialForm {
  baudRate: number;
  dataBits: 7 | 8;
  parity: 'none' | 'even' | 'odd';
  stopBits: 1 | 2;
}

const form = (baudRate: number, dataBits: 7 | 8, parity: SerialForm['parity']): SerialForm => ({
  ...{ baudRate, dataBits, parity, stopBits: 1 },
});

/** The settings that bench scales leave the works with, the usual ones first. */
export const SERIAL_FORMS: readonly SerialForm[] = [
  form(9600, 8, 'none'),
  form(2400, 7, 'even'),
  form(9600, 7, 'even'),
  form(4800, 7, 'even'),
  form(4800, 8, 'none'),
  form(19_200, 8, 'none'),
  form(1200, 7, 'even'),
  form(2400, 8, 'none'),
  form(38_400, 8, 'none'),
  form(57_600, 8, 'none'),
  form(115_200, 8, 'none'),
  form(1200, 8, 'none'),
];

/** "9600 baud, 8 bits, no parity", as it is told. */
export function formWords({ baudRate, dataBits, parity }: SerialForm): string {
  return `${baudRate} baud, ${dataBits} bits, ${parity === 'none' ? 'no' : parity} parity`;
}

/** A line ends, or with what checks a framed text. */
const LINE_ENDS = new RegExp(`\\r\\n|\\r|\\n|(?<=${String.fromCharCode(3)}[^\\r\\n])`);
/** A line of a scale is no longer than this. */
const LONGEST_LINE = 200;

/** Puts bytes together into lines; what is not ended yet waits for more. */
export class LineReader {
  private rest = '';

  /** Takes some bytes; answers the lines that ended in them, each as it came. */
  take(bytes: Uint8Array): string[] {
    // A device of seven bits read with eight has its parity in the highest.
    const text = [...bytes].map((byte) => String.fromCharCode(byte & 0x7f)).join('');
    const lines = (this.rest + text).split(LINE_ENDS);
    this.rest = lines.pop()!.slice(-LONGEST_LINE);
    return lines.filter((line) => line.length > 0 && line.length <= LONGEST_LINE);
  }
}

/** So many lines that can be read tell that the setting is right; a good half of all have to be. */
const ENOUGH_LINES = 2;

/** Whether what was heard in a setting is a scale's. */
export function isScaleHeard(lines: readonly string[]): boolean {
  const read = lines.filter((line) => readScaleLine(line) !== null).length;
  return read >= ENOUGH_LINES && 2 * read >= lines.length;
}

/** Listens for a while in a setting: what came, as bytes. */
export type Listen = (form: SerialForm, forMs: number) => Promise<readonly Uint8Array[]>;

/** A scale sends at least twice a second; some wait longer at first. */
export const LISTEN_MS = 1200;

/**
 * The setting in which a scale can be read: the one it had the last time first. Null where it is read in none.
 *
 * @example
 * await findForm(listen, SERIAL_FORMS[0]); // where the scale was the last time, or wherever it speaks
 */
export async function findForm(
  listen: Listen,
  known: SerialForm | null = null,
  onTry: (form: SerialForm, at: number) => void = () => undefined,
): Promise<SerialForm | null> {
  const forms = known ? [known, ...SERIAL_FORMS] : SERIAL_FORMS;
  for (const [at, one] of forms.entries()) {
    onTry(one, at);
    const reader = new LineReader();
    const lines = (await listen(one, LISTEN_MS)).flatMap((bytes) => reader.take(bytes));
    if (isScaleHeard(lines)) return one;
  }
  return null;
}

/** A stream of a scale as it was recorded: a line for each thing sent, its milliseconds first. */
export interface Recording {
  form: SerialForm;
  lines: { atMs: number; text: string }[];
}

const HEAD = /^#\s*(\d+)\s+([78])\s*([NEO])\s*([12])\s*$/i;
const PARITIES = { N: 'none', E: 'even', O: 'odd' } as const;

/**
 * Reads a recording: the first line says the setting as `# 9600 8 N 1`, each other its milliseconds, a blank, and what was
 * sent. Null where it is none.
 *
 * @example
 * readRecording('# 2400 7 E 1\n0 ST,+0000.0 g\n200 US,+0012.4 g').lines.length // 2
 */
export function readRecording(text: string): Recording | null {
  const [head = '', ...rest] = text.split(/\r\n|\r|\n/);
  const found = HEAD.exec(head.trim());
  if (!found) return null;
  const [, baud, bits, parity, stop] = found;
  const lines = rest.flatMap((line) => {
    const match = /^(\d{1,9}) (.*)$/.exec(line);
    return match ? [{ atMs: Number(match[1]), text: match[2]! }] : [];
  });
  if (lines.length === 0) return null;
  const letter = parity!.toUpperCase() as keyof typeof PARITIES;
  return {
    form: {
      baudRate: Number(baud),
      dataBits: Number(bits) as 7 | 8,
      parity: PARITIES[letter],
      stopBits: Number(stop) as 1 | 2,
    },
    lines,
  };
}
