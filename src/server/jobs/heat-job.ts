/** What the rack asks of the heat model, away from requests. */
import { calibrate, type Measured } from '../../core/heat/calibrate';
import type { Known } from '../../core/heat/ensemble';
import { paceOf, type Pace } from '../../core/heat/pace';
import type { Pour } from '../../core/heat/types';

/** What the thermometer told of one mould last time, so that a rack of many blocks fits it once. */
const learnt = new Map<string, { text: string; known: Known }>();
const MOST_MOULDS = 50;

function knownOf(mould: string, measured: readonly Measured[]): Known | null {
  if (measured.length === 0) return null;
  const text = JSON.stringify(measured);
  const before = learnt.get(mould);
  if (before?.text === text) return before.known;
  const known = calibrate(measured);
  if (learnt.size >= MOST_MOULDS) learnt.clear();
  learnt.set(mould, { text, known });
  return known;
}

export interface PaceTask {
  pour: Pour;
  mould: string;
  /** Earlier pours in the same mould, with what the thermometer said. */
  measured: readonly Measured[];
}

/** How much sooner or later than usual a pour is firm, by part of the batter. */
export function pace({ pour, mould, measured }: PaceTask): Pace[] {
  return paceOf(pour, knownOf(mould, measured));
}
