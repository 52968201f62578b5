/** What a change does to some bars, versions, batches and labels, away from requests. */
import { differs, effectOf, standsOf } from '../core/change/effects';
import { judgeSubstitutes, type Substitute } from '../core/change/substitutes';
import { swapped } from '../core/change/swap';
import { touchedBetween } from '../core/change/touched';
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

type IsTouched = ReturnType<typeof touchedBetween>;
/** What differs between the two sides looked at last: every chunk of a look asks the same. */
let lastTouched: { key: string; isTouched: IsTouched } | null = null;

function touchedFrom(before: ChangeSide, after: ChangeSide): IsTouched {
  const key = [before, after].map(({ setting, onDate }) => `${setting.id} ${onDate}`).join(' | ');
  if (lastTouched?.key !== key) {
    const [a, b] = [before, after].map(({ setting, onDate }) => ({ stored: storedOf(setting), onDate }));
    lastTouched = { key, isTouched: touchedBetween(a!, b!) };
  }
  return lastTouched.isTouched;
}

/** The effects of a chunk and how many rows stayed as they were, as JSON text. */
export function effectsChunk({ before, after, swap, all, subjects }: ChangeChunk): string {
  const [a, b] = [
    { stored: storedOf(before.setting), onDate: before.onDate },
    { stored: storedOf(after.setting), onDate: after.onDate },
  ];
  const isTouched = touchedFrom(before, after);
  const effects: Effect[] = [];
  let unchanged = 0;
  for (const { subject, formulaText } of subjects) {
    const formula = JSON.parse(formulaText) as Formula;
    if (!all && !swap && !formula.lines.some(({ material }) => isTouched(material))) {
      unchanged += subject.markets.length;
      continue;
    }
    const next = swap ? swapped(subject, formula, swap, b.stored, b.onDate) : formula;
    const was = standsOf(subject, formula, a.stored, a.onDate);
    const is = standsOf(subject, next, b.stored, b.onDate);
    for (const [at, market] of subject.markets.entries()) {
      if (all || differs(was[at]!, is[at]!, subject.school))
        effects.push(effectOf(subject, market, was[at]!, is[at]!));
      else unchanged++;
    }
  }
  return JSON.stringify({ effects, unchanged });
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
