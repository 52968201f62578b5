/** What was understood of a question, in words. */
import type { Filter } from './ask';
import type { Subject } from './ask-words';

const VERDICT = {
  clear: 'clear',
  tight: 'tight',
  atRisk: 'at risk',
  over: 'over a limit',
  unproven: 'unproven',
} as const;
const FACT: Partial<Record<string, string>> = { vegan: 'vegan', unscented: 'unscented' };

function daysSaid({ from, to }: { from: string | null; to: string | null }, subject: Subject): string {
  const what = subject === 'lots' ? 'came' : 'poured';
  if (from !== null && from === to) return `${what} on ${from}`;
  if (from === null) return `${what} up to ${to}`;
  return to === null ? `${what} from ${from} on` : `${what} from ${from} to ${to}`;
}

/**
 * A filter in words, as it is held against what answers.
 *
 * @example
 * filterSaid({ kind: 'soldIn', market: 'US' }, true, 'bars'); // 'not sold in the US'
 */
export function filterSaid(filter: Filter, not: boolean, subject: Subject): string {
  const no = not ? 'not ' : '';
  switch (filter.kind) {
    case 'holds': {
      const { what, bound } = filter;
      const of = subject === 'lots' ? (not ? 'not of ' : 'of ') : not ? 'without ' : 'with ';
      return `${of}${what.name}${bound ? ` ${bound.relation} ${bound.pct} % of the fats` : ''}`;
    }
    case 'stands':
      return `${no}${VERDICT[filter.verdict]}${filter.market ? ` in ${filter.market}` : ' wherever sold'}`;
    case 'soldIn':
      return `${no}sold in ${filter.market}`;
    case 'fact':
      return `${no}${FACT[filter.fact] ?? filter.fact}`;
    case 'stock':
      return filter.is === 'some' ? `with something ${no}left` : `with nothing ${no}left`;
    case 'state':
      return `${no}${filter.name}`;
    case 'days':
      return `${no}${daysSaid(filter, subject)}`;
    case 'bar':
      return `${no}of ${filter.name}`;
    case 'lot':
      return subject === 'lots'
        ? `${no}lot ${filter.code}`
        : `${not ? 'without' : 'with'} lot ${filter.code}`;
  }
}
