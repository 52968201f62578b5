import type { Market } from '../../../../../core/formula/types';
import type { Country } from '../../../../../core/labels/languages';
import { IssueDoor } from '../../../../../server/doors/wrap';
import { openHouse } from '../../../../../server/house';
import { placeFrom } from '../../../../../server/range-query';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../../server/http';
import { olderLabels } from '../../../../../server/services/wrap/issued';
import { issueLabel } from '../../../../../server/services/wrap/labels';

export const GET = endpoint(async ({ params, url }) =>
  answerJson(await olderLabels(await openHouse(), params.id ?? '', placeFrom(url))),
);

export const POST = endpoint(async ({ params, request }) => {
  const key = requestKey(request);
  const { market, ...of } = await readShaped<{ market: Market; batch?: string; country?: Country }>(
    IssueDoor,
    request,
  );
  return answerJson(await issueLabel(await openHouse(), params.id ?? '', market, key, of), 201);
});

export const ALL = onlyMethods('GET', 'POST');
