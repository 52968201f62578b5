import { openHouse } from '../../../../server/house';
import { answerFile, answerJson, endpoint, onlyMethods } from '../../../../server/http';
import { editionFile, rulebookData } from '../../../../server/services/house/rulebook';

/** An edition with own limits and notes; `as=file` gives it alone, to be kept or taken in elsewhere. */
export const GET = endpoint(async ({ url }) => {
  const house = await openHouse();
  const edition = url.searchParams.get('edition');
  if (url.searchParams.get('as') !== 'file') return answerJson(await rulebookData(house, edition));
  const file = await editionFile(house, edition);
  return answerFile(JSON.stringify(file, null, 1), 'application/json', `rulebook-${file.edition}.json`);
});

export const ALL = onlyMethods('GET');
