import { database } from '../../../../server/database';
import { FromLibraryDoor, OwnMaterialDoor } from '../../../../server/doors/cupboard';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../server/http';
import { searchMaterials } from '../../../../server/services/cupboard';
import { addOwnMaterial, takeFromLibrary, type StatedMaterial } from '../../../../server/services/materials';

export const GET = endpoint(async ({ url }) => {
  const query = (url.searchParams.get('q') ?? '').slice(0, 100);
  return answerJson({ materials: await searchMaterials(await database(), query) });
});

/** A new material of the maker's own. */
export const POST = endpoint(async ({ request }) => {
  const { material, supplier } = await readShaped<{ material: StatedMaterial; supplier?: string | null }>(
    OwnMaterialDoor,
    request,
  );
  return answerJson(await addOwnMaterial(await database(), material, supplier ?? null), 201);
});

/** A material of the starter library, taken into the cupboard. */
export const PUT = endpoint(async ({ request }) => {
  const { library, supplier } = await readShaped<{ library: string; supplier?: string | null }>(
    FromLibraryDoor,
    request,
  );
  return answerJson(await takeFromLibrary(await database(), library, supplier ?? null));
});

export const ALL = onlyMethods('GET', 'POST', 'PUT');
