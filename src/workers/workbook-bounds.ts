/** What readers of workbooks have in common: how much is read, and how a share is said. */

/** Why a workbook is not read. */
export class WorkbookFault extends Error {}

/** Bytes once unpacked, and cells with something in them. */
export const MOST_BYTES = 80_000_000;
export const MOST_CELLS = 300_000;
/** Blank rows kept between others, so that rows are numbered as their sheet numbers them. */
export const MOST_BLANK = 1000;

export const damaged = () =>
  new WorkbookFault('This workbook cannot be opened. It may be damaged; save it anew, or paste its text.');
export const tooLarge = () =>
  new WorkbookFault(
    'This workbook holds more than is read at once. Save the sheet that matters alone, or paste it.',
  );

/** Digits kept of a share, so that a fraction times a hundred shows no noise of the machine. */
const SHARE_DIGITS = 10;

/**
 * A share as its sheet shows it.
 *
 * @example percentOf(0.07) // '7 %'
 */
export const percentOf = (share: number): string => `${Number((share * 100).toPrecision(SHARE_DIGITS))} %`;

/** Units that a sheet may show behind figures which it holds without. */
const UNIT = /^(?:m?g|gr|gm|grams?|kg|oz|lbs?|ml|cl|l|%|‰)\.?$/i;

/** A figure with the unit that its sheet shows behind it; anything else that is shown there is left out. */
export const withUnit = (value: number, shown: string | undefined): string =>
  shown && UNIT.test(shown) ? `${value} ${shown}` : String(value);
