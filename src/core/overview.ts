/** What overviews show of a bar: its verdict where it is sold, what stands closest, and what it is in each market. */
import { assess } from './assess';
import { findClaims, type Pattern } from './claims/find';
import type { AssessedLimit, Verdict } from './formula/answer';
import { MARKETS, REQUEST_FORMAT, type Formula, type Market, type Stored } from './formula/types';
import { standingIn, type Regime } from './labels/standing';
import { effectOnProduct, worstVerdict } from './loads/limits';

export interface OverviewInput {
  formula: Formula;
  markets: readonly Market[];
  firstPlacedOn: Partial<Record<Market, string>>;
  onDate: string;
  /** Everything the maker says of the bar. */
  words: string;
}

export interface Overview {
  /** Null where the formula does not reckon; `fault` then says why. */
  verdict: Verdict | null;
  /** The limit that makes the verdict, or has the least room; null where there is none to draw against. */
  closest: AssessedLimit | null;
  fault: string | null;
  regimes: Partial<Record<Market, Regime>>;
  /** Share of a limit that the maker keeps free, 0 to 1. */
  margin: number;
}

/** The margin that counts where a formula states none, percent (assessment page). */
const USUAL_MARGIN_PCT = 10;

/** The overview of one bar. `patterns` are the phrases that claims are looked for by. */
export function overviewOf(input: OverviewInput, stored: Stored, patterns: readonly Pattern[]): Overview {
  const { formula, markets, firstPlacedOn, onDate, words } = input;
  const margin = (formula.marginPct ?? USUAL_MARGIN_PCT) / 100;
  const result = assess(
    { format: REQUEST_FORMAT, formula, markets: [...MARKETS], onDate, firstPlacedOn },
    stored,
  );
  if (!result.ok) {
    return { verdict: null, closest: null, fault: result.errors[0]!.message, regimes: {}, margin };
  }
  const { assessment } = result;
  const here = assessment.limits.filter(({ market }) => markets.includes(market));
  const verdict = worstVerdict(
    assessment.markets.filter(({ market }) => markets.includes(market)).map((entry) => entry.verdict),
  );
  const telling = here.find((row) => effectOnProduct(row.force, row.verdict) === verdict) ?? here[0] ?? null;
  const claims = findClaims(words, patterns);
  const regimes = Object.fromEntries(
    MARKETS.map((market) => [market, standingIn(market, claims, assessment).regime]),
  );
  return { verdict, closest: verdict === 'unproven' ? null : telling, fault: null, regimes, margin };
}
