/** What one search over everything finds. */
export const HIT_KINDS = [
  'bar',
  'material',
  'lot',
  'batch',
  'paper',
  'label',
  'rule',
  'place',
  'action',
  'hand',
] as const;
export type HitKind = (typeof HIT_KINDS)[number];

export interface Hit {
  kind: HitKind;
  id: string;
  title: string;
  /** What else is said of it. */
  words: string;
  href: string;
}
