/**
 * A bench scale that behaves like one, for whoever has none plugged in: it wanders, takes time to settle, drifts,
 * falls asleep, can be knocked, overloaded and unplugged. Times in milliseconds, masses in grams.
 */
import { clockMs } from '../clock';
import type { Reading, ScaleState } from '../../core/weighing/follow';
import { Ticker } from './ticker';

/** What a hand can do to it. */
export const STAND_IN_DOES = ['load', 'pour', 'lift', 'zero', 'wake', 'unplug', 'plug', 'knock'] as const;
export type StandInDo = (typeof STAND_IN_DOES)[number];

const READABILITY_G = 0.1;
const CAPACITY_G = 6000;
const SLEEPS_AFTER_MS = 120_000;
/** The display follows the load by so much of the way in this time. */
const SETTLING_MS = 220;
const NOISE = 0.45;
const DRIFT_PER_S = 0.008;
const STEP_MS = 20;
const POUR_S = 3;
const LIFT_S = 3;
const KNOCK = [35, -24, 14, -8];
const KNOCK_MS = 90;
/** A change of the load by more than this keeps it awake. */
const AWAKE_G = 2;

interface Pour {
  leftG: number;
  perMs: number;
}

function gauss(): number {
  return Math.sqrt(-2 * Math.log(1 - Math.random())) * Math.cos(2 * Math.PI * Math.random());
}

export class StandInScale {
  readonly readabilityG = READABILITY_G;
  private readonly ticker = new Ticker<Reading>(() => this.read(clockMs()));
  private atMs = clockMs();
  private zeroAtMs = clockMs();
  /** What stands on the pan besides what is poured into it; the display showed zero with it. */
  private readonly vesselG = 240;
  private inVesselG = 0;
  private shownG = 240;
  private tareG = 240;
  private pours: Pour[] = [];
  private liftedUntilMs = 0;
  private knockedAtMs = 0;
  private stirredAtMs = clockMs();
  private isPlugged = true;
  private isAsleep = false;

  listen(hear: (reading: Reading) => void): () => void {
    return this.ticker.listen(hear);
  }

  /** What is truly in the vessel, grams; more may be running in. */
  get trueG(): number {
    return this.inVesselG;
  }

  /** Does something to the scale now. */
  do(what: StandInDo, g = 0, seconds?: number): void {
    const nowMs = clockMs();
    this.run(nowMs);
    if (what !== 'unplug') this.stirredAtMs = nowMs;
    switch (what) {
      case 'load':
        this.inVesselG += g;
        break;
      case 'pour':
        this.pours.push({ leftG: g, perMs: g / (1000 * Math.max(0.1, seconds ?? POUR_S)) });
        break;
      case 'lift':
        this.liftedUntilMs = nowMs + 1000 * (seconds ?? LIFT_S);
        break;
      case 'zero':
        this.zero(nowMs);
        break;
      case 'wake':
        if (this.isAsleep) this.zero(nowMs);
        this.isAsleep = false;
        break;
      case 'unplug':
        this.isPlugged = false;
        break;
      case 'plug':
        if (!this.isPlugged) this.zero(nowMs);
        [this.isPlugged, this.isAsleep] = [true, false];
        break;
      case 'knock':
        this.knockedAtMs = nowMs;
    }
  }

  /** Empties the vessel and begins anew with it at zero. */
  reset(): void {
    this.run(clockMs());
    this.pours = [];
    this.inVesselG = 0;
    this.liftedUntilMs = 0;
    [this.isPlugged, this.isAsleep] = [true, false];
    this.shownG = this.vesselG;
    this.stirredAtMs = clockMs();
    this.zero(clockMs());
  }

  private zero(nowMs: number): void {
    this.tareG = this.shownG;
    this.zeroAtMs = nowMs;
  }

  /** Lets time pass up to a moment. */
  private run(nowMs: number): void {
    for (; this.atMs < nowMs; this.atMs += STEP_MS) {
      for (const pour of this.pours) {
        const g = Math.sign(pour.perMs) * Math.min(Math.abs(pour.perMs) * STEP_MS, Math.abs(pour.leftG));
        pour.leftG -= g;
        this.inVesselG = Math.max(0, this.inVesselG + g);
        this.stirredAtMs = this.atMs;
      }
      this.pours = this.pours.filter(({ leftG }) => Math.abs(leftG) > 1e-9);
      const load = this.atMs < this.liftedUntilMs ? 0 : this.vesselG + this.inVesselG;
      if (Math.abs(load - this.shownG) > AWAKE_G) this.stirredAtMs = this.atMs;
      this.shownG += (load - this.shownG) * (1 - Math.exp(-STEP_MS / SETTLING_MS));
      if (this.atMs - this.stirredAtMs > SLEEPS_AFTER_MS) this.isAsleep = true;
    }
  }

  private state(): ScaleState {
    if (!this.isPlugged) return 'unplugged';
    if (this.isAsleep) return 'asleep';
    return this.shownG - this.vesselG > CAPACITY_G ? 'overloaded' : 'ok';
  }

  private read(nowMs: number): Reading {
    this.run(nowMs);
    const state = this.state();
    if (state !== 'ok') return { atMs: nowMs, g: null, state };
    const knock = KNOCK[Math.floor((nowMs - this.knockedAtMs) / KNOCK_MS)] ?? 0;
    const drift = (DRIFT_PER_S * (nowMs - this.zeroAtMs)) / 1000;
    const g = this.shownG - this.tareG + READABILITY_G * (drift + NOISE * gauss() + knock);
    return { atMs: nowMs, g: Number((Math.round(g / READABILITY_G) * READABILITY_G).toFixed(3)), state };
  }
}
