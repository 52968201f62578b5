import { openHouse } from '../../../../../../server/house';
import { answerJson, endpoint, onlyMethods } from '../../../../../../server/http';
import { dropPhoto, photoOf } from '../../../../../../server/services/photos';

export const GET = endpoint(async ({ params }) => {
  const { mime, bytes } = await photoOf(await openHouse(), params.id ?? '', params.photo ?? '');
  return new Response(bytes as BodyInit, {
    headers: {
      'content-type': mime,
      'content-security-policy': "default-src 'none'; sandbox",
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
});

export const DELETE = endpoint(async ({ params }) => {
  await dropPhoto(await openHouse(), params.id ?? '', params.photo ?? '');
  return answerJson({});
});

export const ALL = onlyMethods('GET', 'DELETE');
