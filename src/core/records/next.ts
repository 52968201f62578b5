/** What to pour next, as screens and server know it. */
import type { KeptSure } from './sure';
import type { Verdict } from '../formula/answer';
import type { Need, NextPour, Pace } from '../stock/pace';
import type { PlanLot } from '../stock/plan-lots';
import type { Worth } from '../stock/tonight';
import type { Needed } from './batch';

/** Something that has to be ready by a day: a market, an order, a shop's reopening. */
export interface Wanted extends Need {
  id: string;
  /** Id of the bar. */
  product: string;
}

/** A pour that is planned for a day. */
export interface PlannedPour {
  id: string;
  product: string;
  day: string;
  bars: number;
}

export interface NextBar {
  id: string;
  name: string;
  pace: Pace;
  ready: number;
  curing: { batch: string; code: string; bars: number; readyOn: string }[];
  next: NextPour;
  /** Bars one pour makes. */
  barsAPour: number | null;
  /** What is missing in the cupboard for one pour; empty where it can be poured today. */
  missing: Pick<Needed, 'material' | 'name' | 'neededG' | 'freeG'>[];
  /** Grams of each material that one pour takes, water left out. */
  massG: Record<string, number>;
  /** What a pour of tonight would be worth; null where it is not known what one makes. */
  worth: Worth | null;
  /** Against the limits as planned; null where it does not reckon. */
  verdict: Verdict | null;
}

export interface NextData {
  /** By how much the pace is widened, since what sold came too often outside of it. */
  sure: KeptSure;
  today: string;
  cureDays: number;
  bars: NextBar[];
  /** What the pours of these bars are made of, with the grams that are free and until when they are good. */
  materials: Record<string, { name: string; freeG: number; lots: PlanLot[] }>;
  wanted: Wanted[];
  planned: PlannedPour[];
  evenings: number[];
  room: number | null;
  revision: number;
}

export interface NextPlans {
  wanted: Wanted[];
  planned: PlannedPour[];
  /** Days of the week with time for a pour, 0 for Sunday. */
  evenings?: number[];
  /** Bars that can cure at a time; null where nothing limits them. */
  room?: number | null;
}
