/** The product's own words for what the core answers. */
import { massAt, massSaid, stockSaid } from '../core/quantities/say';
import type { Verdict } from '../core/formula/answer';
import type { Force, Kind, LimitBasis, Market, Measure, Stage, UsedOn } from '../core/formula/types';
import { clockHere, dayHere, habits } from './habits';

export const VERDICT_WORDS: Record<Verdict, string> = {
  over: 'Over',
  unproven: 'Unproven',
  atRisk: 'At risk',
  tight: 'Tight',
  clear: 'Clear',
};

/** What craft advice says of a load: other words than the law's, since it binds nobody. */
export const ADVICE_WORDS: Record<Verdict, string> = {
  over: 'More than makers use',
  unproven: 'Unproven',
  atRisk: 'Perhaps more than makers use',
  tight: 'Near what makers use at most',
  clear: 'As makers use it',
};

export const VERDICT_MEANINGS: Record<Verdict, string> = {
  over: 'A load is past its limit.',
  unproven: 'There is no certificate on file to hold a scent against.',
  atRisk: 'Within the limit as stated; past it at the high end of the doubt.',
  tight: 'Within the limit, but inside the margin you keep free.',
  clear: 'Within every limit on file, with the margin to spare.',
};

/** What a tight verdict means where only the craft's advice speaks. */
export const COLOUR_MEANING = 'Within every limit that binds; a colour in it is not on the list of a market.';
export const CRAFT_MEANING = 'Within every limit that binds; at or past what the craft advises.';

export const BASIS_WORDS: Record<LimitBasis, string> = {
  cured: 'of the cured bar',
  pour: 'of the pour',
  fats: 'of the fats',
};

export const FORCE_WORDS: Record<Force, string> = {
  law: 'Law',
  standard: 'Industry standard',
  certificate: 'Certificate',
  craft: 'Craft advice',
};

export const STAGE_WORDS: Record<Stage, string> = {
  fats: 'Fats',
  liquid: 'Liquid',
  heldBack: 'Liquid held back',
  lye: 'Into the lye',
  intoFats: 'Into the fats',
  trace: 'At trace',
  afterCook: 'After the cook',
  top: 'On top',
};

export const MARKET_WORDS: Record<Market, string> = {
  EU: 'European Union',
  UK: 'Great Britain',
  US: 'United States',
  CA: 'Canada',
  AU: 'Australia',
};

/** What all materials of a kind together are called. */
export const KIND_WORDS: Record<Kind, string> = {
  fat: 'Fats together',
  wax: 'Waxes together',
  alkali: 'Alkali',
  liquid: 'Liquids together',
  milk: 'Milks together',
  fragrance: 'Fragrances together',
  essentialOil: 'Essential oils together',
  isolate: 'Isolates together',
  clay: 'Clays together',
  salt: 'Salts together',
  sugar: 'Sugars together',
  botanical: 'Botanicals together',
  colourant: 'Colours together',
  exfoliant: 'Scrubs together',
  fibre: 'Fibres together',
  acid: 'Acids together',
  lactate: 'Lactates together',
  other: 'Other',
};

export const MEASURE_WORDS: Record<Measure, string> = {
  scale: 'on the scale',
  spoon: 'level spoon',
  heaped: 'heaped spoon',
  eye: 'by eye',
};

/** A blank that no line is broken at: a figure never parts from its unit. */
const TIED = '\u00a0';

/** A mass for reading, in what this house weighs in. */
export const grams = (massG: number): string => massSaid(massG, habits().weights);

/** A mass as a scale of such a step shows it, in what this house weighs in. */
export const gramsAt = (massG: number, stepG: number): string => massAt(massG, stepG, habits().weights);

/** A stock for reading: kilograms or pounds from one up. */
export const stock = (massG: number): string => stockSaid(massG, habits().weights);

/** So many of something, in words: "1 batch", "3 batches". */
export const many = (count: number, what: string, several = `${what}s`): string =>
  `${count} ${count === 1 ? what : several}`;

/** A volume for reading: litres from one up. */
export function litres(volumeMl: number): string {
  return volumeMl >= 1000 ? `${(volumeMl / 1000).toFixed(2)}\u00a0L` : `${volumeMl.toFixed(0)}\u00a0mL`;
}

/** A percent for reading: enough decimals for small figures to say something. */
export function percent(value: number): string {
  const size = Math.abs(value);
  const decimals = size >= 10 ? 1 : size >= 0.1 || size === 0 ? 2 : size >= 0.001 ? 4 : 6;
  return `${Number(value.toFixed(decimals))}${TIED}%`;
}

/** How far something is off, percent, with its sign; nothing is off by less than shows. */
export function signedPercent(value: number): string {
  const shown = value.toFixed(1);
  const plain = Number(shown) === 0 ? '0.0' : shown;
  return `${Number(shown) > 0 ? '+' : ''}${plain}${TIED}%`;
}

export const JUDGEMENT_WORDS = {
  heat: 'Heat',
  speed: 'Speed of the batter',
  lather: 'Lather',
  drying: 'Drying',
  browning: 'Browning',
  staining: 'Staining',
  scratch: 'Scratch',
  weeping: 'Weeping and crumbling',
  keeping: 'Keeping',
  face: 'On the face',
  cutting: 'Cutting',
  fading: 'Fading',
} as const;

export const GRADE_WORDS = { calm: 'nothing to mind', some: 'mind it', marked: 'expect it' } as const;

export const LEANS_WORDS = {
  figures: 'from the loads and what the materials hold',
  usual: 'from how such bars usually turn out',
} as const;

export const USED_ON_WORDS: Record<UsedOn, string> = { body: 'body', face: 'face', hands: 'hands' };

/** What a single material of a kind is called. */
export const ONE_OF_KIND_WORDS: Record<Kind, string> = {
  fat: 'Fat',
  wax: 'Wax',
  alkali: 'Alkali',
  liquid: 'Liquid',
  milk: 'Milk',
  fragrance: 'Fragrance oil',
  essentialOil: 'Essential oil',
  isolate: 'Isolate',
  clay: 'Clay',
  salt: 'Salt',
  sugar: 'Sugar',
  botanical: 'Botanical',
  colourant: 'Colour',
  exfoliant: 'Scrub',
  fibre: 'Fibre',
  acid: 'Acid',
  lactate: 'Lactate',
  other: 'Other',
};

/** Money in the maker's currency. */
export function money(value: number, currency: string): string {
  return new Intl.NumberFormat('en-GB', { style: 'currency', currency }).format(value);
}

/** Months as days are written with them. */
export const MONTH_WORDS = [
  'Jan',
  'Feb',
  'Mar',
  'Apr',
  'May',
  'Jun',
  'Jul',
  'Aug',
  'Sep',
  'Oct',
  'Nov',
  'Dec',
];

/** A day in words, as it stands on a page. */
export function dayInWords(day: string): string {
  const [year, month, date] = day.split('-').map(Number) as [number, number, number];
  return `${date} ${MONTH_WORDS[month - 1]} ${year}`;
}

/** A month as a label says it: "10/2028". */
export const monthInFigures = (month: string): string => month.split('-').reverse().join('/');

/** The house's day of a moment, in words. */
export const dayAt = (at: string): string => dayInWords(dayHere(at));

/** A moment as its day and clock in the house's zone. */
export const momentInWords = (at: string): string => `${dayAt(at)}, ${clockHere(at)}`;

/** How far a figure can be leant on. */
export const STANDING_WORDS = {
  published: 'as published',
  typical: 'typical, to be confirmed',
  craft: 'as makers advise',
} as const;

/** What a concern about a scent means for the person who uses the bar. */
export const CONCERN_WORDS = {
  sun: 'Sensitises skin to the sun; the limits in use are for products left on, a rinsed-off bar is outside them, still take care',
  cooling: 'Cools: keep from eyes and delicate skin',
  pregnancy: 'Caution in pregnancy: ask a doctor or midwife',
  children: 'Caution for small children',
  oxidises: 'Takes up oxygen once opened: keep cool, dark, full and closed',
} as const;

export const CLAIM_CLASS_WORDS = {
  plain: 'plain',
  cosmetic: 'a cosmetic claim',
  medicine: 'a medicine claim',
  absolute: 'a promise without bounds',
  composition: 'about what is in it',
} as const;

export const FACT_STANDING_WORDS = {
  holds: 'holds by the formula',
  contradicted: 'contradicted by the formula',
  open: 'cannot be told from the formula',
} as const;

export const FACT_WORDS = {
  vegan: 'Vegan',
  palmFree: 'Palm free',
  unscented: 'Unscented',
  natural: 'Natural',
  organic: 'Organic',
  milkFree: 'Milk free',
  nutFree: 'Nut free',
  glutenFree: 'Gluten free',
  crueltyFree: 'Cruelty free',
  handmade: 'Handmade',
} as const;

export const SHAPE_WORDS = {
  band: 'Band around the bar',
  sticker: 'Sticker',
  round: 'Round sticker',
  box: 'Box',
  tag: 'Hang tag',
  leaflet: 'Leaflet, folded',
  notice: 'Notice for the shelf',
} as const;
