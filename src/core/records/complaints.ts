/** Complaints and unwanted effects, as screens and server know them. */
import type { Market } from '../formula/types';
import { dayAfter } from '../quantities/day';

/** What it is about: the bar is not as it should be, or somebody did not bear it. */
export const COMPLAINT_KINDS = ['quality', 'effect'] as const;
export type ComplaintKind = (typeof COMPLAINT_KINDS)[number];

/** How grave: `serious` is lasting harm, a hospital, a birth defect, or worse, as laws have it. */
export const GRAVITIES = ['slight', 'moderate', 'serious'] as const;
export type Gravity = (typeof GRAVITIES)[number];

export const KIND_WORDS: Record<ComplaintKind, string> = {
  quality: 'the bar is not as it should be',
  effect: 'somebody did not bear it',
};

export const GRAVITY_WORDS: Record<Gravity, string> = {
  slight: 'slight: it passed by itself',
  moderate: 'moderate: it wanted care',
  serious: 'serious',
};

/** What laws call serious. */
export const SERIOUS_MEANS =
  'Serious is lasting harm, a hospital, a danger to life, a child harmed before birth.';

/** Complaints counted, in words. */
export const complaintsSaid = ({ all, open }: { all: number; open: number }): string =>
  all === 0
    ? 'A complaint'
    : `${all === 1 ? 'One complaint' : `${all} complaints`}${open > 0 ? `, ${open} open` : ''}`;

export interface StatedComplaint {
  /** The day it was heard of. */
  heardOn: string;
  /** As it stands on the bar, with or without the bar's number; null where it is not known. */
  code: string | null;
  /** The bar it is about; null where the code says so. */
  product: string | null;
  market: Market | null;
  kind: ComplaintKind;
  gravity: Gravity;
  /** What was said. */
  what: string;
  /** Who said it, as far as she wants to be written down. */
  who: string;
  /** What was done about it. */
  done: string;
  /** The day it was closed; null while it is open. */
  closedOn: string | null;
}

export interface Complaint extends StatedComplaint {
  id: string;
  revision: number;
  product: string;
  productName: string;
  /** The batch that the code names; null where it names none on file. */
  batch: string | null;
  batchCode: string | null;
}

/** A term in which something has to be told. */
export interface DueTerm {
  market: Market;
  words: string;
  /** Null where no term in days is set. */
  dueOn: string | null;
  source: string;
}

interface Duty {
  market: Market;
  within: { days: number; counted: 'days' | 'workingDays' } | null;
  words: string;
  source: string;
}

const SUNDAY = 0;
const SATURDAY = 6;

/** A day so many working days later; holidays are not known here, so that it is never too late. */
function workingDaysAfter(day: string, count: number): string {
  let at = day;
  for (let left = count; left > 0;) {
    at = dayAfter(at, 1);
    const weekday = new Date(`${at}T12:00:00Z`).getUTCDay();
    if (weekday !== SUNDAY && weekday !== SATURDAY) left--;
  }
  return at;
}

/**
 * What has to be told of a complaint, and by when: of serious unwanted effects alone, in the market where it happened, or in
 * all where that is not known.
 *
 * @example
 * termsOf({ kind: 'effect', gravity: 'serious', market: 'EU', heardOn: '2026-11-02' }, TELLINGS)[0].dueOn // '2026-11-22'
 */
export function termsOf(
  { kind, gravity, market, heardOn }: Pick<StatedComplaint, 'kind' | 'gravity' | 'market' | 'heardOn'>,
  duties: readonly Duty[],
): DueTerm[] {
  if (kind !== 'effect' || gravity !== 'serious') return [];
  return duties
    .filter((duty) => market === null || duty.market === market)
    .map(({ within, ...duty }) => ({
      ...{ market: duty.market, words: duty.words, source: duty.source },
      dueOn:
        within === null
          ? null
          : within.counted === 'days'
            ? dayAfter(heardOn, within.days)
            : workingDaysAfter(heardOn, within.days),
    }));
}
