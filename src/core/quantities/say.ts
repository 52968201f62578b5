/** Saying a mass in the unit of the house: grams, or ounces and pounds with the grams beside them. */
import { decimalsOf } from '../weighing/display';
import { GRAMS_PER_KILO, GRAMS_PER_OUNCE, GRAMS_PER_POUND } from './units';

/** What a house weighs in. */
export type Weights = 'g' | 'oz';

/** A blank that no line is broken at: a figure never parts from its unit. */
const TIED = '\u00a0';

/** Below so many of a unit, two decimals say something. */
const FEW = 10;

const figure = (value: number) => value.toFixed(Math.abs(value) < FEW ? 2 : 1);

/** Decimals of ounces in which a step of so many ounces shows, 0 to 3. */
const ounceDecimals = (step: number) => Math.min(3, Math.max(0, Math.ceil(-Math.log10(step) - 1e-9)));

/**
 * A mass of grams for reading, two decimals for small ones and one for others.
 *
 * @example massSaid(680.4, 'g') // '680.4\u00a0g'
 * @example massSaid(680.4, 'oz') // '24.0\u00a0oz (680.4\u00a0g)'
 */
export function massSaid(massG: number, weights: Weights): string {
  const inGrams = `${figure(massG)}${TIED}g`;
  return weights === 'g' ? inGrams : `${figure(massG / GRAMS_PER_OUNCE)}${TIED}oz (${inGrams})`;
}

/**
 * A stock of grams for reading: kilograms or pounds from one up.
 *
 * @example stockSaid(2500, 'g') // '2.5\u00a0kg'
 * @example stockSaid(2500, 'oz') // '5.51\u00a0lb (2.5\u00a0kg)'
 */
export function stockSaid(massG: number, weights: Weights): string {
  const isKilos = massG >= GRAMS_PER_KILO;
  const metric = isKilos
    ? `${Number((massG / GRAMS_PER_KILO).toFixed(2))}${TIED}kg`
    : `${Number(massG.toFixed(0))}${TIED}g`;
  if (weights === 'g') return metric;
  const isPounds = massG >= GRAMS_PER_POUND;
  const value = massG / (isPounds ? GRAMS_PER_POUND : GRAMS_PER_OUNCE);
  return `${Number(value.toFixed(2))}${TIED}${isPounds ? 'lb' : 'oz'} (${metric})`;
}

/**
 * A mass as a display shows it: the figure alone, in the unit of the house, with as many decimals as a step of the scale
 * (grams) can tell.
 *
 * @example massFigure(34.25, 0.1, 'g') // '34.3'
 * @example massFigure(34.25, 0.1, 'oz') // '1.208'
 */
export function massFigure(massG: number, stepG: number, weights: Weights): string {
  const perUnit = weights === 'g' ? 1 : GRAMS_PER_OUNCE;
  const digits = weights === 'g' ? decimalsOf(stepG) : ounceDecimals(stepG / perUnit);
  // Never "-0.0".
  return (Number((massG / perUnit).toFixed(digits)) || 0).toFixed(digits);
}

/**
 * The same with its unit; in ounces the grams stand beside it.
 *
 * @example massAt(34.25, 0.1, 'oz') // '1.208\u00a0oz (34.3\u00a0g)'
 */
export function massAt(massG: number, stepG: number, weights: Weights): string {
  const inGrams = `${massFigure(massG, stepG, 'g')}${TIED}g`;
  return weights === 'g' ? inGrams : `${massFigure(massG, stepG, 'oz')}${TIED}oz (${inGrams})`;
}

/** Grams said in a text; not those beside ounces already, and none "a gram" of something. */
const GRAMS_SAID = /(?<![(\d.,])(\d+(?:,\d{3})*(?:\.\d+)?)[ \u00a0]g(?![\w/]| of NaOH| a gram| in \d)/g;

/**
 * A sentence of the core, which says masses in grams, as the house reads it: in ounces with the grams beside.
 *
 * @example toldIn('Add 28.35 g of water.', 'oz') // 'Add 1.00\u00a0oz (28.35\u00a0g) of water.'
 */
export function toldIn(text: string, weights: Weights): string {
  if (weights === 'g') return text;
  return text.replace(GRAMS_SAID, (_, said: string) => {
    const ounces = Number(said.replaceAll(',', '')) / GRAMS_PER_OUNCE;
    return `${figure(ounces)}${TIED}oz (${said}${TIED}g)`;
  });
}
