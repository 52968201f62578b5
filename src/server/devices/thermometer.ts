/** The thermometer at the bench: what any of them does, and the stand-in for whoever has none plugged in. */
import { clockMs } from '../clock';

/** Anything that tells how warm it is just now. */
export interface Thermometer {
  read(): { c: number; atMs: number };
}

const ROOM_C = 21;
/** A pot on the table comes two thirds of the way to the room in this time. */
const COOLS_IN_MS = 25 * 60_000;
const NOISE_C = 0.2;

/** Stands in a pot that was so warm when it was put in, and cools to the room. */
export class StandInThermometer implements Thermometer {
  private startC = 62;
  private startMs: number;

  constructor(private readonly nowMs: () => number = clockMs) {
    this.startMs = nowMs();
  }

  /** Puts it into something else. */
  dip(c: number): void {
    this.startC = c;
    this.startMs = this.nowMs();
  }

  read(): { c: number; atMs: number } {
    const atMs = this.nowMs();
    const left = Math.exp(-(atMs - this.startMs) / COOLS_IN_MS);
    const c = ROOM_C + (this.startC - ROOM_C) * left + (Math.random() - 0.5) * 2 * NOISE_C;
    return { c: Number(c.toFixed(1)), atMs };
  }
}

const thermometer = new StandInThermometer();

/** The thermometer of this bench. */
export const benchThermometer = (): StandInThermometer => thermometer;
