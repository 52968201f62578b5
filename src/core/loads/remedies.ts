/**
 * Make it fit: the smallest changes that bring a bar back within its limits, each tried by assessing the
 * changed formula, so that what a remedy promises is what applying it gives.
 */
import type { Assessment, Verdict } from '../formula/answer';
import type { AssessmentRequest, Formula, Line, Material, Stored } from '../formula/types';
import { verdictsOf, type Verdicts } from '../assess';
import { binds, compareVerdicts } from './limits';
import { measureOf } from './plan';

/** Judges a formula in the setting of the bar; null where it does not reckon. */
type Try = (formula: Formula) => Verdicts | null;

export type Remedy = {
  /** The verdict once applied. */
  verdict: Verdict;
  /** The formula once applied; null where there is nothing to apply but something to do. */
  formula: Formula | null;
  lines: string[];
} & (
  | { kind: 'less'; from: Line['amount']; to: Line['amount'] }
  | { kind: 'proportion'; factor: number }
  | { kind: 'weigh' }
  | { kind: 'lessDry'; fromPct: number; toPct: number }
  | { kind: 'swap'; material: string; name: string }
  | { kind: 'askCertificate' }
);

/** Above this a bar is not cured but wet, percent of water left. */
const WETTEST_PCT = 15;
const SEARCH_STEPS = 30;
const MOST_SWAPS = 3;
/** Amounts and factors are rounded down to so many parts of one. */
const ROUNDING = 1000;

function failing(assessment: Pick<Verdicts, 'limits'>) {
  return assessment.limits.filter(
    ({ force, verdict }) => binds(force) && (verdict === 'over' || verdict === 'atRisk'),
  );
}

/** How far the worst failing limit is past its maximum, at the high end; at most 1 once all fit. */
function worstRatio(assessment: Pick<Verdicts, 'limits'>): number {
  return Math.max(
    0,
    ...failing(assessment).map(({ highPct, maxPct }) => (maxPct > 0 ? highPct / maxPct : Infinity)),
  );
}

function withLines(formula: Formula, ids: readonly string[], change: (line: Line) => Line): Formula {
  return { ...formula, lines: formula.lines.map((line) => (ids.includes(line.id) ? change(line) : line)) };
}

function roundedDown(value: number): number {
  return Math.floor(value * ROUNDING) / ROUNDING;
}

function lessOfOne(formula: Formula, assessment: Assessment, tryOut: Try): Remedy[] {
  const ids = new Set(
    failing(assessment).flatMap(({ contributors }) => contributors.map(({ line }) => line)),
  );
  return formula.lines.flatMap((line): Remedy[] => {
    const largest = assessment.lines.find(({ id }) => id === line.id)?.maxInUnit;
    if (!ids.has(line.id) || !largest || largest.value >= line.amount.value) return [];
    const to = { ...line.amount, value: roundedDown(largest.value) };
    if (to.value <= 0) return [];
    const changed = withLines(formula, [line.id], (entry) => ({ ...entry, amount: to }));
    const after = tryOut(changed);
    if (!after || worstRatio(after) >= worstRatio(assessment)) return [];
    return [
      { kind: 'less', verdict: after.verdict, formula: changed, lines: [line.id], from: line.amount, to },
    ];
  });
}

/** The largest value from 0 to 1 that fits, found by halving; null where not even next to nothing does. */
function largestThatFits(fits: (value: number) => boolean): number | null {
  let low = 0;
  let high = 1;
  for (let i = 0; i < SEARCH_STEPS; i++) {
    const middle = (low + high) / 2;
    if (fits(middle)) low = middle;
    else high = middle;
  }
  const rounded = roundedDown(low);
  return rounded > 0 && fits(rounded) ? rounded : null;
}

function lessInProportion(formula: Formula, assessment: Assessment, tryOut: Try): Remedy[] {
  const groups = new Map<string, string[]>();
  for (const { contributors } of failing(assessment)) {
    const ids = contributors.map(({ line }) => line).sort();
    if (ids.length > 1) groups.set(ids.join(' '), ids);
  }
  return [...groups.values()].flatMap((ids): Remedy[] => {
    const scaled = (factor: number) =>
      withLines(formula, ids, (line) => ({
        ...line,
        amount: { ...line.amount, value: line.amount.value * factor },
      }));
    const factor = largestThatFits((value) => {
      const after = tryOut(scaled(value));
      return (
        after !== null &&
        failing(after).every((limit) => !limit.contributors.some(({ line }) => ids.includes(line)))
      );
    });
    if (factor === null) return [];
    const changed = scaled(factor);
    return [{ kind: 'proportion', verdict: tryOut(changed)!.verdict, formula: changed, lines: ids, factor }];
  });
}

function weighInstead(formula: Formula, assessment: Assessment, tryOut: Try): Remedy[] {
  const feeding = new Set(
    failing(assessment).flatMap(({ contributors }) => contributors.map(({ line }) => line)),
  );
  const lines = formula.lines
    .filter((line) => feeding.has(line.id) && measureOf(line) !== 'scale')
    .map(({ id }) => id);
  if (lines.length === 0) return [];
  const changed = withLines(formula, lines, (line) => ({
    ...line,
    measuredBy: 'scale',
    uncertaintyPct: null,
    doubtPct: null,
  }));
  const after = tryOut(changed);
  if (!after || worstRatio(after) >= worstRatio(assessment)) return [];
  return [{ kind: 'weigh', verdict: after.verdict, formula: changed, lines }];
}

function dryLess(formula: Formula, assessment: Assessment, tryOut: Try): Remedy[] {
  const fromPct = formula.cure?.residualWaterPct;
  if (fromPct == null || fromPct >= WETTEST_PCT || failing(assessment).length === 0) return [];
  const wetter = (toPct: number): Formula => ({ ...formula, cure: { residualWaterPct: toPct } });
  for (let toPct = Math.floor(fromPct) + 1; toPct <= WETTEST_PCT; toPct++) {
    const after = tryOut(wetter(toPct));
    if (after && failing(after).length === 0) {
      return [{ kind: 'lessDry', verdict: after.verdict, formula: wetter(toPct), lines: [], fromPct, toPct }];
    }
  }
  return [];
}

function swapFor(
  formula: Formula,
  assessment: Assessment,
  tryOut: Try,
  cupboard: readonly Material[],
): Remedy[] {
  const troubled = new Set([
    ...assessment.unproven.map(({ line }) => line),
    ...failing(assessment).flatMap(({ contributors }) => contributors.slice(0, 1).map(({ line }) => line)),
  ]);
  const used = new Set(formula.lines.map(({ material }) => material));
  const kindOf = new Map(cupboard.map((material) => [material.id, material.kind]));
  const found: Remedy[] = [];
  for (const line of formula.lines.filter(({ id }) => troubled.has(id))) {
    const kind = kindOf.get(line.material);
    for (const candidate of cupboard) {
      if (candidate.kind !== kind || used.has(candidate.id)) continue;
      const changed = withLines(formula, [line.id], (entry) => ({ ...entry, material: candidate.id }));
      const after = tryOut(changed);
      if (!after || compareVerdicts(after.verdict, 'tight') < 0) continue;
      const { id: material, name } = candidate;
      found.push({
        kind: 'swap',
        verdict: after.verdict,
        formula: changed,
        lines: [line.id],
        material,
        name,
      });
    }
  }
  return found.sort((a, b) => compareVerdicts(b.verdict, a.verdict)).slice(0, MOST_SWAPS);
}

function askForPaper(assessment: Assessment): Remedy[] {
  const lines = [...new Set(assessment.unproven.map(({ line }) => line))];
  return lines.map((line) => ({
    kind: 'askCertificate',
    verdict: assessment.verdict,
    formula: null,
    lines: [line],
  }));
}

/**
 * The remedies for a bar that is over, at risk or unproven; none for others. A paper that is missing is asked for
 * before anything is changed; then come those that clear the most.
 * `cupboard` holds what may take the place of a material of the same kind.
 *
 * @example
 * findRemedies(request, assessment, snapshot, cupboard)[0]?.formula; // the bar after the best of them
 */
export function findRemedies(
  request: AssessmentRequest,
  assessment: Assessment,
  stored: Stored,
  cupboard: readonly Material[],
): Remedy[] {
  if (compareVerdicts(assessment.verdict, 'tight') >= 0) return [];
  const { formula } = request;
  const byId = new Map(cupboard.map((material) => [material.id, material]));
  const sent = new Map((request.materials ?? []).map((material) => [material.id, material]));
  const store: Stored = { ...stored, material: (id) => stored.material(id) ?? byId.get(id) };
  const tryOut: Try = (changed) => verdictsOf({ ...request, formula: changed }, store);
  const all = [...sent.values(), ...cupboard.filter(({ id }) => !sent.has(id))];
  const ways = [
    ...weighInstead(formula, assessment, tryOut),
    ...lessOfOne(formula, assessment, tryOut),
    ...lessInProportion(formula, assessment, tryOut),
    ...dryLess(formula, assessment, tryOut),
    ...swapFor(formula, assessment, tryOut, all),
  ].sort((a, b) => compareVerdicts(b.verdict, a.verdict));
  return [...askForPaper(assessment), ...ways];
}
