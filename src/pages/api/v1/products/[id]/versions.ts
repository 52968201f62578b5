import { KeepVersionDoor, type KeepVersion } from '../../../../../server/doors/keep-version';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { keepProductVersion, productVersions } from '../../../../../server/services/worktable/products';

export const GET = endpoint(async ({ params }) =>
  answerJson({ versions: await productVersions(await openHouse(), params.id ?? '') }),
);

export const POST = endpoint(async ({ params, request }) => {
  const { revision, name } = await readShaped<KeepVersion>(KeepVersionDoor, request);
  const kept = await keepProductVersion(await openHouse(), params.id ?? '', revision, name.trim());
  return answerJson(kept, 'stale' in kept ? 409 : 201);
});

export const ALL = onlyMethods('GET', 'POST');
