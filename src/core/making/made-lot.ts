/** Lots that are made of lots: a lye stock, a bucket of fats, a blend in a bottle. Pure; masses in grams. */
import type { RequestError } from '../formula/types';
import { plainNumber } from '../quantities/amount';
import { ALKALI_MATERIAL } from './cost';

const PER_HUNDRED = 1 / 100;

/** What went into a lot that was made. */
export interface Taken {
  material: string;
  massG: number;
}

/** How far a share may be off what the mix says, relative: as on the run sheet; of a trace, half a tenth of the whole. */
const OFF_RELATIVE = 0.02;
const OFF_OF_WHOLE = 0.0005;

const fault = (path: string, code: string, message: string): RequestError => ({ path, code, message });
const sum = (taken: readonly Taken[]) => taken.reduce((total, { massG }) => total + massG, 0);

/**
 * What is wrong with what was weighed into a mix: a part that it does not have, one that is missing, or a share that is not
 * the mix's. Empty where the lot is what the mix says.
 *
 * @example
 * mixFaults([{ material: 'olive-oil', parts: 3 }, { material: 'coconut-oil', parts: 1 }], taken, (id) => names[id])
 */
export function mixFaults(
  mix: readonly { material: string; parts: number }[],
  taken: readonly Taken[],
  nameOf: (material: string) => string,
): RequestError[] {
  const total = sum(taken);
  const ofMix = mix.reduce((all, { parts }) => all + parts, 0);
  const stranger = taken.findIndex(({ material }) => !mix.some((part) => part.material === material));
  if (stranger >= 0)
    return [
      fault(
        `of.${stranger}`,
        'not-of-the-mix',
        `${nameOf(taken[stranger]!.material)} is no part of this mix.`,
      ),
    ];
  return mix.flatMap(({ material, parts }) => {
    const wanted = parts / ofMix;
    const share = sum(taken.filter((one) => one.material === material)) / total;
    if (Math.abs(share - wanted) <= Math.max(OFF_RELATIVE * wanted, OFF_OF_WHOLE)) return [];
    const words = (value: number) => `${plainNumber(100 * value, 1)} %`;
    return [
      fault(
        'of',
        'share-off',
        `Of ${nameOf(material)} the mix holds ${words(wanted)}, and ${words(share)} was weighed. Weigh the others up to it, or change the mix.`,
      ),
    ];
  });
}

/** Weaker than this it is no stock, and stronger it falls out of solution in a cool room; percent of hydroxide. */
const STRENGTH_PCT = [10, 52] as const;

/**
 * The strength of a lye stock, percent of hydroxide, or what is wrong with it.
 *
 * @example
 * lyeStrength([{ material: 'sodium-hydroxide', massG: 500 }, { material: 'water', massG: 500 }]) // 50
 */
export function lyeStrength(taken: readonly Taken[]): number | RequestError {
  const alkaliG = sum(taken.filter(({ material }) => material === ALKALI_MATERIAL));
  const pct = alkaliG / PER_HUNDRED / sum(taken);
  if (!(alkaliG > 0)) return fault('of', 'no-alkali', 'A lye stock holds sodium hydroxide. Weigh it in.');
  if (pct < STRENGTH_PCT[0] || pct > STRENGTH_PCT[1])
    return fault(
      'of',
      'strength',
      `It would be ${plainNumber(pct, 1)} % strong. A stock lies between ${STRENGTH_PCT[0]} and ${STRENGTH_PCT[1]} %: stronger, it falls out when it cools.`,
    );
  return pct;
}
