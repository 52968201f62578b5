import { openHouse } from '../../../../server/house';
import { answerFile, endpoint, onlyMethods } from '../../../../server/http';
import { reprint } from '../../../../server/services/wrap/labels';

/** An issued label's PDF, to the byte as it was issued. */
export const GET = endpoint(async ({ params }) =>
  answerFile(await reprint(await openHouse(), params.id ?? ''), 'application/pdf', `${params.id}.pdf`),
);

export const ALL = onlyMethods('GET');
