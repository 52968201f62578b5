import { RuleNoteDoor } from '../../../../server/doors/change';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { keepRuleNote } from '../../../../server/services/house/rulebook';

/** A note at a rule; empty takes it away; 409 with the newer notes where they were changed in between. */
export const PUT = endpoint(async ({ request }) => {
  const { revision, id, text } = await readShaped<{ revision: number; id: string; text: string }>(
    RuleNoteDoor,
    request,
  );
  const { isStale, ...kept } = await keepRuleNote(await openHouse(), revision, id, text);
  return answerJson(kept, isStale ? 409 : 200);
});

export const ALL = onlyMethods('PUT');
