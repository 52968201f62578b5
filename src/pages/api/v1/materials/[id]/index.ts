import type { StatedMaterial } from '../../../../../core/records/cupboard';
import { ChangedMaterialDoor } from '../../../../../server/doors/cupboard';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { changeMaterial, discardMaterial } from '../../../../../server/services/cupboard/materials';
import { cupboardEntry } from '../../../../../server/store/materials';

export const GET = endpoint(async ({ params }) =>
  answerJson(await cupboardEntry(await openHouse(), params.id ?? '')),
);

export const PUT = endpoint(async ({ params, request }) => {
  const { revision, material, supplier } = await readShaped<{
    revision: number;
    material: StatedMaterial;
    supplier?: string | null;
  }>(ChangedMaterialDoor, request);
  const changed = await changeMaterial(await openHouse(), params.id ?? '', revision, material, supplier);
  return answerJson(changed, 'stale' in changed ? 409 : 200);
});

export const DELETE = endpoint(async ({ params }) => {
  await discardMaterial(await openHouse(), params.id ?? '');
  return answerJson({ removed: params.id });
});

export const ALL = onlyMethods('GET', 'PUT', 'DELETE');
