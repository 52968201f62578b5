/** What waits for a hand in places that are not open just now. */

export interface Attention {
  /** On the rack, what cannot wait. */
  rack: number;
  /** Papers in the tray that were not filed. */
  papers: number;
  /** What is wrong with the backups, or null. */
  backups: string | null;
}
