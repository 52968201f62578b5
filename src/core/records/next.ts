/** What to pour next, as screens and server know it. */
import type { KeptSure } from './sure';
import type { Verdict } from '../formula/answer';
import type { Need, NextPour, Pace } from '../stock/pace';
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
  wanted: Wanted[];
  planned: PlannedPour[];
  revision: number;
}

export interface NextPlans {
  wanted: Wanted[];
  planned: PlannedPour[];
}
