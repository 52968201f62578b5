import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../server/http';
import { answerTo } from '../../../server/services/range/ask';

const LONGEST = 200;

/** A question in words: what was understood and what answers; `asked` is null where the words are no question. */
export const GET = endpoint(async ({ url }) => {
  const text = (url.searchParams.get('q') ?? '').slice(0, LONGEST);
  return answerJson({ asked: await answerTo(await openHouse(), text) });
});

export const ALL = onlyMethods('GET');
