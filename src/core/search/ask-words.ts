/** The words that questions about the house are made of. */
import type { FactId } from '../claims/types';
import type { Verdict } from '../formula/answer';
import type { Kind, Market } from '../formula/types';

export type Subject = 'bars' | 'batches' | 'lots';

interface Said<T> {
  words: readonly string[];
  is: T;
}

/** Each thing with the ways of saying it; a way of more words comes first. */
function said<T>(ways: readonly (readonly [T, string])[]): Said<T>[] {
  return ways
    .flatMap(([is, all]) => all.split('|').map((way) => ({ words: way.split(' '), is })))
    .sort((a, b) => b.words.length - a.words.length);
}

export const SUBJECTS = said<Subject>([
  ['bars', 'bar|soap|product|formula|recipe'],
  ['batches', 'batch|pour'],
  ['lots', 'lot|deliveries'],
]);

export const MARKETS_SAID = said<Market>([
  ['EU', 'eu|european union|europe'],
  ['UK', 'uk|united kingdom|britain|great britain'],
  ['US', 'us|usa|united states|america'],
  ['CA', 'canada|ca'],
  ['AU', 'australia|au'],
]);

export const VERDICTS_SAID = said<Verdict>([
  ['clear', 'clear'],
  ['tight', 'tight'],
  ['atRisk', 'at risk'],
  ['over', 'over|over the limit|over a limit'],
  ['unproven', 'unproven|without papers|without a paper|without certificates'],
]);

/** Facts of a formula that have words of their own; the others are said by what is not in a bar. */
export const FACTS = said<FactId>([
  ['vegan', 'vegan'],
  ['unscented', 'unscented|without scent|no scent'],
]);

export const STATES = said<{ state: string; name: string }>([
  [{ state: 'pouring', name: 'being poured' }, 'pouring|being poured'],
  [{ state: 'poured', name: 'poured, not cut' }, 'not cut|uncut|in the mould'],
  [{ state: 'cut', name: 'cut' }, 'just cut'],
  [{ state: 'curing', name: 'curing' }, 'curing|on the rack'],
  [{ state: 'released', name: 'released' }, 'released'],
  [{ state: 'soldOut', name: 'sold out' }, 'gone'],
  [{ state: 'discarded', name: 'discarded' }, 'discarded|thrown away'],
  [{ state: 'stopped', name: 'stopped' }, 'stopped'],
  [{ state: 'quarantined', name: 'held' }, 'held|quarantined|in quarantine'],
]);

export const KINDS_SAID: readonly (readonly [name: string, kind: Kind])[] = [
  ['wax', 'wax'],
  ['milk', 'milk'],
  ['fragrance oil', 'fragrance'],
  ['fragrance', 'fragrance'],
  ['essential oil', 'essentialOil'],
  ['clay', 'clay'],
  ['salt', 'salt'],
  ['sugar', 'sugar'],
  ['botanical', 'botanical'],
  ['colour', 'colourant'],
  ['color', 'colourant'],
  ['colourant', 'colourant'],
  ['scrub', 'exfoliant'],
  ['exfoliant', 'exfoliant'],
  ['fibre', 'fibre'],
];
