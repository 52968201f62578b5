/** A withdrawal: what is taken back, where it went, and what to write to those who have it. */
export interface Withdrawal {
  /** Why it is looked for: the lot or the batch. */
  of: string;
  onDate: string;
  maker: string | null;
  batches: { code: string; productName: string; good: number; left: number; labels: string[] }[];
  went: {
    code: string;
    productName: string;
    day: string;
    bars: number;
    how: string;
    to: string | null;
    market: string | null;
    note: string | null;
  }[];
  /** Bars gone, and of them those whose buyer is not known. */
  gone: number;
  unknown: number;
  letter: string;
}
