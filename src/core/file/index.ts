/** The product's file, put together of its sections. */
import type { Market } from '../formula/types';
import { batches, method, stability } from './made';
import { formula, inTheBar, itself, papers } from './product';
import { asked, claims, heard, labels } from './told';
import type { FileInput, ProductFile } from './types';

/** What such a file is called in each market, and by which law. */
const CALLED: Record<Market, string> = {
  EU: 'Product information file, Regulation (EC) No 1223/2009, article 11. The safety report by a qualified assessor (article 10) belongs to it and is not in here.',
  UK: 'Product information file, the cosmetics regulation as retained, article 11. The safety report by a qualified assessor (article 10) belongs to it and is not in here.',
  US: 'Records for safety substantiation, listing data and adverse events, Federal Food, Drug, and Cosmetic Act, sections 605 to 608. Soap sold only as soap stands outside them.',
  CA: 'Data for the cosmetic notification, Cosmetic Regulations, section 30, with what stands behind it.',
  AU: 'What an introducer is asked for, Industrial Chemicals Act 2019: chemicals with numbers and amounts, and the product they are in.',
};

const IS_NOT =
  'This is no safety assessment and no permission: it lays out what the maker has on file, for a qualified assessor and for authorities to judge by the rules where the bar is sold.';

/**
 * The file of a bar in a market, what is missing first.
 *
 * @example
 * fileOf(input).missing[0]; // 'Certificate of Coal & Violets: ask the supplier.'
 */
export function fileOf(input: FileInput): ProductFile {
  const { name, market, onDate, rulebookEdition, attached } = input;
  const sections = [
    itself(input),
    formula(input),
    papers(input),
    inTheBar(input),
    method(input),
    batches(input),
    stability(input),
    labels(input),
    claims(input),
    heard(input),
    asked(input),
  ];
  return {
    title: `${name}, ${market}`,
    of: CALLED[market],
    market,
    onDate,
    rulebookEdition,
    isNot: IS_NOT,
    missing: sections.flatMap(({ missing }) => missing),
    sections,
    attached: [...attached],
  };
}
