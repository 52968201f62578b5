/** A block cut into cells: what each holds of warmth and of what still reacts. */
import { capacities, conductivity, gelPointC, rateFactor, reactionJ, sugarJ } from './batter';
import { CONVERTED_AT_TRACE, RATE_PER_HOUR } from './figures';
import type { Grid } from './grid';
import type { HeatBatter, Pour, Unknowns } from './types';

const SECONDS_PER_HOUR = 3600;

/** A block's cells, by their place in its grid: what they hold and how far they are. */
export interface Cells {
  batter: HeatBatter[];
  t: Float64Array;
  converted: Float64Array;
  sugared: Float64Array;
  /** J/K before and after the reaction; J of all alkali and of all sugars. */
  before: Float64Array;
  after: Float64Array;
  alkaliJ: Float64Array;
  sugarJ: Float64Array;
  rate: Float64Array;
  k: Float64Array;
  gelC: Float64Array;
}

/** Which part of the batter a height of the block belongs to. */
function partAt(batters: readonly HeatBatter[], height: number): HeatBatter {
  let up = 0;
  for (const batter of batters) {
    up += batter.share;
    if (height < up) return batter;
  }
  return batters.at(-1)!;
}

/** The cells of a pour as it is filled in. */
export function cellsOf({ batters, startC }: Pour, grid: Grid, unknowns: Unknowns): Cells {
  const { across, up, volume } = grid;
  const batter = Array.from(volume, (_, at) => partAt(batters, ((Math.floor(at / across) % up) + 0.5) / up));
  const byVolume = (of: (one: HeatBatter) => number) =>
    volume.map((m3, at) => (of(batter[at]!) / Math.max(1e-9, batter[at]!.volumeMl)) * m3 * 1e6);
  const each = (of: (one: HeatBatter) => number) => volume.map((_, at) => of(batter[at]!));
  return {
    batter,
    t: volume.map(() => startC),
    converted: volume.map(() => CONVERTED_AT_TRACE),
    sugared: volume.map(() => 0),
    before: byVolume((one) => capacities(one).before),
    after: byVolume((one) => capacities(one).after),
    alkaliJ: byVolume((one) => reactionJ(one) * unknowns.heat),
    sugarJ: byVolume((one) => sugarJ(one) * unknowns.heat),
    rate: each((one) => (rateFactor(one) * unknowns.rate * RATE_PER_HOUR) / SECONDS_PER_HOUR),
    k: each((one) => conductivity(one) * unknowns.conductivity),
    gelC: each((one) => gelPointC(one) + unknowns.gelK),
  };
}

/** Heat capacity of a cell as it stands, J/K. */
export const capacityAt = ({ before, after, converted }: Cells, at: number) =>
  before[at]! + (after[at]! - before[at]!) * converted[at]!;
