import { NamesDoor } from '../../../../server/doors/import';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { matchNames } from '../../../../server/services/house/import';

/** The material each name most likely is. */
export const POST = endpoint(async ({ request }) => {
  const { names } = await readShaped<{ names: string[] }>(NamesDoor, request);
  return answerJson({ matches: await matchNames(await openHouse(), names) });
});

export const ALL = onlyMethods('POST');
