import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { lastPour } from '../../../../../server/services/pour/last-pour';

/** How a bar was poured the last time; null where it never was. */
export const GET = endpoint(async ({ params }) =>
  answerJson({ last: await lastPour(await openHouse(), params.id ?? '') }),
);

export const ALL = onlyMethods('GET');
