/** What a change does to some bars, versions, batches and labels, away from requests. */
import { differs, effectOf, effectsOfLimits, standsOf } from '../core/change/effects';
import { packEffects, type PackedEffects } from '../core/change/packed';
import { judgeSubstitutes, type Substitute } from '../core/change/substitutes';
import { swapped } from '../core/change/swap';
import { relistedBetween, touchedBetween } from '../core/change/touched';
import type { Change, Effect, Subject } from '../core/change/types';
import type { Formula } from '../core/formula/types';
import { storedOf, type SharedSetting } from './reckon-jobs';

export interface ChangeSide {
  setting: SharedSetting;
  onDate: string;
}

/** A subject with the JSON text of its formula. */
export interface ChangeSubject {
  subject: Subject;
  formulaText: string;
}

export interface ChangeChunk {
  before: ChangeSide;
  after: ChangeSide;
  /** Only of a swap: what takes the place of what. */
  swap: Extract<Change, { kind: 'swap' }> | null;
  /** Whether every row is told, changed or not; of a lot, whose rows do not differ in what they say. */
  all: boolean;
  subjects: readonly ChangeSubject[];
}

/** What a chunk answers, as JSON text. */
export interface ChunkFound {
  effects: PackedEffects;
  unchanged: number;
}

interface Differences {
  isTouched: (material: string) => boolean;
  isRelisted: (material: string) => boolean;
}

/** What differs between the two sides looked at last: every chunk of a look asks the same. */
let last: ({ key: string } & Differences) | null = null;

function differencesOf(before: ChangeSide, after: ChangeSide): Differences {
  const key = [before, after].map(({ setting, onDate }) => `${setting.id} ${onDate}`).join(' | ');
  if (last?.key !== key) {
    const [a, b] = [before, after].map(({ setting, onDate }) => ({ stored: storedOf(setting), onDate }));
    last = { key, isTouched: touchedBetween(a!, b!), isRelisted: relistedBetween(a!, b!) };
  }
  return last;
}

/** The effects on one subject. */
function effectsOn(
  { subject, formulaText }: ChangeSubject,
  { before, after, swap, all }: Omit<ChangeChunk, 'subjects'>,
  { isTouched, isRelisted }: Differences,
): Effect[] {
  const formula = JSON.parse(formulaText) as Formula;
  const [a, b] = [storedOf(before.setting), storedOf(after.setting)];
  const holds = (test: (material: string) => boolean) => formula.lines.some(({ material }) => test(material));
  if (!all && !swap) {
    if (!holds(isTouched)) return [];
    const found = holds(isRelisted) ? null : effectsOfLimits(subject, formula, [a, b], before.onDate);
    if (found) return found;
  }
  const next = swap ? swapped(subject, formula, swap, b, after.onDate) : formula;
  const was = standsOf(subject, formula, a, before.onDate);
  const is = standsOf(subject, next, b, after.onDate);
  return subject.markets.flatMap((market, at) =>
    all || differs(was[at]!, is[at]!, subject.school) ? [effectOf(subject, market, was[at]!, is[at]!)] : [],
  );
}

/** The effects of a chunk and how many rows stayed as they were, as JSON text. */
export function effectsChunk({ subjects, ...chunk }: ChangeChunk): string {
  const differences = differencesOf(chunk.before, chunk.after);
  const effects: Effect[] = [];
  let unchanged = 0;
  for (const one of subjects) {
    const found = effectsOn(one, chunk, differences);
    for (const effect of found) effects.push(effect);
    unchanged += one.subject.markets.length - found.length;
  }
  return JSON.stringify({ effects: packEffects(effects), unchanged } satisfies ChunkFound);
}

/** What each candidate does to the bars that hold a material. */
export function substitutes({
  side: { setting, onDate },
  from,
  candidates,
  subjects,
}: {
  side: ChangeSide;
  from: string;
  candidates: readonly string[];
  subjects: readonly ChangeSubject[];
}): Substitute[] {
  const bars = subjects.map(({ subject, formulaText }) => ({
    subject,
    formula: JSON.parse(formulaText) as Formula,
  }));
  return judgeSubstitutes(from, candidates, bars, storedOf(setting), onDate);
}
