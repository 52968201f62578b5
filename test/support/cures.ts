/**
 * Made-up cures with a known truth, written apart from what reads them: bars of one batch that dry along one or two
 * exponentials, in weather that walks at random, on a scale with noise.
 */
import type { CureWeighing } from '../../src/core/curing/cure-types';

export interface MadeCure {
  weighings: CureWeighing[];
  readabilityG: number;
  pouredG: number;
  bars: number;
  truth: {
    ratio: number;
    settledG: Record<string, number>;
    lossPerDayPct: (day: number) => number;
    readyOnDay: (minDays: number) => number;
  };
}

/** A linear congruential generator, unlike the one the product uses. */
function dice(seed: number) {
  let state = BigInt(seed) * 6364136223846793005n + 1442695040888963407n;
  const next = () => {
    state = (state * 6364136223846793005n + 1442695040888963407n) & ((1n << 64n) - 1n);
    return Number(state >> 11n) / 2 ** 53;
  };
  const bell = () => Array.from({ length: 12 }, next).reduce((sum, one) => sum + one, -6);
  return { next, bell, between: (low: number, high: number) => low + (high - low) * next() };
}

/** A batch's cure: `times` weighings of each of `bars` bars, every few days from the cut on. */
export function makeCure(seed: number, times: number, shape: 'one' | 'two' | 'any' = 'any'): MadeCure {
  const { next, bell, between } = dice(seed);
  for (let skip = 0; skip < 8; skip++) next();
  const finalLoss = between(0.06, 0.2);
  const parts =
    shape === 'two' || (shape === 'any' && next() < 0.5)
      ? (() => {
          const share = between(0.25, 0.75);
          return [
            { share, days: between(4, 30) },
            { share: 1 - share, days: between(4, 30) },
          ];
        })()
      : [{ share: 1, days: between(4, 30) }];
  const gone = (day: number) =>
    finalLoss * parts.reduce((sum, { share, days }) => sum + share * (1 - Math.exp(-day / days)), 0);
  const rate = (day: number) =>
    (100 *
      finalLoss *
      parts.reduce((sum, { share, days }) => sum + (share / days) * Math.exp(-day / days), 0)) /
    (1 - gone(day));
  const readabilityG = [0.1, 0.5, 1][Math.floor(next() * 3)]!;
  const barCount = 1 + Math.floor(next() * 4);
  const bars = Array.from({ length: barCount }, (_, at) => ({
    name: String(at + 1),
    pouredG: between(85, 125),
  }));
  const weighings: CureWeighing[] = [];
  let weather = 0;
  let day = between(1, 3);
  for (let past = 0; past < day; past += 1) weather += 0.001 * bell();
  for (let time = 0; time < times; time++) {
    for (const { name, pouredG } of bars) {
      const shown = pouredG * (1 - gone(day)) * (1 + weather) + 0.5 * readabilityG * bell();
      weighings.push({ bar: name, day, massG: Math.round(shown / readabilityG) * readabilityG });
    }
    const pause = between(2, 7);
    weather += 0.001 * Math.sqrt(pause) * bell();
    day += pause;
  }
  const readyOnDay = (minDays: number) => {
    let at = minDays;
    while (rate(at) >= 0.05 && at < 500) at += 0.01;
    return at;
  };
  return {
    weighings,
    readabilityG,
    pouredG: bars.reduce((sum, { pouredG }) => sum + pouredG, 0),
    bars: barCount,
    truth: {
      ratio: 1 - finalLoss,
      settledG: Object.fromEntries(bars.map(({ name, pouredG }) => [name, pouredG * (1 - finalLoss)])),
      lossPerDayPct: rate,
      readyOnDay,
    },
  };
}
