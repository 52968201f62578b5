/** What another material in the place of one line does to one bar: verdict, lye, list, claims, fats. Pure. */
import { assess } from '../assess';
import type { FactId } from '../claims/types';
import { VERDICTS, type Assessment, type Verdict } from '../formula/answer';
import type { Formula, Line, Stored } from '../formula/types';
import { worstVerdict } from '../loads/limits';
import { unitRule } from '../quantities/units';
import { requestOf } from './effects';
import { contradicted, otherAcids } from './substitutes';
import type { Subject } from './types';

/** How a bar stands with one material on the line. */
export interface StandInBar {
  id: string;
  /** The worst where it is sold; null where the formula does not reckon with it. */
  verdict: Verdict | null;
  alkaliG: number | null;
  /** Names that come onto and go off the list of its first market, as added. */
  comes: string[];
  goes: string[];
  /** What its words claim and the formula then contradicts, and does not now. */
  misclaimed: FactId[];
  /** For fats: how much of its acids are others than of what stands there, percent; null where either is not known. */
  otherAcidsPct: number | null;
}

/** A bar as it is judged: where it is sold, its formula, and what its words claim that a formula can contradict. */
export interface BarOfLine {
  sold: Pick<Subject, 'markets' | 'firstPlacedOn'>;
  formula: Formula;
  claimed: readonly FactId[];
}

/** Amounts in a formula are kept to so many decimals. */
const DECIMALS = 4;

/** The line with another material: amount, stage and portion stay; what was in spoons becomes the grams that they were. */
export function onLine(formula: Formula, id: string, to: string, massG: number | null): Formula {
  const changed = (line: Line): Line => {
    if (line.id !== id) return line;
    const isByVolume = unitRule(line.amount.unit)?.byVolume === true && massG !== null;
    const amount = isByVolume ? { value: Number(massG.toFixed(DECIMALS)), unit: 'g' as const } : line.amount;
    return { ...line, material: to, amount, ...(isByVolume ? { measuredBy: 'scale' as const } : {}) };
  };
  return { ...formula, lines: formula.lines.map(changed) };
}

const namesIn = ({ ingredients }: Assessment) =>
  new Set((ingredients.find(({ school }) => school === 'added')?.items ?? []).map(({ name }) => name));

/**
 * How the bar stands now and with each candidate on the line `id`. A bar that does not reckon now has no masses to go by.
 *
 * @example
 * judgeInBar('l3', ['mango-butter'], bar, snapshot, '2026-11-24').candidates[0]!.alkaliG;
 */
export function judgeInBar(
  id: string,
  candidates: readonly string[],
  { sold, formula, claimed }: BarOfLine,
  stored: Stored,
  onDate: string,
): { now: StandInBar; massG: number; candidates: StandInBar[] } {
  const from = formula.lines.find((line) => line.id === id)!.material;
  const assessed = (one: Formula) => {
    const result = assess(requestOf(sold, one, onDate), stored);
    return result.ok ? result.assessment : null;
  };
  const before = assessed(formula);
  const massG = before?.lines.find((line) => line.id === id)?.massG ?? 0;
  const broken = contradicted(claimed, formula, stored);
  const had = before ? namesIn(before) : new Set<string>();
  const stand = (material: string): StandInBar => {
    const next = material === from ? formula : onLine(formula, id, material, massG);
    const after = material === from ? before : assessed(next);
    const has = after ? namesIn(after) : had;
    return {
      id: material,
      verdict: after && worstVerdict(after.markets.map(({ verdict }) => verdict)),
      alkaliG: after?.masses.alkaliG ?? null,
      comes: [...has].filter((name) => !had.has(name)),
      goes: [...had].filter((name) => !has.has(name)),
      misclaimed: contradicted(claimed, next, stored).filter((fact) => !broken.includes(fact)),
      otherAcidsPct: otherAcids(stored.material(from), stored.material(material)),
    };
  };
  return { now: stand(from), massG, candidates: candidates.map(stand) };
}

/** What is known of a candidate besides what it does. */
export interface InCupboard {
  isOwn: boolean;
  /** What a pour costs more with it, money; null where a price is not known. */
  costMore: number | null;
  /** Grams that nothing speaks against. */
  freeG: number;
}

/** The better first: by verdict, claims that no longer hold, likeness for fats, enough in the cupboard, cost, names, id. */
export function rankInBar<T extends StandInBar & InCupboard>(all: readonly T[], neededG: number): T[] {
  const rank = ({ verdict }: T) => (verdict === null ? -1 : VERDICTS.indexOf(verdict));
  const near = ({ otherAcidsPct }: T) => otherAcidsPct ?? 100;
  const stock = ({ isOwn, freeG }: T) => (freeG >= neededG ? 0 : isOwn ? 1 : 2);
  const cost = ({ costMore }: T) => costMore ?? Number.MAX_VALUE;
  return [...all].sort(
    (a, b) =>
      rank(b) - rank(a) ||
      a.misclaimed.length - b.misclaimed.length ||
      stock(a) - stock(b) ||
      near(a) - near(b) ||
      cost(a) - cost(b) ||
      a.comes.length + a.goes.length - (b.comes.length + b.goes.length) ||
      a.id.localeCompare(b.id),
  );
}
