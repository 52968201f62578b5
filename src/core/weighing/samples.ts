/** Small statistics over readings of a scale. Times in milliseconds, masses in grams. */

export interface Sample {
  atMs: number;
  g: number;
}

export const mean = (samples: readonly Sample[]): number =>
  samples.reduce((sum, { g }) => sum + g, 0) / samples.length;

/** The middle one of the masses. */
export function median(samples: readonly Sample[]): number {
  const sorted = samples.map(({ g }) => g).sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}

export const half = (samples: readonly Sample[]): [Sample[], Sample[]] => [
  samples.slice(0, samples.length >> 1),
  samples.slice(samples.length >> 1),
];

/** The straight line through readings: its slope, grams a second, and the spread about it, grams. */
export function lineThrough(samples: readonly Sample[]): { slopePerS: number; spreadG: number } {
  const [t, g] = [samples.reduce((sum, { atMs }) => sum + atMs, 0) / samples.length / 1000, mean(samples)];
  let [tt, tg, gg] = [0, 0, 0];
  for (const sample of samples) {
    const [dt, dg] = [sample.atMs / 1000 - t, sample.g - g];
    tt += dt * dt;
    tg += dt * dg;
    gg += dg * dg;
  }
  const slopePerS = tt > 0 ? tg / tt : 0;
  const left = Math.max(0, gg - slopePerS * tg);
  return { slopePerS, spreadG: Math.sqrt(left / Math.max(1, samples.length - 2)) };
}
