/** The hours after the pour: what the heat model is told and what it answers. SI inside: metres, seconds, joules, watts. */

/** One part of the batter, as heat sees it; grams. */
export interface HeatBatter {
  /** Null for the whole. */
  portion: string | null;
  /** Share of the block it fills, 0 to 1. */
  share: number;
  massG: number;
  fatsG: number;
  waterG: number;
  /** Pure alkali that is taken up. */
  alkaliG: number;
  /** Made of it and of the fats when all is taken up. */
  soapG: number;
  glycerinG: number;
  reactionWaterG: number;
  freeFatG: number;
  saltG: number;
  sugarsG: number;
  milkG: number;
  /** Of the fats, 0 to 1. */
  lauricShare: number;
  /** Clay, honey, wax or a scent that speeds the batter. */
  isLively: boolean;
  volumeMl: number;
}

export const MOULD_WALLS = ['wood', 'silicone', 'plastic', 'cardboard'] as const;
export type MouldWall = (typeof MOULD_WALLS)[number];

export const MOULD_FORMS = ['block', 'column'] as const;

/** The inside of a mould. A column stands; its width is its diameter. */
export interface MouldShape {
  form: (typeof MOULD_FORMS)[number];
  wall: MouldWall;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
}

/** Where and how it rests. */
export interface Surroundings {
  way: 'warm' | 'leave' | 'chill';
  roomC: number;
  /** A warming mat below, °C. */
  matC?: number | null;
}

/** What is not known of a pour; factors of the usual figures. */
export interface Unknowns {
  rate: number;
  wall: number;
  heat: number;
  conductivity: number;
  gelK: number;
}

export interface Pour {
  /** From bottom to top. */
  batters: readonly HeatBatter[];
  shape: MouldShape;
  around: Surroundings;
  startC: number;
}

/** How fine the block is reckoned. */
export interface Fineness {
  across: number;
  up: number;
  /** From the middle to an end; a column has no ends. */
  along: number;
  /** Longest step, seconds, and how far the reaction may go in one. */
  stepS: number;
  stepConverted: number;
}

export type GelState = 'gelled' | 'part' | 'never';

/** Moments of a run; temperatures in °C, hours since the pour. */
export interface Course {
  hours: number[];
  middleC: number[];
  edgeC: number[];
  topC: number[];
  /** Share of the alkali taken up. */
  middleConverted: number[];
  edgeConverted: number[];
}

export interface Cut {
  across: number;
  up: number;
  /** Temperatures of the middle plane, row by row from the bottom, from the middle out, one array a moment of the course. */
  framesC: Float32Array[];
}

export interface Run {
  course: Course;
  cut: Cut | null;
  /** By cell, plane by plane from the middle to an end, in each row by row from the bottom, from the middle out. */
  peakC: Float64Array;
  gel: GelState[];
  gelC: Float64Array;
  /** Shares of the block's volume. */
  gelledShare: number;
  partShare: number;
  peakMiddleC: number;
  peakMiddleHour: number;
  peakTopC: number;
  /** By part: when its edge, its middle and all of it is firm enough to be cut; null where not within the hours. */
  firm: {
    portion: string | null;
    edgeHour: number | null;
    middleHour: number | null;
    allHour: number | null;
  }[];
  /** Joules since the pour: made, given off, and stored; made = given off + stored. */
  energy: { madeJ: number; lostJ: number; storedJ: number };
  /** The highest that a cell without any loss would reach, °C. */
  noLossC: number;
}
