import { openHouse } from '../../../server/house';
import { answerFile, answerJson, endpoint, fault, onlyMethods } from '../../../server/http';
import { withdrawalCsv, withdrawalOf, withdrawalPdf } from '../../../server/services/pour/withdrawal';

/** Where bars of a lot or a batch went: `?lot=` or `?batch=`, `as` json, csv or pdf. */
export const GET = endpoint(async ({ url }) => {
  const [lot, batch] = [url.searchParams.get('lot'), url.searchParams.get('batch')];
  const as = url.searchParams.get('as') ?? 'json';
  if (!['json', 'csv', 'pdf'].includes(as))
    throw fault(422, 'not-allowed', 'Choose one of: json, csv, pdf.', 'as');
  const list = await withdrawalOf(await openHouse(), { lot, batch });
  if (as === 'json') return answerJson(list);
  const name = `withdrawal-${list.onDate}`;
  if (as === 'pdf') return answerFile(await withdrawalPdf(list), 'application/pdf', `${name}.pdf`);
  return answerFile(new TextEncoder().encode(withdrawalCsv(list)), 'text/csv; charset=utf-8', `${name}.csv`);
});

export const ALL = onlyMethods('GET');
