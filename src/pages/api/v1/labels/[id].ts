import { checkShape } from '../../../../server/doors/shape';
import { ReprintQueryDoor } from '../../../../server/doors/wrap';
import { openHouse } from '../../../../server/house';
import { answerFile, endpoint, HttpFault, onlyMethods } from '../../../../server/http';
import { reprint, type Reprint } from '../../../../server/services/wrap/labels';

/** An issued label's PDF, to the byte as it was issued, or `copies` of it on sheets (`as=a4`, `as=letter`). */
export const GET = endpoint(async ({ params, url }) => {
  const { copies: count, ...rest } = Object.fromEntries(url.searchParams);
  const asked = { ...rest, ...(count === undefined ? {} : { copies: Number(count) }) };
  const shaped = checkShape<Partial<Reprint>>(ReprintQueryDoor, asked);
  if (!shaped.ok) throw new HttpFault(422, shaped.errors);
  const { as = 'pdf', copies = null } = shaped.value;
  const name = as === 'pdf' ? `${params.id}.pdf` : `${params.id}-${as}.pdf`;
  return answerFile(
    await reprint(await openHouse(), params.id ?? '', { as, copies }),
    'application/pdf',
    name,
  );
});

export const ALL = onlyMethods('GET');
