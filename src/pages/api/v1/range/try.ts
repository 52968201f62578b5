import type { Market } from '../../../../core/formula/types';
import { TryBarsDoor } from '../../../../server/doors/range';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { tryBars } from '../../../../server/store/overviews';

/** Some bars on another day or in other markets; nothing is kept. */
export const POST = endpoint(async ({ request }) => {
  const { bars, ...what } = await readShaped<{ bars: string[]; onDate?: string; markets?: Market[] }>(
    TryBarsDoor,
    request,
  );
  return answerJson(await tryBars(await openHouse(), bars, what));
});

export const ALL = onlyMethods('POST');
