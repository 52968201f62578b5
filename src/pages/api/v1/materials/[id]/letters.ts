import type { WrittenLetter } from '../../../../../core/paperwork/supplier-letter';
import { LetterDoor } from '../../../../../server/doors/conditions';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { keepLetter } from '../../../../../server/services/cupboard/supplier-letters';

/** A letter to the supplier, written today. */
export const PUT = endpoint(async ({ params, request }) => {
  const letter = await readShaped<Omit<WrittenLetter, 'on'>>(LetterDoor, request);
  return answerJson(await keepLetter(await openHouse(), params.id ?? '', letter));
});

/** Takes the newest letter off. */
export const DELETE = endpoint(async ({ params }) =>
  answerJson(await keepLetter(await openHouse(), params.id ?? '', null)),
);

export const ALL = onlyMethods('PUT', 'DELETE');
