/** What each market wants told of an unwanted effect, by when, and how long records are kept; as read on the day named. */
import type { Market } from '../core/formula/types';
import type { Standing } from '../core/records/cupboard';

/** One duty to tell, of effects that are grave. */
export interface Telling {
  market: Market;
  /** Null where no term in days is set. */
  within: { days: number; counted: 'days' | 'workingDays' } | null;
  /** Whom, what, and where it only holds for some bars. */
  words: string;
  source: string;
  standing: Standing;
  asOf: string;
}

const AS_OF = '2026-12-01';

export const TELLINGS: readonly Telling[] = [
  {
    market: 'EU',
    within: { days: 20, counted: 'days' },
    words:
      'Tell the authority of the country where it happened without delay, on the form for serious undesirable effects.',
    source: 'Regulation (EC) No 1223/2009, article 23; 20 days by the guidelines to it',
    standing: 'published',
    asOf: AS_OF,
  },
  {
    market: 'UK',
    within: { days: 20, counted: 'days' },
    words:
      'Tell the Secretary of State (the office for product safety) without delay, on the form for serious undesirable effects.',
    source: 'Cosmetics regulation as retained (schedule 34), article 23; 20 days by the guidance to it',
    standing: 'published',
    asOf: AS_OF,
  },
  {
    market: 'US',
    within: { days: 15, counted: 'workingDays' },
    words:
      'Sold as a cosmetic: report a serious adverse event to the FDA with a copy of the label, and keep the record for six years (a small business three).',
    source: 'Federal Food, Drug, and Cosmetic Act, section 605',
    standing: 'published',
    asOf: AS_OF,
  },
  {
    market: 'US',
    within: { days: 1, counted: 'days' },
    words:
      'Sold as soap and nothing else: a hazard that could cause serious injury is told to the Consumer Product Safety Commission within 24 hours.',
    source: 'Consumer Product Safety Act, section 15(b)',
    standing: 'published',
    asOf: AS_OF,
  },
  {
    market: 'CA',
    within: null,
    words:
      'No term was found for cosmetics; Health Canada takes reports of reactions, and asks for safety data when it wants them. Ask there.',
    source: 'Cosmetic Regulations, section 29; not read to the end',
    standing: 'typical',
    asOf: AS_OF,
  },
  {
    market: 'AU',
    within: { days: 2, counted: 'days' },
    words:
      'A death, serious injury or illness that somebody connects with it is told to the Commonwealth Minister (the competition and consumer commission) within two days.',
    source: 'Australian Consumer Law, section 131',
    standing: 'published',
    asOf: AS_OF,
  },
];

/** How long records of unwanted effects and the product's file are kept, years, by market; null where none was found. */
export const KEPT_YEARS: Readonly<Record<Market, { years: number; words: string } | null>> = {
  EU: { years: 10, words: 'ten years after the last batch was placed on the market (article 11)' },
  UK: { years: 10, words: 'ten years after the last batch was placed on the market (article 11)' },
  US: { years: 6, words: 'adverse events six years, of a small business three (section 605)' },
  CA: null,
  AU: {
    years: 5,
    words: 'what was introduced, and how it was categorised, five years (industrial chemicals act)',
  },
};
