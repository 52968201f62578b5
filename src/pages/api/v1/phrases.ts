import type { OwnPhrase } from '../../../core/claims/types';
import { database } from '../../../server/database';
import { OwnPhrasesDoor } from '../../../server/doors/wrap';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../server/http';
import { findOwnPhrases, putOwnPhrases } from '../../../server/repositories/settings';

export const GET = endpoint(async () => answerJson({ phrases: await findOwnPhrases(await database()) }));

/** The maker's own phrases, as a whole. */
export const PUT = endpoint(async ({ request }) => {
  const { phrases } = await readShaped<{ phrases: OwnPhrase[] }>(OwnPhrasesDoor, request);
  const kept = phrases.map(({ say, class: kind, language }) => ({ say: say.trim(), class: kind, language }));
  await putOwnPhrases(await database(), kept);
  return answerJson({ phrases: kept });
});

export const ALL = onlyMethods('GET', 'PUT');
