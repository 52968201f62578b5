/** What an overview's address asks for: letters of a name, those put away, a page. */
import { fault } from './http';
import type { RangeQuery } from './store/overviews';

const LONGEST_FIND = 100;

/** The place in a list from which more is asked for, `from`; 0 where nothing is said, 422 where it is no number. */
export function placeFrom({ searchParams }: URL): number {
  const text = searchParams.get('from') ?? '0';
  if (!/^\d{1,7}$/.test(text))
    throw fault(422, 'invalid', 'Say from which place on, as a whole number.', 'from');
  return Number(text);
}

/** Reads what page of a list an address asks for; whatever is no query counts as not asked. */
export function pageQuery({ searchParams }: URL): { find: string; page: number } {
  return {
    find: (searchParams.get('find') ?? '').trim().slice(0, LONGEST_FIND),
    page: Number(/^\d{1,6}$/.exec(searchParams.get('page') ?? '')?.[0] ?? 1),
  };
}

/** The same of bars, also of those put away. */
export const rangeQuery = (url: URL): RangeQuery => ({
  ...pageQuery(url),
  putAway: url.searchParams.get('show') === 'away',
});
