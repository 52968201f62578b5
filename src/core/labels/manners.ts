/** What a market asks of a label, in one place: another market has to answer all of it before anything compiles. */
import type { LabelLanguage } from './languages';
import type { Market } from '../formula/types';

export interface LabelManners {
  /** Languages asked for on what the bar is and on cautions. */
  languages: readonly LabelLanguage[];
  /** The country of sale says the languages instead, where the maker has named some. */
  isByCountry: boolean;
  /** The list is headed by one word, whatever the language. */
  isListHeadFixed: boolean;
  /** A batch code, and the month it keeps to or the time after opening. */
  asksForBatch: boolean;
  asksForDurability: boolean;
  /** What the height of the net content's digits hangs on. */
  digitsBy: 'mass' | 'area' | 'side';
  /** Nothing but a box is printed before the face of the package was measured. */
  asksForFace: boolean;
  /** Ounces stand before the grams, at the foot of the whole panel. */
  hasOunces: boolean;
  /** Soap that is sold only as soap stands outside the cosmetic rules. */
  keepsSoapApart: boolean;
}

const EUROPEAN: LabelManners = {
  languages: ['en'],
  isByCountry: false,
  isListHeadFixed: false,
  asksForBatch: true,
  asksForDurability: true,
  digitsBy: 'mass',
  asksForFace: false,
  hasOunces: false,
  keepsSoapApart: false,
};

const OVERSEAS: LabelManners = { ...EUROPEAN, asksForBatch: false, asksForDurability: false };

/** By market (rules by market). */
export const LABEL_MANNERS: Record<Market, LabelManners> = {
  EU: { ...EUROPEAN, isByCountry: true, isListHeadFixed: true },
  UK: EUROPEAN,
  US: { ...OVERSEAS, digitsBy: 'area', asksForFace: true, hasOunces: true, keepsSoapApart: true },
  CA: { ...OVERSEAS, languages: ['en', 'fr'], digitsBy: 'area', asksForFace: true },
  AU: { ...OVERSEAS, digitsBy: 'side' },
};
