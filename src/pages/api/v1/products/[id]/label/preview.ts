import type { Market } from '../../../../../../core/formula/types';
import { database } from '../../../../../../server/database';
import { PreviewDoor } from '../../../../../../server/doors/wrap';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../../server/http';
import { layoutSvg } from '../../../../../../server/labels/svg';
import type { Wrap } from '../../../../../../server/repositories/wraps';
import { labelFor } from '../../../../../../server/services/wrap';

/** A label as the wrap on the screen would have it, drawn as it would print, with what is in the way. */
export const POST = endpoint(async ({ params, request }) => {
  const { market, wrap } = await readShaped<{ market: Market; wrap: Wrap }>(PreviewDoor, request);
  const { layout, title, pictures, content } = await labelFor(
    await database(),
    params.id ?? '',
    market,
    wrap,
  );
  const { findings, heights, widthMm, heightMm } = layout;
  return answerJson({
    svg: layoutSvg(layout, title, pictures, true),
    findings,
    heights,
    widthMm,
    heightMm,
    content,
  });
});

export const ALL = onlyMethods('POST');
