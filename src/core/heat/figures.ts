/**
 * Figures of the heat model with their spread. All are craft or handbook values of ordinary batters, none is of one
 * maker's: the unknowns are drawn around them, and narrowed by the maker's own thermometer.
 */

/** Heat of saponification, kJ for each kg of ordinary fats (craft: 190 to 210). */
const HEAT_KJ_PER_KG_FATS = 200;
/** Grams of sodium hydroxide that one gram of ordinary fats takes up. */
const ORDINARY_NAOH_PER_GRAM = 0.136;
/** Heat of saponification, joules for each gram of sodium hydroxide taken up. */
export const HEAT_J_PER_G_ALKALI = HEAT_KJ_PER_KG_FATS / ORDINARY_NAOH_PER_GRAM;
/** Heat of sugars breaking down in lye, joules for each gram of sugar (craft: honey at 3 % warms by several degrees). */
export const HEAT_J_PER_G_SUGAR = 900;

/** Specific heats, J/(g K); of soap and glycerin between 20 and 90 °C. */
export const SPECIFIC_HEAT = {
  fat: 2.0,
  water: 4.18,
  alkali: 1.6,
  soap: 2.2,
  glycerin: 2.5,
  salt: 0.86,
  sugar: 1.25,
  other: 1.2,
} as const;
/** Temperature at which the heat of reaction is stated, °C. */
export const REFERENCE_C = 40;

/** Conductivities that mix by mass, W/(m K). */
export const CONDUCTIVITY = { water: 0.6, salt: 1.5, rest: 0.2 } as const;

/** Rate of saponification at 40 °C of an ordinary batter at 30 % lye, per hour (craft: a block gels within hours). */
export const RATE_PER_HOUR = 1.75;
/** Activation energy over the gas constant, K (about 50 kJ/mol). */
export const ACTIVATION_K = 6000;
/** Rate by itself, before there is soap to carry it on, as a share of the rate with it. */
export const START_SHARE = 0.03;
/** Share of the alkali already taken up at the pour, at light trace; thicker trace is further on. */
export const CONVERTED_AT_TRACE = 0.05;
/** What lauric fats, a lively scent and stronger lye do to the rate: factors, and the power of lye over 30 %. */
export const LAURIC_FACTOR = 1.7;
export const LIVELY_FACTOR = 1.5;
export const USUAL_LYE_PCT = 30;
export const LYE_POWER = 0.7;
/** Sugars break down at this rate at 60 °C, per hour, with this activation over the gas constant. */
export const SUGAR_RATE_PER_HOUR = 1.2;
export const SUGAR_REFERENCE_C = 60;
export const SUGAR_ACTIVATION_K = 9000;

/** Gel: about 80 °C at 38 % lye and 65 °C at 27 % (craft), straight between and beyond. */
export const GEL = { c: 80, atPct: 38, kPerPct: 15 / 11, least: 50, most: 100 } as const;
/** A cell counts as gelled when it was above for so long, hours; as part when it came so near, K. */
export const GELLED_AFTER_HOURS = 0.15;
export const PART_WITHIN_K = 3;

/** Middle above which sugars crack or push up a block, °C (craft: 85 to 90), and milks go brown. */
export const CRACK_C = 87;
export const CRACK_SUGARS_PCT = 1;
export const SCORCH_C = 75;
/** A top that never gets warmer than this and is open and wet grows ash, °C, percent of the fats. */
export const ASH_BELOW_C = 45;
export const ASH_WATER_PCT = 28;

/**
 * Firm enough to be cut (craft): so much of the alkali taken up and cooled to this, then so many hours more. Soap that
 * gelled firms while still warm; salted and nearly pure lauric batters firm hot and at once.
 */
export const FIRM = {
  gelled: { converted: 0.9, belowC: 55, thenHours: 6 },
  ungelled: { converted: 0.9, belowC: 34, thenHours: 14 },
  salted: { converted: 0.7, belowC: 75, thenHours: 0.5 },
} as const;
/** Salt above this share of the fats, or lauric fats above this, make a batter that firms hot. */
export const SALTED_SHARE = 0.15;
export const PURE_LAURIC_SHARE = 0.85;

/** Spread of what is not known: logarithms (standard deviations) of factors, kelvins for gel. */
export const SPREAD = {
  rate: 0.3,
  wall: 0.25,
  heat: 0.03,
  conductivity: 0.12,
  gelK: 2.5,
} as const;
/** How far the model may be off a thermometer in the right place, K. */
export const MODEL_K = 1;
export const ABSOLUTE_ZERO_C = -273.15;
