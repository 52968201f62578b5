/** What needs a hand: one notion for every place that tells it, each with the door to where it is done. */

/** `grave` comes first everywhere; `small` may fold; `later` is of the calendar alone. */
export const HAND_URGENCIES = ['grave', 'now', 'due', 'small', 'later'] as const;
export type HandUrgency = (typeof HAND_URGENCIES)[number];

export type HandPlace = 'Range' | 'Rack' | 'Cupboard' | 'Paper tray' | 'Wrap' | 'Watch' | 'House';

/** What one press does where it stands. */
export type HandAct = { kind: 'reissue'; task: string } | { kind: 'turned'; batch: string };

export interface Hand {
  /** The same for as long as it waits. */
  id: string;
  /** The thing in hand: a bar, a batch, a lot. */
  what: string;
  /** What it waits for, in a sentence. */
  why: string;
  urgency: HandUrgency;
  /** Where it is counted. */
  place: HandPlace;
  /** The address that opens the place with the thing in hand. */
  where: string;
  act: HandAct | null;
  /** The day or moment it can be done from or falls due; null for none. */
  on: string | null;
  /** Ids of the bar and the batch it is about; null for none. */
  bar: string | null;
  batch: string | null;
}

/** What cannot wait. */
export const isPressing = ({ urgency }: Pick<Hand, 'urgency'>): boolean =>
  urgency === 'grave' || urgency === 'now';

/** What waits today, small or not. */
export const isWaiting = ({ urgency }: Pick<Hand, 'urgency'>): boolean => urgency !== 'later';

/** Grave first; among equals what is due first, what has no day last. */
export function byGravity(a: Pick<Hand, 'urgency' | 'on'>, b: Pick<Hand, 'urgency' | 'on'>): number {
  const rank = ({ urgency }: Pick<Hand, 'urgency'>) => HAND_URGENCIES.indexOf(urgency);
  return rank(a) - rank(b) || (a.on ?? '9999').localeCompare(b.on ?? '9999');
}

/** What waits in one place, for the header. */
export interface PlaceWaits {
  /** How many wait there that cannot. */
  count: number;
  words: string;
}

/** Places in which something cannot wait. */
export type Attention = Partial<Record<HandPlace, PlaceWaits>>;

/** Counts what cannot wait by its place; the most pressing one is told. */
export function attentionOf(hands: readonly Hand[]): Attention {
  const found: Attention = {};
  for (const hand of [...hands].filter(isPressing).sort(byGravity)) {
    const known = found[hand.place];
    if (known) known.count += 1;
    else found[hand.place] = { count: 1, words: `${hand.what}: ${hand.why}` };
  }
  return found;
}
