/** What a change does to some bars, versions, batches and labels, away from requests. */
import { differs, effectOf, sidesOfLimits, standsOf, type Sides } from '../../core/change/effects';
import { findClaims } from '../../core/claims/read';
import { packEffects } from '../../core/change/packed';
import { judgeInBar, type BarOfLine } from '../../core/change/in-bar';
import { judgeSubstitutes, type Substitute } from '../../core/change/substitutes';
import { swapped } from '../../core/change/swap';
import { relistedBetween, touchedBetween } from '../../core/change/touched';
import type { Change, Effect, Subject } from '../../core/change/types';
import type { Formula } from '../../core/formula/types';
import { claimReader } from '../../rulebook/claims';
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
  /**
   * Where every row is told, changed or not, for it means more than its two assessments: of a lot that is doubted or
   * free again, or of a market a bar is new to. Null where rows speak for themselves.
   */
  view: 'doubted' | 'freed' | 'newMarket' | null;
  subjects: readonly ChangeSubject[];
}

/** What a chunk answers: its effects as the JSON text of a `PackedEffects`, and counts of rows. */
export interface ChunkFound {
  effectsText: string;
  touched: number;
  worse: number;
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

type Look = Omit<ChangeChunk, 'subjects'>;

/** How one subject stands on either side; markets where it stands as it stood may be left out. */
function sidesOf(
  { subject, formulaText }: ChangeSubject,
  { before, after, swap, view }: Look,
  { isTouched, isRelisted }: Differences,
): Sides[] {
  const formula = JSON.parse(formulaText) as Formula;
  const [a, b] = [storedOf(before.setting), storedOf(after.setting)];
  const holds = (test: (material: string) => boolean) => formula.lines.some(({ material }) => test(material));
  if (view === null && !swap) {
    if (!holds(isTouched)) return [];
    const found = holds(isRelisted) ? null : sidesOfLimits(subject, formula, [a, b], before.onDate);
    if (found) return found;
  }
  const next = swap ? swapped(subject, formula, swap, b, after.onDate) : formula;
  const was = standsOf(subject, formula, a, before.onDate);
  const is = standsOf(subject, next, b, after.onDate);
  return subject.markets.map((market, at) => ({ market, before: was[at]!, after: is[at]! }));
}

/** What a row means beyond its two assessments: new to a market, nobody sold it there; a doubted lot makes it worse. */
function inView(effect: Effect, view: ChangeChunk['view']): Effect {
  if (view === 'newMarket') return { ...effect, before: null, worse: false };
  return view === null ? effect : { ...effect, worse: view === 'doubted' };
}

/** The effects of a chunk and how many rows stayed as they were. */
export function effectsChunk({ subjects, ...look }: ChangeChunk): ChunkFound {
  const differences = differencesOf(look.before, look.after);
  const effects: Effect[] = [];
  let rows = 0;
  // A bar stands as its newest kept version does: the same formula, sold alike, is reckoned once.
  const known = new Map<string, Sides[]>();
  for (const one of subjects) {
    const { subject, formulaText } = one;
    const { markets, firstPlacedOn, placedOn, school } = subject;
    const key = JSON.stringify([markets, firstPlacedOn, placedOn]) + formulaText;
    const sides = known.get(key) ?? sidesOf(one, look, differences);
    known.set(key, sides);
    rows += markets.length;
    for (const { market, before, after } of sides)
      if (look.view !== null || differs(before, after, school))
        effects.push(inView(effectOf(subject, market, before, after), look.view));
  }
  return {
    effectsText: JSON.stringify(packEffects(effects)),
    touched: effects.length,
    worse: effects.filter(({ worse }) => worse).length,
    unchanged: rows - effects.length,
  };
}

/** What a text claims that a formula can be held against. */
const factsClaimed = (text: string) =>
  findClaims(text, claimReader()).flatMap(({ fact }) => (fact === null ? [] : [fact]));

/** What each candidate does to one bar on one of its lines. */
export function inBar({
  side: { setting, onDate },
  line,
  candidates,
  sold,
  formula,
  words,
}: Omit<BarOfLine, 'claimed'> & {
  side: ChangeSide;
  line: string;
  candidates: readonly string[];
  /** Everything the maker says of the bar. */
  words: string;
}): ReturnType<typeof judgeInBar> {
  const bar = { sold, formula, claimed: factsClaimed(words) };
  return judgeInBar(line, candidates, bar, storedOf(setting), onDate);
}

/** What each candidate does to the bars that hold a material. */
export function substitutes({
  side: { setting, onDate },
  from,
  candidates,
  subjects,
  words,
}: {
  side: ChangeSide;
  from: string;
  candidates: readonly string[];
  subjects: readonly ChangeSubject[];
  /** Everything the maker says of each bar, by its id. */
  words: Readonly<Record<string, string>>;
}): Substitute[] {
  const bars = subjects.map(({ subject, formulaText }) => ({
    subject,
    formula: JSON.parse(formulaText) as Formula,
    claimed: factsClaimed(words[subject.id] ?? ''),
  }));
  return judgeSubstitutes(from, candidates, bars, storedOf(setting), onDate);
}
