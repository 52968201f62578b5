import { openHouse } from '../../../server/house';
import { answerJson, answerStored, endpoint, fault, onlyMethods, readBytes } from '../../../server/http';
import { currentLogo, keepLogo } from '../../../server/services/wrap/logo';

export const GET = endpoint(async () => {
  const logo = await currentLogo(await openHouse());
  if (!logo) throw fault(404, 'no-logo', 'No picture is on file yet.');
  return answerStored(logo.bytes, logo.mime);
});

/** The maker's picture, as the bytes of a PNG or SVG file; written anew, and kept only as far as it is harmless. */
export const PUT = endpoint(async ({ request }) => {
  const type = (request.headers.get('content-type') ?? '').split(';')[0]!.trim();
  if (!type.startsWith('image/'))
    throw fault(415, 'not-a-picture', 'Send the picture as image/png or image/svg+xml.');
  const { widthOverHeight } = await keepLogo(await openHouse(), await readBytes(request));
  return answerJson({ widthOverHeight });
});

export const DELETE = endpoint(async () => {
  await keepLogo(await openHouse(), null);
  return answerJson({ removed: true });
});

export const ALL = onlyMethods('GET', 'PUT', 'DELETE');
