/** Verdicts: every limit in force held against the whole batch and each portion; the worst counts. */
import type { AssessedLimit, Verdict } from '../formula/answer';
import { VERDICTS } from '../formula/answer';
import type { Force, Limit, Market } from '../formula/types';
import type { LimitInForce } from './ground';
import type { Plan } from './plan';
import {
  concentration,
  partInSection,
  WHOLE,
  type Concentration,
  type Section,
  type SubjectEntries,
  type Subjects,
} from './sections';

/** Two masses or percents within this relative distance count as equal (assessment page, step 10). */
const RELATIVE_TOLERANCE = 1e-9;

/** Places among `VERDICTS`, written out: an object made from entries is asked slower, and this is asked for every row. */
const RANK: Record<Verdict, number> = { over: 0, unproven: 1, atRisk: 2, tight: 3, clear: 4 };

/** Orders verdicts from worst to best, for sorting. */
export function compareVerdicts(a: Verdict, b: Verdict): number {
  return RANK[a] - RANK[b];
}

/** The worse of two verdicts. */
export function worseVerdict(a: Verdict, b: Verdict): Verdict {
  return RANK[a] < RANK[b] ? a : b;
}

/** The worst of some verdicts; `clear` when there are none. */
export function worstVerdict(verdicts: Iterable<Verdict>): Verdict {
  let worst: Verdict = 'clear';
  for (const verdict of verdicts) worst = worseVerdict(worst, verdict);
  return worst;
}

function above(value: number, limit: number): boolean {
  return value > limit + RELATIVE_TOLERANCE * Math.abs(limit);
}

/** The verdict on a concentration against a maximum, both percent; `margin` is the share kept free (0 to 1). */
export function judge(found: Concentration, maxPct: number, margin: number): Verdict {
  if (above(found.nominalPct, maxPct)) return 'over';
  if (above(found.highPct, maxPct)) return 'atRisk';
  return above(found.highPct, (1 - margin) * maxPct) ? 'tight' : 'clear';
}

/** Percent of the limit that is left at the high end; null where the limit is zero or beyond any ratio. */
export function headroom(highPct: number, maxPct: number): number | null {
  const left = 100 * (1 - highPct / maxPct);
  return Number.isFinite(left) ? left : null;
}

/**
 * Craft limits are advice: they never make a product worse than tight.
 *
 * @example binds('craft') // false
 */
export function binds(force: Force): boolean {
  return force !== 'craft';
}

/**
 * What a limit's own verdict does to the product's.
 *
 * @example effectOnProduct('craft', 'over') // 'tight'
 */
export function effectOnProduct(force: Force, verdict: Verdict): Verdict {
  return binds(force) || verdict === 'clear' ? verdict : 'tight';
}

/** A limit's worst section and what was found there. */
export interface Finding {
  k: number;
  rule: LimitInForce;
  section: number;
  found: Concentration;
  verdict: Verdict;
}

/** Holds one limit of subject k against every section and keeps the worst. */
function findWorst(plan: Plan, all: readonly Section[], k: number, rule: LimitInForce): Finding {
  const { basis, maxPct } = rule.limit;
  let section = WHOLE;
  let found = concentration(all[WHOLE]!, k, basis);
  let verdict = judge(found, maxPct, plan.margin);
  for (let other = 1; other < all.length; other++) {
    const here = concentration(all[other]!, k, basis);
    const itsVerdict = judge(here, maxPct, plan.margin);
    const worse = RANK[itsVerdict] - RANK[verdict];
    if (worse > 0 || (worse === 0 && !above(here.highPct, found.highPct))) continue;
    section = other;
    found = here;
    verdict = itsVerdict;
  }
  return { k, rule, section, found, verdict };
}

/** The finding of every limit in force whose subject the formula holds. */
export function findAll(plan: Plan, subjects: Subjects, all: readonly Section[]): Finding[] {
  const findings: Finding[] = [];
  for (let k = 0; k < subjects.count; k++) {
    if (!subjects.isCarried[k]) continue;
    for (const rule of subjects.limits[k]!) findings.push(findWorst(plan, all, k, rule));
  }
  return findings;
}

/** Share of the subject's mass that each line brings, percent; lines that bring nothing are left out. */
function contributors(
  plan: Plan,
  subjects: Subjects,
  entries: readonly number[],
  masses: readonly number[],
  finding: Finding,
) {
  const brought: { line: string; sharePct: number }[] = [];
  let total = 0;
  for (const e of entries) {
    const i = subjects.line[e]!;
    const mass = masses[i]! * partInSection(plan, finding.section, i) * subjects.typical[e]!;
    if (mass <= 0) continue;
    total += mass;
    brought.push({ line: plan.lines[i]!.id, sharePct: mass });
  }
  for (const entry of brought) entry.sharePct = 100 * (entry.sharePct / total);
  return brought.sort((a, b) => b.sharePct - a.sharePct);
}

function row(
  { rule, section, found, verdict }: Finding,
  market: Market,
  plan: Plan,
  headroomPct: number | null,
  shares: AssessedLimit['contributors'],
): AssessedLimit {
  const { id, subject, force, basis, maxPct, source }: Limit = rule.limit;
  return {
    id,
    subject,
    market,
    force,
    basis,
    maxPct,
    lowPct: found.lowPct,
    nominalPct: found.nominalPct,
    highPct: found.highPct,
    headroomPct,
    verdict,
    portion: section === WHOLE ? null : plan.portions[section - 1]!.id,
    contributors: shares,
    source: source ?? null,
  };
}

/** A finding with what its rows are ordered by: binding before advice, worst before best, least headroom first. */
interface Ranked {
  finding: Finding;
  rank: number;
  headroomPct: number | null;
}

function ranked(findings: readonly Finding[]): Ranked[] {
  const found = findings.map((finding): Ranked => {
    const { force, maxPct } = finding.rule.limit;
    const rank = RANK[finding.verdict] + (binds(force) ? 0 : VERDICTS.length);
    return { finding, rank, headroomPct: headroom(finding.found.highPct, maxPct) };
  });
  return found.sort(
    (a, b) => a.rank - b.rank || (a.headroomPct ?? -Infinity) - (b.headroomPct ?? -Infinity) || 0,
  );
}

/**
 * The answer's rows, one for each limit and market: binding ones first, worst first; craft advice last. What speaks
 * only of scents without a limit of their own is left out where every line that brings the subject has one.
 */
export function limitRows(
  plan: Plan,
  subjects: Subjects,
  entries: SubjectEntries,
  masses: readonly number[],
  findings: readonly Finding[],
  unproven: readonly { line: string; market: Market }[],
): AssessedLimit[] {
  const rows: AssessedLimit[] = [];
  for (const { finding, headroomPct } of ranked(findings)) {
    const { limit, markets } = finding.rule;
    const shares = contributors(plan, subjects, entries[finding.k]!, masses, finding);
    const speaks = (market: Market) =>
      !limit.onlyUnproven ||
      unproven.some((pair) => pair.market === market && shares.some(({ line }) => line === pair.line));
    for (const market of markets)
      if (speaks(market)) rows.push(row(finding, market, plan, headroomPct, shares));
  }
  return rows;
}

/**
 * Fragrance, essential oil and isolate lines for which no binding limit on that very material is in force in
 * a market, as indexes of line and market. A line of no mass proves nothing and is left out. A mix wants a
 * limit on itself or on every scent in it.
 */
export function unprovenPairs(
  plan: Plan,
  subjects: Subjects,
  masses: readonly number[],
  marketCount: number,
): { line: number; market: number }[] {
  const pairs: { line: number; market: number }[] = [];
  const isProven = (k: number, market: number) =>
    k !== -1 &&
    subjects.limits[k]!.some(
      ({ limit, marketIndexes }) => binds(limit.force) && marketIndexes.includes(market),
    );
  for (let line = 0; line < plan.count; line++) {
    const scents = subjects.ofScents[line]!;
    if (scents.length === 0 || !(masses[line]! > 0)) continue;
    for (let market = 0; market < marketCount; market++) {
      const proven = isProven(subjects.ofMaterial[line]!, market) || scents.every((k) => isProven(k, market));
      if (!proven) pairs.push({ line, market });
    }
  }
  return pairs;
}

/** How a formula stands in a market, without the account of every limit. */
export interface MarketStand {
  market: Market;
  verdict: Verdict;
  /** Least headroom over the binding limits, percent; null where none is in force or the limit is zero. */
  headroomPct: number | null;
  /** The limit with the least headroom; of several, the one whose row an assessment shows first. */
  limit: string | null;
}

/** How a market stands while its limits are looked through: ranks of the worst effect and of the limit that binds. */
interface Standing extends Omit<MarketStand, 'verdict'> {
  worst: number;
  bound: number;
}

/** Holds one limit's verdict and headroom against what is known of a market so far. */
function holdAgainst(
  stand: Standing,
  limit: string,
  rank: number,
  effect: number,
  left: number | null,
): void {
  stand.worst = Math.min(stand.worst, effect);
  if (left === null) return;
  const isLess = stand.headroomPct === null || left < stand.headroomPct;
  if (!isLess && !(left === stand.headroomPct && rank < stand.bound)) return;
  stand.headroomPct = left;
  stand.limit = limit;
  stand.bound = rank;
}

/** Whether a line brings some of subject k in a section. */
function brings(
  plan: Plan,
  subjects: Subjects,
  masses: readonly number[],
  { k, section }: Finding,
  line: number,
) {
  const massG = masses[line]! * partInSection(plan, section, line);
  for (let e = subjects.firstOf[line]!; e < subjects.firstOf[line + 1]!; e++)
    if (subjects.subject[e] === k && massG * subjects.typical[e]! > 0) return true;
  return false;
}

/**
 * Verdict, least headroom and what binds in each market, as the rows of an assessment would tell them.
 *
 * @example
 * marketStands(plan, subjects, all, massG, ['EU']); // [{ market: 'EU', verdict: 'tight', … }]
 */
export function marketStands(
  plan: Plan,
  subjects: Subjects,
  all: readonly Section[],
  masses: readonly number[],
  markets: readonly Market[],
): MarketStand[] {
  const stands: Standing[] = [];
  for (const market of markets)
    stands.push({ market, worst: RANK.clear, bound: 0, headroomPct: null, limit: null });
  const unproven = unprovenPairs(plan, subjects, masses, markets.length);
  for (let k = 0; k < subjects.count; k++) {
    if (!subjects.isCarried[k]) continue;
    for (const rule of subjects.limits[k]!) {
      const { force, maxPct, onlyUnproven, id } = rule.limit;
      // Where such advice speaks at all, the product is unproven, which weighs more.
      if (onlyUnproven && !binds(force)) continue;
      const finding = findWorst(plan, all, k, rule);
      const left = binds(force) ? headroom(finding.found.highPct, maxPct) : null;
      const rank = RANK[finding.verdict];
      const effect = RANK[effectOnProduct(force, finding.verdict)];
      for (const index of rule.marketIndexes) {
        const speaks =
          !onlyUnproven ||
          unproven.some(
            ({ market, line }) => market === index && brings(plan, subjects, masses, finding, line),
          );
        if (speaks) holdAgainst(stands[index]!, id, rank, effect, left);
      }
    }
  }
  for (const { market } of unproven) stands[market]!.worst = Math.min(stands[market]!.worst, RANK.unproven);
  return stands.map(({ market, worst, headroomPct, limit }) => ({
    market,
    verdict: VERDICTS[worst]!,
    headroomPct,
    limit,
  }));
}
