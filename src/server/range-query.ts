/** What an overview's address asks for: letters of a name, those put away, a page. */
import type { RangeQuery } from './services/range/overviews';

const LONGEST_FIND = 100;

/** Reads the query of an address; whatever is no query counts as not asked. */
export function rangeQuery({ searchParams }: URL): RangeQuery {
  return {
    find: (searchParams.get('find') ?? '').trim().slice(0, LONGEST_FIND),
    putAway: searchParams.get('show') === 'away',
    page: Number(/^\d{1,6}$/.exec(searchParams.get('page') ?? '')?.[0] ?? 1),
  };
}
