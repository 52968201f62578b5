import { database } from '../../../../../server/database';
import { KeepVersionDoor, type KeepVersion } from '../../../../../server/doors/keep-version';
import { checkShape } from '../../../../../server/doors/shape';
import { answerJson, endpoint, HttpFault, onlyMethods, readJson } from '../../../../../server/http';
import { keepProductVersion, productVersions } from '../../../../../server/services/products';

export const GET = endpoint(async ({ params }) =>
  answerJson({ versions: await productVersions(await database(), params.id ?? '') }),
);

export const POST = endpoint(async ({ params, request }) => {
  const shaped = checkShape<KeepVersion>(KeepVersionDoor, await readJson(request));
  if (!shaped.ok) throw new HttpFault(422, shaped.errors);
  const { revision, name } = shaped.value;
  const kept = await keepProductVersion(await database(), params.id ?? '', revision, name.trim());
  return answerJson(kept, 'stale' in kept ? 409 : 201);
});

export const ALL = onlyMethods('GET', 'POST');
