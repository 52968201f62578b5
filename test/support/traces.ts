/** A bench scale with known truth, for tests: written apart from the follower and from the stand-in that ships. */
import type { Reading } from '../../src/core/weighing/follow';
import { seeded } from './generate';

export type Happening =
  | { do: 'pour'; g: number; seconds: number }
  | { do: 'rest'; seconds: number }
  | { do: 'zero' }
  | { do: 'lift'; seconds: number }
  | { do: 'sleep'; seconds: number; keepsTare?: boolean }
  | { do: 'knock' }
  | { do: 'lean'; seconds: number };

export interface TracePoint extends Reading {
  /** What is in the vessel. */
  trueG: number;
  /** Seconds into a pour; 0 where none goes on. */
  pouringS: number;
  /** How long the hand has rested with nothing touching vessel or scale, seconds. */
  restingS: number;
  zeroed: boolean;
  woke: boolean;
}

export interface TraceOptions {
  seed: number;
  readabilityG: number;
  /** Seconds until a change is shown to within a hundredth. */
  settlingS: number;
  noise?: number;
  vesselG?: number;
}

const EVERY_S = 0.1;

function gauss(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** Readings ten a second of what happens, with what is truly in the vessel. */
export function trace(happenings: readonly Happening[], options: TraceOptions): TracePoint[] {
  const { readabilityG: r, settlingS, noise = 0.5, vesselG = 180 * r } = options;
  const random = seeded(options.seed);
  const drift = (random() < 0.5 ? -1 : 1) * 0.01 * r;
  const points: TracePoint[] = [];
  let [time, inVessel, shown, tare, rest] = [random() * 5, 0, vesselG, vesselG, 0];
  const step = (on: {
    lifted?: boolean;
    blank?: boolean;
    push?: number;
    pouringS?: number;
    zeroed?: boolean;
    woke?: boolean;
  }) => {
    time += EVERY_S;
    // The load cell follows what lies on it; several small steps within one reading.
    const load = (on.lifted ? 0 : vesselG + inVessel) + (on.push ?? 0);
    shown += (load - shown) * (1 - Math.exp((-4.6 * EVERY_S) / settlingS));
    const raw = shown - tare + drift * time + noise * r * gauss(random);
    rest = on.pouringS || on.lifted || on.blank || on.push || on.zeroed || on.woke ? 0 : rest + EVERY_S;
    points.push({
      atMs: Math.round(time * 1000),
      g: on.blank ? null : Math.round(raw / r) * r,
      state: on.blank ? 'asleep' : 'ok',
      trueG: inVessel,
      pouringS: on.pouringS ?? 0,
      restingS: rest,
      zeroed: on.zeroed ?? false,
      woke: on.woke ?? false,
    });
  };
  for (const happening of happenings) {
    const count = 'seconds' in happening ? Math.max(1, Math.round(happening.seconds / EVERY_S)) : 1;
    switch (happening.do) {
      case 'pour': {
        // A hand pours unevenly: the stream swells and thins slowly.
        const swell = random() * 0.4;
        const phase = random() * 6;
        const weights = Array.from({ length: count }, (_, i) => 1 + swell * Math.sin(phase + i / 9));
        const all = weights.reduce((a, b) => a + b, 0);
        weights.forEach((weight, i) => {
          inVessel += (happening.g * weight) / all;
          step({ pouringS: (i + 1) * EVERY_S });
        });
        break;
      }
      case 'rest':
        for (let i = 0; i < count; i++) step({});
        break;
      case 'zero':
        tare = shown + drift * time;
        points.at(-1)!.zeroed = true;
        break;
      case 'lift':
        for (let i = 0; i < count; i++) step({ lifted: true });
        break;
      case 'sleep':
        for (let i = 0; i < count; i++) step({ blank: true });
        if (!happening.keepsTare) tare = shown + drift * time;
        step({ woke: true });
        break;
      case 'knock':
        for (const push of [30, -22, 12, -6]) step({ push: push * r * (0.5 + random()) });
        break;
      case 'lean':
        for (let i = 0; i < count; i++) step({ push: r * (25 + 5 * gauss(random) * 2) });
        break;
    }
  }
  return points;
}

/** Seconds into a pour in the middle of which zero is pressed: two pours without a rest between. */
export function pourWithZero(g: number, seconds: number, share: number): Happening[] {
  return [
    { do: 'pour', g: g * share, seconds: seconds * share },
    { do: 'zero' },
    { do: 'pour', g: g * (1 - share), seconds: seconds * (1 - share) },
  ];
}
