import { MARKETS, type Market } from '../../../../../core/formula/types';
import { openHouse } from '../../../../../server/house';
import { answerFile, answerJson, endpoint, fault, onlyMethods } from '../../../../../server/http';
import { productFile, productFileAs } from '../../../../../server/services/watch/product-file';

const MIME = { pdf: 'application/pdf', zip: 'application/zip' } as const;

/** The product's file for a market: what it would hold, or as PDF or ZIP. */
export const GET = endpoint(async ({ params, url }) => {
  const market = url.searchParams.get('market') as Market;
  if (!MARKETS.includes(market))
    throw fault(422, 'not-allowed', `Name a market: ${MARKETS.join(', ')}.`, 'market');
  const as = url.searchParams.get('as');
  const [house, id] = [await openHouse(), params.id ?? ''];
  if (as === null) return answerJson(await productFile(house, id, market));
  if (as !== 'pdf' && as !== 'zip') throw fault(422, 'not-allowed', 'It comes as pdf or as zip.', 'as');
  return answerFile(await productFileAs(house, id, market, as), MIME[as], `${id}-${market}-file.${as}`);
});

export const ALL = onlyMethods('GET');
