import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../server/http';
import { calendarKey } from '../../../../../server/services/rack/calendar';

const answer = (key: string) => answerJson({ path: `/api/v1/rack/calendar/${key}.ics` });

export const GET = endpoint(async () => answer(await calendarKey(await openHouse())));

/** A new secret address; the old one says nothing more. */
export const POST = endpoint(async () => answer(await calendarKey(await openHouse(), true)));

export const ALL = onlyMethods('GET', 'POST');
