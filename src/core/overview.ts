/** What overviews show of a bar: its verdict where it is sold, what stands closest, and what it is in each market. */
import { assess } from './assess';
import { findClaims, type ClaimReader } from './claims/read';
import type { AssessedLimit, Assessment, School, Verdict } from './formula/answer';
import { MARKETS, REQUEST_FORMAT, type Formula, type Market, type Stored } from './formula/types';
import { standingIn, type Regime } from './labels/standing';
import { standOf } from './change/effects';
import type { ClosestLimit, LabelState, MarketStand } from './records/range';
import { effectOnProduct, worstVerdict } from './loads/limits';
import { spoken } from './spoken';
import { ALKALI_MATERIAL } from './making/cost';
import { isScentBlend } from './formula/mix';

export interface OverviewInput {
  formula: Formula;
  markets: readonly Market[];
  firstPlacedOn: Partial<Record<Market, string>>;
  onDate: string;
  /** Everything the maker says of the bar. */
  words: string;
  /** The last label issued in each market: the school of its list, and all it says. */
  issued: readonly { market: Market; school: School; says: string }[];
}

export interface Overview {
  /** Null where the formula does not reckon; `fault` then says why. */
  verdict: Verdict | null;
  /** The limit that makes the verdict, or has the least room; null where there is none to draw against. */
  closest: ClosestLimit | null;
  fault: string | null;
  regimes: Partial<Record<Market, Regime>>;
  /** Share of a limit that the maker keeps free, 0 to 1. */
  margin: number;
  /** How it stands in each market it is sold in. */
  markets: MarketStand[];
  /** Names of the fragrances and essential oils in it. */
  scents: string[];
  label: LabelState;
  /** What one pour of the formula as it stands makes and wants; null where it does not reckon. */
  pour: { bars: number | null; massG: Record<string, number> } | null;
}

/** The margin that counts where a formula states none, percent (assessment page). */
const USUAL_MARGIN_PCT = 10;

function scentsOf({ lines }: Formula, stored: Stored): string[] {
  const names = lines.flatMap(({ material }) => {
    const found = stored.material(material);
    return found && isScentBlend(found) ? [found.name] : [];
  });
  return [...new Set(names)];
}

/** Whether the lists on issued labels still read as they would today. */
function labelOf({ issued }: OverviewInput, { ingredients }: Assessment): LabelState {
  if (issued.length === 0) return 'none';
  const isSame = issued.every(({ market, school, says }) => {
    const list = ingredients.find((one) => one.market === market && one.school === school);
    return list !== undefined && says.includes(list.text);
  });
  return isSame ? 'same' : 'differs';
}

/** What a limit speaks of, in words. */
function boundWords({ subject: { type, id } }: AssessedLimit, stored: Stored): string {
  return (type === 'material' ? stored.material(id)?.name : null) ?? spoken(id);
}

function marketsOf(
  { markets }: Pick<OverviewInput, 'markets'>,
  assessment: Assessment,
  stored: Stored,
): MarketStand[] {
  return markets.map((market) => {
    const { verdict, headroomPct, boundBy } = standOf(assessment, market);
    const limit = assessment.limits.find((one) => one.id === boundBy && one.market === market);
    return { market, verdict, headroomPct, boundBy: limit ? boundWords(limit, stored) : null };
  });
}

function withoutContributors({ contributors: _, ...limit }: AssessedLimit): ClosestLimit {
  return limit;
}

/** Grams of every material of a pour, the alkali with them. */
function massesOf({ lines }: Formula, assessment: Assessment): Record<string, number> {
  const massG: Record<string, number> = { [ALKALI_MATERIAL]: assessment.masses.alkaliG };
  for (const [at, { material }] of lines.entries())
    massG[material] = (massG[material] ?? 0) + assessment.lines[at]!.massG;
  return massG;
}

/**
 * The overview of one bar. `reader` is what claims are read by.
 *
 * @example
 * overviewOf({ ...bar, formula, onDate: '2026-11-24' }, snapshot, claimReader()); // what the range shows of a bar
 */
export function overviewOf(input: OverviewInput, stored: Stored, reader: ClaimReader): Overview {
  const { formula, markets, firstPlacedOn, onDate, words } = input;
  const margin = (formula.marginPct ?? USUAL_MARGIN_PCT) / 100;
  const result = assess(
    { format: REQUEST_FORMAT, formula, markets: [...MARKETS], onDate, firstPlacedOn },
    stored,
  );
  const scents = scentsOf(formula, stored);
  if (!result.ok) {
    const fault = result.errors[0]!.message;
    const label = input.issued.length > 0 ? ('differs' as const) : ('none' as const);
    return {
      verdict: null,
      closest: null,
      fault,
      regimes: {},
      margin,
      markets: [],
      scents,
      label,
      pour: null,
    };
  }
  const { assessment } = result;
  const here = assessment.limits.filter(({ market }) => markets.includes(market));
  const verdict = worstVerdict(
    assessment.markets.filter(({ market }) => markets.includes(market)).map((entry) => entry.verdict),
  );
  const telling = here.find((row) => effectOnProduct(row.force, row.verdict) === verdict) ?? here[0] ?? null;
  const claims = findClaims(words, reader);
  const regimes = Object.fromEntries(
    MARKETS.map((market) => [market, standingIn(market, claims, assessment).regime]),
  );
  return {
    verdict,
    closest: verdict === 'unproven' || !telling ? null : withoutContributors(telling),
    fault: null,
    regimes,
    margin,
    markets: marketsOf(input, assessment, stored),
    scents,
    label: labelOf(input, assessment),
    pour: {
      bars: formula.bars ? Math.max(1, Math.round(formula.bars)) : null,
      massG: massesOf(formula, assessment),
    },
  };
}
