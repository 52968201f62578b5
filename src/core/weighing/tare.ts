/** Setting a new zero without touching the scale, and when only that helps. */
import { MOST_CARRIED, startFollowing, type Following } from './follow';
import { median } from './samples';

/** Readings that the new zero is taken from. */
const LAST_READINGS = 8;

/** Begins anew with what the display shows as zero: the next thing is weighed on top of what stands there. */
export function tareFollowing({ readabilityG, saidG, seen, recent, place, offsetG }: Following): Following {
  const anew: Following = { ...startFollowing({ readabilityG }), saidG, seen };
  if (recent.length === 0) return { ...anew, place: place === 'blank' ? 'blank' : 'on' };
  return { ...anew, offsetG: offsetG - median(recent.slice(-LAST_READINGS)) };
}

/**
 * Grams of doubt that zero presses in mid-pour have left, where they are too much for the mass ever to settle; null
 * where they are not. Only typing the mass in, or beginning anew, helps then.
 */
export function lastingDoubtG({ carriedDoubt, readabilityG }: Following): number | null {
  return carriedDoubt > MOST_CARRIED ? carriedDoubt * readabilityG : null;
}
