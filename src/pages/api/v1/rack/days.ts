import type { CuringDays } from '../../../../core/records/rack';
import { CuringDaysDoor } from '../../../../server/doors/rack';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { setCuringDays } from '../../../../server/services/rack/rack';

/** The maker's own days: at least, and from pour to sale as a rule; 409 with the newer where they were changed in between. */
export const PUT = endpoint(async ({ request }) => {
  const { revision, least, usual } = await readShaped<CuringDays & { revision: number }>(
    CuringDaysDoor,
    request,
  );
  const { data, isStale } = await setCuringDays(await openHouse(), revision, { least, usual });
  return answerJson(data, isStale ? 409 : 200);
});

export const ALL = onlyMethods('PUT');
