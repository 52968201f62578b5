import { openHouse } from '../../../../../../server/house';
import { answerJson, answerStored, endpoint, onlyMethods } from '../../../../../../server/http';
import { dropPhoto, photoOf } from '../../../../../../server/services/pour/photos';

export const GET = endpoint(async ({ params }) => {
  const { mime, bytes } = await photoOf(await openHouse(), params.id ?? '', params.photo ?? '');
  return answerStored(bytes, mime, 'private, max-age=31536000, immutable');
});

export const DELETE = endpoint(async ({ params }) => {
  await dropPhoto(await openHouse(), params.id ?? '', params.photo ?? '');
  return answerJson({});
});

export const ALL = onlyMethods('GET', 'DELETE');
