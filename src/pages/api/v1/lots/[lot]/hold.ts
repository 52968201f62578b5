import { HoldDoor, type Hold } from '../../../../../server/doors/shelf';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { freeLot, holdingOf, holdLot } from '../../../../../server/store/holding';

/** What a hold on the lot takes with it. */
export const GET = endpoint(async ({ params }) =>
  answerJson(await holdingOf(await openHouse(), params.lot ?? '')),
);

/** Holds the lot and every batch it went into (`isHeld` true), or frees them (false), with why. */
export const POST = endpoint(async ({ params, request }) => {
  const { isHeld, reason, by } = await readShaped<Hold>(HoldDoor, request);
  const act = isHeld ? holdLot : freeLot;
  return answerJson(await act(await openHouse(), params.lot ?? '', reason, by));
});

export const ALL = onlyMethods('GET', 'POST');
