import { openHouse } from '../../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../../server/http';
import { withdrawPaper } from '../../../../../../server/services/cupboard/materials';

export const DELETE = endpoint(async ({ params }) =>
  answerJson(await withdrawPaper(await openHouse(), params.id ?? '', params.paper ?? '')),
);

export const ALL = onlyMethods('DELETE');
