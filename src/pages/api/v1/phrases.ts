import type { OwnPhrase } from '../../../core/claims/types';
import { OwnPhrasesDoor } from '../../../server/doors/wrap';
import { openHouse } from '../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../server/http';
import { changeSetting, settingOf } from '../../../server/services/house/settings';

export const GET = endpoint(async () => {
  const { value, revision } = await settingOf(await openHouse(), 'ownPhrases');
  return answerJson({ phrases: value, revision });
});

/** The maker's own phrases, as a whole. */
export const PUT = endpoint(async ({ request }) => {
  const { revision, phrases } = await readShaped<{ revision: number; phrases: OwnPhrase[] }>(
    OwnPhrasesDoor,
    request,
  );
  const kept = phrases.map((phrase) => ({ ...phrase, say: phrase.say.trim() }));
  const { setting, stale } = await changeSetting(await openHouse(), 'ownPhrases', revision, kept);
  return answerJson({ phrases: setting.value, revision: setting.revision, stale }, stale ? 409 : 200);
});

export const ALL = onlyMethods('GET', 'PUT');
