import type { Mould } from '../../../core/making/size';
import { MouldsDoor } from '../../../server/doors/cupboard';
import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../server/http';
import { changeSetting, settingOf } from '../../../server/services/house/settings';

export const GET = endpoint(async () => {
  const { value, revision } = await settingOf(await openHouse(), 'moulds');
  return answerJson({ moulds: value, revision });
});

/** The maker's moulds, as a whole. */
export const PUT = endpoint(async ({ request }) => {
  const { revision, moulds } = await readShaped<{ revision: number; moulds: Mould[] }>(MouldsDoor, request);
  const { setting, stale } = await changeSetting(await openHouse(), 'moulds', revision, moulds);
  return answerJson({ moulds: setting.value, revision: setting.revision, stale }, stale ? 409 : 200);
});

export const ALL = onlyMethods('GET', 'PUT');
