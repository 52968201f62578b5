import { database } from '../../../../../server/database';
import { KeepVersionDoor, type KeepVersion } from '../../../../../server/doors/keep-version';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { keepProductVersion, productVersions } from '../../../../../server/services/products';

export const GET = endpoint(async ({ params }) =>
  answerJson({ versions: await productVersions(await database(), params.id ?? '') }),
);

export const POST = endpoint(async ({ params, request }) => {
  const asked = await readShaped<KeepVersion>(KeepVersionDoor, request);
  const { revision, name } = asked;
  const kept = await keepProductVersion(await database(), params.id ?? '', revision, name.trim());
  return answerJson(kept, 'stale' in kept ? 409 : 201);
});

export const ALL = onlyMethods('GET', 'POST');
