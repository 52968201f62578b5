import type { StatedLot } from '../../../../../../core/records/cupboard';
import { ChangedLotDoor } from '../../../../../../server/doors/cupboard';
import { openHouse } from '../../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../../server/http';
import { changeLot, discardLot } from '../../../../../../server/services/cupboard/lots';

export const PUT = endpoint(async ({ params, request }) => {
  const { revision, ...lot } = await readShaped<StatedLot & { revision: number }>(ChangedLotDoor, request);
  const changed = await changeLot(await openHouse(), params.id ?? '', params.lot ?? '', revision, lot);
  return answerJson(changed, 'stale' in changed ? 409 : 200);
});

export const DELETE = endpoint(async ({ params }) =>
  answerJson(await discardLot(await openHouse(), params.id ?? '', params.lot ?? '')),
);

export const ALL = onlyMethods('PUT', 'DELETE');
