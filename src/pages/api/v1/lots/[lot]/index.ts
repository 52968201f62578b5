import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { lotLedger } from '../../../../../server/services/cupboard/lots';

export const GET = endpoint(async ({ params }) =>
  answerJson(await lotLedger(await openHouse(), params.lot ?? '')),
);

export const ALL = onlyMethods('GET');
