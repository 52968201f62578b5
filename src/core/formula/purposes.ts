/**
 * First bars by their purpose: a formula that fits, with its reasons. Craft as makers share it, advice and no rule; all of
 * it is to be changed. Materials are of the starter library.
 */
import { FORMULA_FORMAT, type Amount, type Formula, type Line, type Stage } from './types';

export const PURPOSES = ['plain', 'gentle', 'salt', 'scrub', 'face', 'kitchen', 'showpiece'] as const;
export type PurposeId = (typeof PURPOSES)[number];

type Load = readonly [material: string, stage: Stage, amount: Amount, portion?: string];

export interface Purpose {
  /** What the bar is called until the maker names it. */
  name: string;
  /** Why it is made up so, a reason a sentence. */
  reasons: readonly string[];
  /** Fats by their percent. */
  fats: Readonly<Record<string, number>>;
  loads: readonly Load[];
  superfatPct: number;
  /** Liquid, percent of the fats. */
  liquidPct: number;
  more?: Partial<Formula>;
}

const ofFats = (value: number): Amount => ({ value, unit: '%fats' });
const water: Load = ['water', 'liquid', { value: 100, unit: '%liquid' }];

export const PURPOSE: Readonly<Record<PurposeId, Purpose>> = {
  plain: {
    name: 'Plain bar',
    reasons: [
      'Olive for a mild bar, coconut for foam and hardness, a little castor to hold the foam.',
      'No scent and no colour: nothing to prove, nothing that speeds the batter.',
    ],
    fats: { olive: 65, coconut: 28, castor: 7 },
    loads: [water],
    superfatPct: 6,
    liquidPct: 33,
  },
  gentle: {
    name: 'Gentle bar',
    reasons: [
      'Much olive and shea, little coconut: it foams less and strips less.',
      'Fine oats soften the water; no scent, which is what skin that reacts is spared first.',
      'It wants a long cure: eight weeks rather than four.',
    ],
    fats: { olive: 62, shea: 18, coconut: 15, castor: 5 },
    loads: [water, ['colloidal-oatmeal', 'trace', ofFats(2)]],
    superfatPct: 8,
    liquidPct: 33,
  },
  salt: {
    name: 'Salt bar',
    reasons: [
      'Coconut is the one fat that foams in salt water, so it is nearly all of it.',
      'So much coconut strips the skin: the superfat is high to make up for it.',
      'Fine salt, as much as half the fats; it sets within hours and is cut or unmoulded then.',
    ],
    fats: { coconut: 85, shea: 10, castor: 5 },
    loads: [water, ['sea-salt-fine', 'trace', ofFats(50)]],
    superfatPct: 17,
    liquidPct: 30,
  },
  scrub: {
    name: 'Scrub bar',
    reasons: [
      'A hard, foaming base, so that what scrubs does not wash out of it.',
      'Poppy seed is round and does not scratch; more than a few percent feels like sand.',
    ],
    fats: { olive: 50, coconut: 30, shea: 13, castor: 7 },
    loads: [water, ['poppy-seed', 'trace', ofFats(2)]],
    superfatPct: 5,
    liquidPct: 31,
  },
  face: {
    name: 'Face bar',
    reasons: [
      'Little coconut and much olive, for skin that is thin; limits are those of a bar for the face.',
      'White clay gives slip and nothing that scratches; no scent near the eyes.',
    ],
    fats: { olive: 60, shea: 15, 'rice-bran': 10, coconut: 10, castor: 5 },
    loads: [water, ['kaolin', 'trace', ofFats(1.5)]],
    superfatPct: 8,
    liquidPct: 33,
    more: { usedOn: 'face' },
  },
  kitchen: {
    name: 'Kitchen hands',
    reasons: [
      'Coffee grounds lift grease and take the smell of onion along; fine pumice does the rest.',
      'More coconut and less superfat: it is to clean, and hands are rinsed at once.',
    ],
    fats: { olive: 48, coconut: 38, shea: 8, castor: 6 },
    loads: [water, ['coffee-grounds', 'trace', ofFats(2.5)], ['pumice-fine', 'trace', ofFats(1)]],
    superfatPct: 4,
    liquidPct: 31,
    more: { usedOn: 'hands' },
  },
  showpiece: {
    name: 'Showpiece',
    reasons: [
      'Two portions, one left pale with white clay and one coloured with red clay, to be swirled.',
      'Slow fats and more water leave time to pour a pattern; nothing in it speeds the batter.',
    ],
    fats: { olive: 55, coconut: 25, 'rice-bran': 15, castor: 5 },
    loads: [water, ['kaolin', 'trace', ofFats(1), 'pale'], ['red-clay', 'trace', ofFats(1), 'coloured']],
    superfatPct: 6,
    liquidPct: 36,
    more: {
      portions: [
        { id: 'pale', share: 0.6 },
        { id: 'coloured', share: 0.4 },
      ],
    },
  },
};

/**
 * The formula of a first bar of a purpose, a kilogram of fats.
 *
 * @example purposeFormula('salt', 'Brine').alkali.superfatPct // 17
 */
export function purposeFormula(id: PurposeId, name: string): Formula {
  const { fats, loads, superfatPct, liquidPct, more } = PURPOSE[id];
  const all: Load[] = [
    ...Object.entries(fats).map(([material, pct]): Load => [material, 'fats', ofFats(pct)]),
    ...loads,
  ];
  return {
    format: FORMULA_FORMAT,
    name,
    process: 'cold',
    fatsMassG: 1000,
    alkali: { superfatPct, purityPct: 99 },
    liquid: { basis: 'ofFats', value: liquidPct },
    cure: { residualWaterPct: 8 },
    marginPct: 10,
    scentNaming: 'parfum',
    bars: 14,
    ...more,
    lines: all.map(([material, stage, amount, portion], at): Line => ({
      ...{ id: `l${at + 1}`, material, stage, amount, measuredBy: 'scale' },
      ...(portion ? { portion } : {}),
    })),
  };
}
