/**
 * A batch told to whoever buys it: what stands on its label, how long it cured, its lightest bar, in the label's words.
 * Only what the maker chose is in it. Pure.
 */
import { daysBetween } from '../quantities/day';
import type { ElementId, LabelContent } from './content';
import type { LabelLanguage } from './languages';

export const CARD_PARTS = [
  'description',
  'ingredients',
  'use',
  'cautions',
  'net',
  'lightest',
  'made',
  'cured',
  'durability',
  'batch',
  'responsible',
  'price',
] as const;
export type CardPart = (typeof CARD_PARTS)[number];

/** What a page shows before the maker chooses. */
export const USUAL_PARTS: readonly CardPart[] = [
  'description',
  'ingredients',
  'use',
  'cautions',
  'net',
  'cured',
  'durability',
  'batch',
  'responsible',
];

/** What the maker chose for the pages of a bar's batches. */
export interface CardChoice {
  shown: CardPart[];
}

type Told = 'made' | 'cured' | 'lightest' | 'price';

/** Words that no label has, in some of its languages; the others take the English ones. */
const WORDS: Partial<Record<LabelLanguage, Record<Told, string>>> & { en: Record<Told, string> } = {
  en: { made: 'Made on', cured: 'Cured for {n} days', lightest: 'Lightest bar', price: 'Price' },
  fr: { made: 'Fabriqué le', cured: 'Cure de {n} jours', lightest: 'Pain le plus léger', price: 'Prix' },
  de: { made: 'Hergestellt am', cured: '{n} Tage gereift', lightest: 'Leichtestes Stück', price: 'Preis' },
  es: {
    made: 'Hecho el',
    cured: 'Curado durante {n} días',
    lightest: 'Pastilla más ligera',
    price: 'Precio',
  },
  it: {
    made: 'Fatto il',
    cured: 'Stagionato per {n} giorni',
    lightest: 'Pezzo più leggero',
    price: 'Prezzo',
  },
  nl: { made: 'Gemaakt op', cured: '{n} dagen gerijpt', lightest: 'Lichtste stuk', price: 'Prijs' },
};

export interface CardInput {
  content: LabelContent;
  language: LabelLanguage;
  description: string;
  /** The day it was poured, and that of its release; null before it is released. */
  madeOn: string;
  releasedOn: string | null;
  /** Grams of the lightest settled bar; null where none was weighed. */
  lightestG: number | null;
  /** Of one bar; null where none is said. */
  price: number | null;
  /** Three letters. */
  currency: string;
  choice: CardChoice;
}

export interface CardRow {
  part: CardPart;
  text: string;
}

export interface Card {
  language: LabelLanguage;
  name: string;
  identity: string;
  rows: CardRow[];
}

/** Days from pour to release; null before that. */
export const daysCured = ({ madeOn, releasedOn }: Pick<CardInput, 'madeOn' | 'releasedOn'>): number | null =>
  releasedOn === null ? null : daysBetween(madeOn, releasedOn);

/** A price as the language writes it. */
export const priceSaid = (price: number, currency: string, language: LabelLanguage): string =>
  new Intl.NumberFormat(language, { style: 'currency', currency }).format(price);

function textOf(input: CardInput, part: CardPart): string {
  const { content, language, description, madeOn, lightestG, price, currency } = input;
  const words = WORDS[language] ?? WORDS.en;
  const day = (one: string) =>
    new Intl.DateTimeFormat(language, { dateStyle: 'long', timeZone: 'UTC' }).format(new Date(one));
  const element = (id: ElementId) =>
    content.info
      .filter((one) => one.id === id)
      .map(({ text }) => text)
      .join(' ');
  const cured = daysCured(input);
  switch (part) {
    case 'description':
      return description.trim();
    case 'net':
      return content.front.net;
    case 'made':
      return `${words.made} ${day(madeOn)}`;
    case 'cured':
      return cured === null ? '' : words.cured.replace('{n}', String(cured));
    case 'lightest':
      return lightestG === null ? '' : `${words.lightest}: ${Math.floor(lightestG)} g`;
    case 'price':
      return price === null ? '' : priceSaid(price, currency, language);
    default:
      return element(part);
  }
}

/**
 * The card of a batch: the parts that were chosen and have something to say, in their order.
 *
 * @example
 * cardOf(input).rows; // [{ part: 'ingredients', text: 'Ingredients: Sodium Olivate, …' }]
 */
export function cardOf(input: CardInput): Card {
  const { front } = input.content;
  const rows = CARD_PARTS.filter((part) => input.choice.shown.includes(part)).map((part) => ({
    part,
    text: textOf(input, part),
  }));
  return {
    language: input.language,
    name: front.name,
    identity: front.identity,
    rows: rows.filter(({ text }) => text !== ''),
  };
}

/**
 * The file of a batch's page.
 *
 * @example cardName('NM 26/09') // 'nm-26-09.html'
 */
export const cardName = (batchCode: string): string =>
  `${batchCode
    .trim()
    .toLowerCase()
    .replace(/[^\w.-]+/g, '-')}.html`;

/** The address of a batch's page below the one that the maker gave, as a code on the label leads to it. */
export const cardAddress = (base: string, batchCode: string): string =>
  `${base.replace(/\/+$/, '')}/${cardName(batchCode)}`;
