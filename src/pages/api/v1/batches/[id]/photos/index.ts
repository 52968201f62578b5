import { openHouse } from '../../../../../../server/house';
import { answerJson, endpoint, fault, onlyMethods, readBytes } from '../../../../../../server/http';
import { keepPhoto, listPhotos } from '../../../../../../server/services/pour/photos';

export const GET = endpoint(async ({ params }) =>
  answerJson({ photos: await listPhotos(await openHouse(), params.id ?? '') }),
);

/** A photograph of a batch, as the bytes of a JPEG, PNG or WebP; `note` in the address says what it shows. */
export const POST = endpoint(async ({ params, request, url }) => {
  const type = (request.headers.get('content-type') ?? '').split(';')[0]!.trim();
  if (!type.startsWith('image/'))
    throw fault(415, 'not-a-picture', 'Send the photograph as image/jpeg, image/png or image/webp.');
  const note = url.searchParams.get('note') ?? '';
  return answerJson(await keepPhoto(await openHouse(), params.id ?? '', note, await readBytes(request)), 201);
});

export const ALL = onlyMethods('GET', 'POST');
