/** What a bar is in each market's law, given what is in it and what is said of it. */
import type { ClaimFinding } from '../claims/types';
import type { Assessment } from '../formula/answer';
import type { Market } from '../formula/types';
import { LABEL_MANNERS } from './manners';

export type Regime = 'soap' | 'cosmetic' | 'medicine';

export interface Standing {
  market: Market;
  regime: Regime;
  /** Why, in words; empty where it is what such bars usually are. */
  because: string[];
  /** What was taken for granted on the way. */
  assumed: string[];
}

/** Below this share of soap in the dry bar, percent, "mostly alkali salts of fatty acids" is worth a second look. */
const PLAINLY_SOAP_PCT = 60;
const HALF_PCT = 50;

/** Soap's share of the bar without its water, percent. */
export function soapSharePct({ masses }: Assessment): number {
  const dryG = masses.pourG - masses.waterG;
  return dryG > 0 ? (100 * masses.soapG) / dryG : 0;
}

function wordsOf(claims: readonly ClaimFinding[], market: Market, wanted: string): string[] {
  const found = claims.filter((claim) => claim.class[market] === wanted);
  return [...new Set(found.map(({ words }) => `“${words}”`))];
}

/** What a bar is where soap that is sold only as soap stands outside the cosmetic rules (rules by market). */
function asSoap(market: Market, claims: readonly ClaimFinding[], soapPct: number): Omit<Standing, 'market'> {
  const cosmetic = wordsOf(claims, market, 'cosmetic');
  const assumed =
    soapPct < PLAINLY_SOAP_PCT
      ? [
          `Soap is ${soapPct.toFixed(0)} % of the dry bar; it was taken that the soap still does the cleaning and that fillers do not change what it is.`,
        ]
      : [];
  if (cosmetic.length > 0) {
    return {
      regime: 'cosmetic',
      because: [`${cosmetic.join(', ')} promise more than cleaning`],
      assumed: [],
    };
  }
  if (soapPct < HALF_PCT) {
    return { regime: 'cosmetic', because: ['less than half of the dry bar is soap'], assumed: [] };
  }
  return { regime: 'soap', because: ['sold only as soap, and mostly soap'], assumed };
}

/** What the bar is in a market. */
export function standingIn(
  market: Market,
  claims: readonly ClaimFinding[],
  assessment: Assessment,
): Standing {
  const medicine = wordsOf(claims, market, 'medicine');
  if (medicine.length > 0) {
    return {
      market,
      regime: 'medicine',
      because: [`${medicine.join(', ')} speak of treating or of the body`],
      assumed: [],
    };
  }
  if (LABEL_MANNERS[market].keepsSoapApart)
    return { market, ...asSoap(market, claims, soapSharePct(assessment)) };
  return { market, regime: 'cosmetic', because: [], assumed: [] };
}
