/** Words of the house. */

const STEPS = ['bytes', 'kB', 'MB', 'GB'] as const;

/** "1.4 MB" */
export function sizeInWords(bytes: number): string {
  let [value, at] = [bytes, 0];
  while (value >= 1000 && at < STEPS.length - 1) [value, at] = [value / 1000, at + 1];
  return `${value < 10 && at > 0 ? value.toFixed(1) : Math.round(value)} ${STEPS[at]}`;
}

const BROWSERS = [
  [/Edg\//, 'Edge'],
  [/Firefox\/|FxiOS/, 'Firefox'],
  [/Chrome\/|CriOS/, 'Chrome'],
  [/Safari\//, 'Safari'],
] as const;
const SYSTEMS = [
  [/iPhone/, 'an iPhone'],
  [/iPad/, 'an iPad'],
  [/Android/, 'Android'],
  [/Windows/, 'Windows'],
  [/Mac OS X/, 'a Mac'],
  [/Linux/, 'Linux'],
] as const;

/** What a device says of itself, in words: "Chrome on Android". */
export function deviceInWords(said: string): string {
  const first = (all: readonly (readonly [RegExp, string])[]) =>
    all.find(([pattern]) => pattern.test(said))?.[1];
  return `${first(BROWSERS) ?? 'a browser'} on ${first(SYSTEMS) ?? 'a device that does not say what it is'}`;
}
