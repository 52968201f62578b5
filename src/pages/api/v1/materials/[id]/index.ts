import { database } from '../../../../../server/database';
import { OwnMaterialDoor } from '../../../../../server/doors/cupboard';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import {
  changeMaterial,
  cupboardEntry,
  discardMaterial,
  type StatedMaterial,
} from '../../../../../server/services/materials';

export const GET = endpoint(async ({ params }) =>
  answerJson(await cupboardEntry(await database(), params.id ?? '')),
);

export const PUT = endpoint(async ({ params, request }) => {
  const { material, supplier } = await readShaped<{ material: StatedMaterial; supplier?: string | null }>(
    OwnMaterialDoor,
    request,
  );
  return answerJson(await changeMaterial(await database(), params.id ?? '', material, supplier));
});

export const DELETE = endpoint(async ({ params }) => {
  await discardMaterial(await database(), params.id ?? '');
  return answerJson({ removed: params.id });
});

export const ALL = onlyMethods('GET', 'PUT', 'DELETE');
