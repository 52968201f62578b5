import type { HouseSettings } from '../../../core/records/house';
import { SettingsDoor } from '../../../server/doors/house';
import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../server/http';
import { changeSettings, settingsData } from '../../../server/services/house/house';

export const GET = endpoint(async () => answerJson(await settingsData(await openHouse())));

/** What is set for the whole house; 409 with the newer where it was changed in between. */
export const PUT = endpoint(async ({ request }) => {
  const wanted = await readShaped<HouseSettings & { revision: number; currency: string }>(
    SettingsDoor,
    request,
  );
  const { data, isStale } = await changeSettings(await openHouse(), wanted);
  return answerJson(data, isStale ? 409 : 200);
});

export const ALL = onlyMethods('GET', 'PUT');
