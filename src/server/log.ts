/**
 * What the server says to whoever looks after it: lines of JSON on the standard error. Nothing that makers write goes in:
 * of an error only its kind and where it arose, since messages of the database carry what was to be written.
 */
import pino from 'pino';

const log = pino(
  { base: undefined, timestamp: pino.stdTimeFunctions.isoTime },
  pino.destination({ dest: 2, sync: true }),
);
const MOST_FRAMES = 8;

/** Where an error arose, without its message. */
function framesOf(error: Error): string[] {
  const lines = (error.stack ?? '').split('\n').filter((line) => /^\s+at /.test(line));
  return lines.slice(0, MOST_FRAMES).map((line) => line.trim());
}

/** Notes a fault that is ours, or the system's. `kind` names what was being done. */
export function noteFault(kind: string, error: unknown): void {
  if (!(error instanceof Error)) return log.error({ kind });
  const { name, code } = error as Error & { code?: unknown };
  log.error({ kind, name, ...(typeof code === 'string' ? { code } : {}), at: framesOf(error) });
}

/** Notes something that happened, in words that hold nothing of a maker's. */
export const note = (kind: string, words: string): void => log.warn({ kind }, words);
