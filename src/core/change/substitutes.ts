/** What could take the place of a material that is no longer made, ranked by what it does to every bar it stood in. Pure. */
import { formulaFacts, takenApart } from '../claims/facts';
import type { FactId } from '../claims/types';
import type { Verdict } from '../formula/answer';
import { VERDICTS } from '../formula/answer';
import type { Formula, Material, Stored } from '../formula/types';
import { isWorse, standsOf } from './effects';
import { swapped } from './swap';
import type { Stand, Subject } from './types';

export interface Substitute {
  id: string;
  /** The worst verdict over all bars and markets; null where some bar does not reckon with it. */
  worst: Verdict | null;
  /** Bars that would stand worse somewhere than they do now. */
  worse: number;
  /** Bars whose list, as added or as formed, would read otherwise. */
  relisted: number;
  /** Bars whose words claim what their formula would then contradict, and does not now; by what is claimed. */
  misclaimed: Partial<Record<FactId, number>>;
  /** For fats: how much of its acids are others, percent; null where either is not known. */
  otherAcidsPct: number | null;
}

export interface SubstituteBar {
  subject: Subject;
  formula: Formula;
  /** What its words claim that a formula can contradict. */
  claimed: readonly FactId[];
}

/** How much of the fatty acids of two fats differ, percent of the whole; null where either is not known. */
export function otherAcids(a: Material | undefined, b: Material | undefined): number | null {
  const [one, two] = [a?.fattyAcids, b?.fattyAcids];
  if (!one || !two) return null;
  const acids = new Set([...Object.keys(one), ...Object.keys(two)]) as ReadonlySet<keyof typeof one>;
  let apart = 0;
  for (const acid of acids) apart += Math.abs((one[acid] ?? 0) - (two[acid] ?? 0));
  return apart / 2;
}

const rank = (verdict: Verdict | null) => (verdict === null ? -1 : VERDICTS.indexOf(verdict));

function worstOf(stands: readonly (Stand | null)[]): Verdict | null {
  let worst: Verdict | null = 'clear';
  for (const stand of stands) if (rank(stand?.verdict ?? null) < rank(worst)) worst = stand?.verdict ?? null;
  return worst;
}

const isRelisted = (was: readonly (Stand | null)[], is: readonly (Stand | null)[]) =>
  was.some((stand, at) => stand?.listAdded !== is[at]?.listAdded || stand?.listFormed !== is[at]?.listFormed);

/** What of some claims a formula contradicts. */
export function contradicted(claimed: readonly FactId[], { lines }: Formula, stored: Stored): FactId[] {
  if (claimed.length === 0) return [];
  const used = lines.flatMap(({ material }) => stored.material(material) ?? []);
  return formulaFacts(takenApart(used, (id) => stored.material(id)))
    .filter(({ id, standing }) => standing === 'contradicted' && claimed.includes(id))
    .map(({ id }) => id);
}

function counted(facts: readonly FactId[]): Partial<Record<FactId, number>> {
  const counts: Partial<Record<FactId, number>> = {};
  for (const fact of facts) counts[fact] = (counts[fact] ?? 0) + 1;
  return counts;
}

/**
 * What each candidate, gram for gram, does to the bars that hold `from`.
 *
 * @example
 * rankSubstitutes(judgeSubstitutes('shea', ['cocoa-butter', 'mango-butter'], bars, snapshot, '2026-11-24'))[0];
 */
export function judgeSubstitutes(
  from: string,
  candidates: readonly string[],
  bars: readonly SubstituteBar[],
  stored: Stored,
  onDate: string,
): Substitute[] {
  const before = bars.map(({ subject, formula }) => standsOf(subject, formula, stored, onDate));
  const broken = bars.map(({ formula, claimed }) => contradicted(claimed, formula, stored));
  return candidates.map((to) => {
    const next = bars.map(({ subject, formula }) =>
      swapped(subject, formula, { from, to, by: 'mass' }, stored, onDate),
    );
    const after = bars.map(({ subject }, at) => standsOf(subject, next[at]!, stored, onDate));
    const isWorseBar = (at: number) =>
      before[at]!.some((stand, market) => isWorse(stand, after[at]![market]!));
    return {
      id: to,
      worst: worstOf(after.flat()),
      worse: bars.filter((_, at) => isWorseBar(at)).length,
      relisted: bars.filter((_, at) => isRelisted(before[at]!, after[at]!)).length,
      misclaimed: counted(
        bars.flatMap(({ claimed }, at) =>
          contradicted(claimed, next[at]!, stored).filter((fact) => !broken[at]!.includes(fact)),
        ),
      ),
      otherAcidsPct: otherAcids(stored.material(from), stored.material(to)),
    };
  });
}

/** What is known of a candidate besides what it does. */
export interface Priced {
  isOwn: boolean;
  /** Price of a gram over that of the material it replaces; null where either is not known. */
  priceRatio: number | null;
}

/** The better first: by verdict, bars that get worse, claims that no longer hold, likeness for fats, what is in the cupboard, price, then by id. */
export function rankSubstitutes<T extends Substitute & Priced>(all: readonly T[]): T[] {
  const near = ({ otherAcidsPct }: Substitute) => otherAcidsPct ?? 100;
  const price = ({ priceRatio }: Priced) => priceRatio ?? Infinity;
  const misclaims = ({ misclaimed }: Substitute) =>
    Object.values(misclaimed).reduce((sum, bars) => sum + bars, 0);
  const compare = (a: number, b: number) => (a === b ? 0 : a - b);
  return [...all].sort(
    (a, b) =>
      rank(b.worst) - rank(a.worst) ||
      a.worse - b.worse ||
      misclaims(a) - misclaims(b) ||
      near(a) - near(b) ||
      Number(b.isOwn) - Number(a.isOwn) ||
      compare(price(a), price(b)) ||
      a.relisted - b.relisted ||
      a.id.localeCompare(b.id),
  );
}
