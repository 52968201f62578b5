import type { PricingOfBar } from '../../../../../core/records/pricing';
import { PricingOfBarDoor } from '../../../../../server/doors/pricing';
import { openHouse } from '../../../../../server/house';
import { answerJson, endpoint, onlyMethods, readShaped } from '../../../../../server/http';
import { keepPricing, pricingData } from '../../../../../server/services/worktable/pricing';

/** What a bar is sold for and what making it takes. */
export const GET = endpoint(async ({ params }) =>
  answerJson(await pricingData(await openHouse(), params.id ?? '')),
);

/** Keeps them; 409 with the newer where they were changed in between. */
export const PUT = endpoint(async ({ params, request }) => {
  const { revision, ...pricing } = await readShaped<PricingOfBar & { revision: number }>(
    PricingOfBarDoor,
    request,
  );
  const { data, isStale } = await keepPricing(await openHouse(), params.id ?? '', revision, pricing);
  return answerJson(data, isStale ? 409 : 200);
});

export const ALL = onlyMethods('GET', 'PUT');
