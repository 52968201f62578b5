/** Ordinary pours for the heat model: a formula in percents, usual moulds and ways of resting. */
import { heatBatters } from '../../src/core/heat/batter';
import type { HeatBatter, MouldShape, Pour, Surroundings } from '../../src/core/heat/types';
import type { Formula, Line } from '../../src/core/formula/types';
import { LIBRARY } from '../../src/library';

const ORDINARY = { olive: 40, coconut: 25, palm: 30, castor: 5 };
export const LAURIC = { coconut: 80, olive: 15, castor: 5 };

export interface Asked {
  waterPct?: number;
  fats?: Record<string, number>;
  fatsG?: number;
  more?: readonly (readonly [material: string, pctFats: number])[];
  superfatPct?: number;
}

export function formulaOf(asked: Asked): Formula {
  const { waterPct = 33, fats = ORDINARY, fatsG = 800, more = [], superfatPct = 5 } = asked;
  const line = (
    material: string,
    stage: Line['stage'],
    value: number,
    unit: Line['amount']['unit'],
  ): Line => ({
    id: material,
    material,
    stage,
    amount: { value, unit },
  });
  return {
    fatsMassG: fatsG,
    alkali: { superfatPct, purityPct: 100 },
    liquid: { basis: 'ofFats', value: waterPct },
    lines: [
      ...Object.entries(fats).map(([id, pct]) => line(id, 'fats', pct, '%fats')),
      line('water', 'liquid', 100, '%liquid'),
      ...more.map(([id, pct]) => line(id, 'trace', pct, '%fats')),
    ],
  };
}

export const batter = (asked: Asked = {}): HeatBatter[] => heatBatters(formulaOf(asked), LIBRARY)!;

export const WOOD: MouldShape = { form: 'block', wall: 'wood', lengthMm: 200, widthMm: 80, heightMm: 72 };
export const SILICONE: MouldShape = { ...WOOD, wall: 'silicone' };
export const BAR: MouldShape = { form: 'block', wall: 'silicone', lengthMm: 80, widthMm: 55, heightMm: 25 };
export const around = (way: Surroundings['way'], roomC = 20): Surroundings => ({ way, roomC });
export const pour = (
  shape: MouldShape,
  way: Surroundings['way'],
  { startC = 40, roomC = 20, ...asked }: Asked & { startC?: number; roomC?: number } = {},
): Pour => ({ batters: batter(asked), shape, around: around(way, roomC), startC });
