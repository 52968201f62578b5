/** What is seen of a block while it heats and cools: the warmest of every cell, its gel, and when it is firm. */
import type { Cells } from './cells';
import { FIRM, GELLED_AFTER_HOURS, PART_WITHIN_K, PURE_LAURIC_SHARE, SALTED_SHARE } from './figures';
import type { Grid } from './grid';
import type { GelState, HeatBatter, Run } from './types';

/** What was seen of every cell over a run. */
export interface Watch {
  peakC: Float64Array;
  peakHour: Float64Array;
  /** Hours spent above gel. */
  gelHours: Float64Array;
  firmHour: Float64Array;
}

/** Salted and nearly pure lauric batters firm while they are hot. */
const firmsHot = ({ saltG, fatsG, lauricShare }: HeatBatter) =>
  saltG > SALTED_SHARE * fatsG || lauricShare > PURE_LAURIC_SHARE;

/** Looks at every cell after a step. */
export function watch(cells: Cells, seen: Watch, hour: number, stepHours: number): void {
  for (let at = 0; at < cells.t.length; at++) {
    const c = cells.t[at]!;
    if (c > seen.peakC[at]!) {
      seen.peakC[at] = c;
      seen.peakHour[at] = hour;
    }
    if (c >= cells.gelC[at]!) seen.gelHours[at] = seen.gelHours[at]! + stepHours;
    if (!Number.isNaN(seen.firmHour[at]!)) continue;
    const isGelled = seen.gelHours[at]! >= GELLED_AFTER_HOURS;
    const { converted, belowC, thenHours } =
      FIRM[firmsHot(cells.batter[at]!) ? 'salted' : isGelled ? 'gelled' : 'ungelled'];
    if (cells.converted[at]! >= converted && c <= belowC) seen.firmHour[at] = hour + thenHours;
  }
}

/** What became of every cell. */
export function gelOf({ gelC }: Cells, { peakC, gelHours }: Watch): GelState[] {
  return Array.from(peakC, (peak, at) => {
    if (gelHours[at]! >= GELLED_AFTER_HOURS) return 'gelled';
    return peak >= gelC[at]! - PART_WITHIN_K ? 'part' : 'never';
  });
}

/** The hour from which a cell is firm; null where it is not within the run. */
const hourOf = (hour: number | undefined) => (hour === undefined || Number.isNaN(hour) ? null : hour);

/** When each part of the batter is firm: at its edge, in its middle, all of it. */
export function firmOf(
  batters: readonly HeatBatter[],
  { batter: of }: Cells,
  { firmHour }: Watch,
  { across, up }: Grid,
): Run['firm'] {
  return batters.map((batter) => {
    const rows = Array.from({ length: up }, (_, row) => row).filter((row) => of[row * across] === batter);
    const first = (rows[Math.floor(rows.length / 2)] ?? NaN) * across;
    const hours = Array.from(firmHour).filter((_, at) => of[at] === batter);
    return {
      portion: batter.portion,
      edgeHour: hourOf(firmHour[first + across - 1]),
      middleHour: hourOf(firmHour[first]),
      allHour: hours.length > 0 ? hourOf(Math.max(...hours)) : null,
    };
  });
}
