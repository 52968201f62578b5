import type { RangeNamesAsked } from '../../../../core/records/scent';
import { RangeNamesDoor } from '../../../../server/doors/range';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { rangeNames } from '../../../../server/services/scent/range-names';

/** Which few swaps of scents take most names off all labels; nothing is kept. */
export const POST = endpoint(async ({ request }) => {
  const asked = await readShaped<RangeNamesAsked>(RangeNamesDoor, request);
  return answerJson(await rangeNames(await openHouse(), asked));
});

export const ALL = onlyMethods('POST');
