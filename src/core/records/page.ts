/** A page of a long list, as screens and server know it. */
export interface PageOf {
  /** From 1. */
  page: number;
  pages: number;
  /** How many there are on all pages. */
  count: number;
  /** Letters that were looked for. */
  find: string;
}
