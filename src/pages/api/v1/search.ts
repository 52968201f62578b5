import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../server/http';
import { search } from '../../../server/services/range/search';

const LONGEST = 200;

/** What answers to `q`, best first: bars, materials, lots, batches, papers, labels and rules. */
export const GET = endpoint(async ({ url }) => {
  const text = (url.searchParams.get('q') ?? '').slice(0, LONGEST);
  return answerJson({ hits: await search(await openHouse(), text) });
});

export const ALL = onlyMethods('GET');
