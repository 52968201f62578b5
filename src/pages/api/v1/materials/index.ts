import type { StatedMaterial } from '../../../../core/records/cupboard';
import { FromLibraryDoor, OwnMaterialDoor } from '../../../../server/doors/cupboard';
import { openHouse } from '../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped, requestKey } from '../../../../server/http';
import { findMaterials } from '../../../../server/services/cupboard/cupboard';
import { addOwnMaterial, takeFromLibrary } from '../../../../server/services/cupboard/materials';

const LONGEST_QUERY = 100;
const MOST_IDS = 500;

/** Materials that answer `q`, those of `ids`, or one's own of `kinds`; several parted by commas. */
export const GET = endpoint(async ({ url }) => {
  const query = (url.searchParams.get('q') ?? '').slice(0, LONGEST_QUERY);
  const several = (name: string) => (url.searchParams.get(name) ?? '').split(',', MOST_IDS).filter(Boolean);
  const asked = { query, ids: several('ids'), kinds: several('kinds') };
  return answerJson({ materials: await findMaterials(await openHouse(), asked) });
});

/** A new material of the maker's own. */
export const POST = endpoint(async ({ request }) => {
  const key = requestKey(request);
  const { material, supplier } = await readShaped<{ material: StatedMaterial; supplier?: string | null }>(
    OwnMaterialDoor,
    request,
  );
  return answerJson(await addOwnMaterial(await openHouse(), material, supplier ?? null, key), 201);
});

/** A material of the starter library, taken into the cupboard. */
export const PUT = endpoint(async ({ request }) => {
  const { library, supplier } = await readShaped<{ library: string; supplier?: string }>(
    FromLibraryDoor,
    request,
  );
  return answerJson(await takeFromLibrary(await openHouse(), library, supplier ?? null));
});

export const ALL = onlyMethods('GET', 'POST', 'PUT');
