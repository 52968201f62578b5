import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { cureData } from '../../../../../server/services/rack/rack';

export const GET = endpoint(async ({ params }) =>
  answerJson(await cureData(await openHouse(), params.id ?? '')),
);

export const ALL = onlyMethods('GET');
