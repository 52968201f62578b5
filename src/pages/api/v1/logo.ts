import { database } from '../../../server/database';
import { answerJson, endpoint, fault, onlyMethods, readBytes } from '../../../server/http';
import { readLogo } from '../../../server/labels/logo';
import { findLogo, putLogo } from '../../../server/repositories/wraps';

export const GET = endpoint(async () => {
  const logo = await findLogo(await database());
  if (!logo) throw fault(404, 'no-logo', 'No picture is on file yet.');
  return new Response(logo.bytes as BodyInit, {
    headers: {
      'content-type': logo.mime,
      'x-content-type-options': 'nosniff',
      'content-security-policy': "default-src 'none'",
      'cache-control': 'no-store',
    },
  });
});

/** The maker's picture, as the bytes of a PNG or SVG file; an SVG is kept only as far as it is harmless. */
export const PUT = endpoint(async ({ request }) => {
  const type = (request.headers.get('content-type') ?? '').split(';')[0]!.trim();
  if (!type.startsWith('image/'))
    throw fault(415, 'not-a-picture', 'Send the picture as image/png or image/svg+xml.');
  const logo = readLogo(await readBytes(request));
  await putLogo(await database(), logo);
  return answerJson({ widthOverHeight: logo.widthOverHeight });
});

export const DELETE = endpoint(async () => {
  await putLogo(await database(), null);
  return answerJson({ removed: true });
});

export const ALL = onlyMethods('GET', 'PUT', 'DELETE');
