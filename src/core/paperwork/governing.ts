/** Which of the papers on file counts for a material on a day, and why. */

/** What is filed of a material. */
export type PaperType = 'certificate' | 'allergens';

export interface PaperOnFile {
  id: string;
  type: PaperType;
  number: string;
  edition: string | null;
  issuedOn: string;
  issuer: string;
}

export interface Governing<T extends PaperOnFile> {
  paper: T;
  /** Others of its type on file, newest first. */
  others: T[];
  /** Why this one, and what to watch, in words. */
  reasons: string[];
  /** What should be asked of the supplier; null where nothing. */
  ask: string | null;
}

/** Papers older than this are worth asking about again, in years; usual among assessors. */
const OLD_YEARS = 3;

function yearsBetween(from: string, to: string): number {
  return (Date.parse(to) - Date.parse(from)) / (365.25 * 24 * 3600 * 1000);
}

function editionNumber(edition: string | null): number {
  return Number(/\d+/.exec(edition ?? '')?.[0] ?? NaN);
}

/**
 * The newest paper of a type that was issued by the day counts; papers dated later wait for their day. Null
 * where there is none yet.
 *
 * @example
 * governingPaper(papers, 'certificate', '2026-11-24', '51')?.reasons; // why this one counts
 */
export function governingPaper<T extends PaperOnFile>(
  papers: readonly T[],
  type: PaperOnFile['type'],
  onDate: string,
  newestEdition: string,
): Governing<T> | null {
  const ofType = papers.filter((paper) => paper.type === type);
  const issued = ofType.filter(({ issuedOn }) => issuedOn <= onDate);
  // Of one day the one filed later counts; they come newest first.
  const [paper, ...older] = [...issued].sort((a, b) => b.issuedOn.localeCompare(a.issuedOn));
  if (!paper) return null;
  const waiting = ofType.filter(({ issuedOn }) => issuedOn > onDate);
  const reasons = [
    older[0]?.issuedOn === paper.issuedOn
      ? `of the same day as ${older[0].number}, and filed later; that one is kept but no longer counts`
      : older.length > 0
        ? `the newest of ${older.length + 1}; ${older[0]!.number} of ${older[0]!.issuedOn} is kept but no longer counts`
        : 'the only one on file',
    ...waiting.map(({ number, issuedOn }) => `${number} counts from ${issuedOn}`),
  ];
  let ask: string | null = null;
  if (type === 'certificate' && editionNumber(paper.edition) < editionNumber(newestEdition)) {
    ask = `It follows the ${paper.edition} edition; the newest known is the ${newestEdition}. Ask for a new certificate.`;
  } else if (yearsBetween(paper.issuedOn, onDate) > OLD_YEARS) {
    ask = `It is from ${paper.issuedOn}. Ask whether it still holds.`;
  }
  return { paper, others: [...waiting, ...older], reasons, ask };
}
