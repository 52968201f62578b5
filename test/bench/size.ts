/** How much is measured: all of it, or with `--short` just enough to see that every part runs and its figures agree. */
const isShort = process.argv.includes('--short');

/** The full size, or the short one where that is asked for. */
export const sized = <T>(full: T, short: T): T => (isShort ? short : full);
