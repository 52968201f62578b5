import { database } from '../../../../../server/database';
import { LabelQueryDoor } from '../../../../../server/doors/label-query';
import { checkShape } from '../../../../../server/doors/shape';
import { endpoint, HttpFault, onlyMethods } from '../../../../../server/http';
import { labelPdf, type LabelOrder } from '../../../../../server/services/labels';

export const GET = endpoint(async ({ params, url }) => {
  const asked = Object.fromEntries(url.searchParams);
  const query = { ...asked, netMassG: Number(asked.netMassG || NaN), batchCode: asked.batchCode ?? '' };
  const shaped = checkShape<LabelOrder>(LabelQueryDoor, query);
  if (!shaped.ok) throw new HttpFault(422, shaped.errors);
  const id = params.id ?? '';
  const pdf = await labelPdf(await database(), id, shaped.value);
  const file = `${id}-${shaped.value.market}-label.pdf`.replace(/[^\w.-]/g, '_');
  return new Response(pdf as BodyInit, {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `attachment; filename="${file}"` },
  });
});

export const ALL = onlyMethods('GET');
