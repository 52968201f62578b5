import type { Maker } from '../../../core/records/wrap';
import { MakerDoor } from '../../../server/doors/maker';
import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../server/http';
import { changeSetting, settingOf } from '../../../server/services/house/settings';

export const GET = endpoint(async () => {
  const { value, revision } = await settingOf(await openHouse(), 'maker');
  return answerJson({ maker: value, revision });
});

/** Who answers for the product, as a label names them. */
export const PUT = endpoint(async ({ request }) => {
  const { revision, ...maker } = await readShaped<Maker & { revision: number }>(MakerDoor, request);
  const { setting, stale } = await changeSetting(await openHouse(), 'maker', revision, maker);
  return answerJson({ maker: setting.value, revision: setting.revision, stale }, stale ? 409 : 200);
});

export const ALL = onlyMethods('GET', 'PUT');
