import { openHouse } from '../../../../../server/house';
import { answerFile, answerJson, endpoint, fault, onlyMethods } from '../../../../../server/http';
import { recordAsPdf, recordOf } from '../../../../../server/services/pour/batch-record';

export const GET = endpoint(async ({ params, url }) => {
  const as = url.searchParams.get('as') ?? 'json';
  const id = params.id ?? '';
  const house = await openHouse();
  if (as === 'json') return answerJson(await recordOf(house, id));
  if (as !== 'pdf') throw fault(422, 'not-allowed', 'Choose one of: pdf, json.', 'as');
  const { bytes, code } = await recordAsPdf(house, id);
  return answerFile(bytes, 'application/pdf', `batch-${code}.pdf`);
});

export const ALL = onlyMethods('GET');
