/** Words of the house. */

const STEPS = ['bytes', 'kB', 'MB', 'GB'] as const;

/** "1.4 MB" */
export function sizeInWords(bytes: number): string {
  let [value, at] = [bytes, 0];
  while (value >= 1000 && at < STEPS.length - 1) [value, at] = [value / 1000, at + 1];
  return `${value < 10 && at > 0 ? value.toFixed(1) : Math.round(value)} ${STEPS[at]}`;
}
