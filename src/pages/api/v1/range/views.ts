import type { RangeViews } from '../../../../core/records/range';
import { RangeViewsDoor } from '../../../../server/doors/range';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { changeSetting, settingOf } from '../../../../server/services/house/settings';

export const GET = endpoint(async () => {
  const { value, revision } = await settingOf(await openHouse(), 'rangeViews');
  return answerJson({ views: value, revision } satisfies RangeViews);
});

/** Ways of looking at the range, as a whole; 409 with the newer where they were changed in between. */
export const PUT = endpoint(async ({ request }) => {
  const { revision, views } = await readShaped<RangeViews>(RangeViewsDoor, request);
  const { setting, stale } = await changeSetting(await openHouse(), 'rangeViews', revision, views);
  return answerJson({ views: setting.value, revision: setting.revision }, stale ? 409 : 200);
});

export const ALL = onlyMethods('GET', 'PUT');
