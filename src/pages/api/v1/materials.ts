import { database } from '../../../server/database';
import { answerJson, endpoint, onlyMethods } from '../../../server/http';
import { searchMaterials } from '../../../server/services/cupboard';

export const GET = endpoint(async ({ url }) => {
  const query = (url.searchParams.get('q') ?? '').slice(0, 100);
  return answerJson({ materials: await searchMaterials(await database(), query) });
});

export const ALL = onlyMethods('GET');
