/** Masses as they are typed in this house: a bare number is of its unit, any other unit may stand beside it. */
import { readGrams, stepOfGrams } from '../core/quantities/amount';
import { toldIn } from '../core/quantities/say';
import { habits } from './habits';

/** What a bare number in a mass field is, for its label: "g" or "oz". */
export const massUnit = (): string => habits().weights;

/** Grams of what was typed; NaN for what is no mass. */
export const typedGrams = (text: string): number => readGrams(text, habits().weights);

/** The same, with null where nothing is written at all. */
export const typedGramsOrNull = (text: string): number | null =>
  text.trim() === '' ? null : typedGrams(text);

/** The smallest step that what was typed can tell, grams. */
export const typedStepG = (text: string): number => stepOfGrams(text, habits().weights);

/** Grams for a mass field to begin with, to the last digit: with their unit where a bare number would be ounces. */
export const toType = (massG: number): string => (habits().weights === 'g' ? String(massG) : `${massG} g`);

/** A sentence of the core or the server with its masses in the unit of the house. */
export const inHouse = (text: string): string => toldIn(text, habits().weights);
