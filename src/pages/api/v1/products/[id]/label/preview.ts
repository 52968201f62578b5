import type { Market } from '../../../../../../core/formula/types';
import type { Country } from '../../../../../../core/labels/languages';
import type { Wrap } from '../../../../../../core/records/wrap';
import { PreviewDoor } from '../../../../../../server/doors/wrap';
import { openHouse } from '../../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../../server/http';
import { labelFor } from '../../../../../../server/services/wrap/wrap';

/** A label as the wrap on the screen would have it, drawn as it would print, with what is in the way. */
export const POST = endpoint(async ({ params, request }) => {
  const {
    market,
    wrap,
    batch = null,
    country = null,
  } = await readShaped<{ market: Market; wrap: Wrap; batch?: string; country?: Country }>(
    PreviewDoor,
    request,
  );
  const label = await labelFor(await openHouse(), params.id ?? '', market, 'preview', {
    ...{ wrap, batch, country: market === 'EU' ? country : null },
  });
  const { findings, heights, widthMm, heightMm } = label.layout;
  return answerJson({
    svg: label.file,
    fits: label.fits,
    findings,
    heights,
    widthMm,
    heightMm,
    content: label.content,
  });
});

export const ALL = onlyMethods('POST');
