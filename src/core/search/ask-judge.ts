/** Whether a bar, a batch or a lot answers to what was asked: yes, no, or that it cannot be told and why. Pure. */
import { formulaFacts, takenApart, type Fact } from '../claims/facts';
import type { FactId } from '../claims/types';
import type { Verdict } from '../formula/answer';
import { isFatty } from '../formula/fats';
import type { Food, TraitMaterial } from '../formula/traits';
import type { Market } from '../formula/types';
import type { Filter, What } from './ask';

/** `open` says why it cannot be told. */
export type Answer = { is: 'yes' | 'no' } | { is: 'open'; why: string };

const YES: Answer = { is: 'yes' };
const NO: Answer = { is: 'no' };
const when = (holds: boolean): Answer => (holds ? YES : NO);

/** What is asked of a bar. */
export interface BarAsked {
  id: string;
  verdict: Verdict | null;
  markets: readonly { market: Market; verdict: Verdict }[];
  ready: number;
  /** Grams of each material in one pour; null where its formula does not reckon. */
  massG: Readonly<Record<string, number>> | null;
}

export type Find = (id: string) => TraitMaterial | undefined;

/** A bar's materials with their grams, mixes taken apart by their shares. */
function partsOf(massG: Readonly<Record<string, number>>, find: Find) {
  return Object.entries(massG).flatMap(([id, grams]) => {
    const material = find(id);
    if (!material) return [];
    const parts = material.madeOf ?? [];
    if (parts.length === 0) return [{ material, ids: [id], grams }];
    return parts.map((part) => ({
      material: find(part.material) ?? { ...material, kind: part.kind },
      ids: [part.material, id],
      grams: (grams * part.sharePct) / 100,
    }));
  });
}

const FREE_OF: Record<Exclude<Food, `may${string}`>, FactId> = {
  palm: 'palmFree',
  milk: 'milkFree',
  nut: 'nutFree',
  gluten: 'glutenFree',
};

function factsOf(massG: Readonly<Record<string, number>>, find: Find): Fact[] {
  const materials = Object.keys(massG).flatMap((id) => find(id) ?? []);
  return formulaFacts(takenApart(materials, find));
}

/** Whether a fact is so, from its standing. */
function ofFact(facts: readonly Fact[], id: FactId): Answer {
  const fact = facts.find((one) => one.id === id);
  if (!fact || fact.standing === 'open')
    return { is: 'open', why: fact?.because.join(', ') ?? 'nothing says it' };
  return when(fact.standing === 'holds');
}

const opposite = (answer: Answer): Answer => (answer.is === 'open' ? answer : when(answer.is === 'no'));

function holds(
  { what, bound }: Extract<Filter, { kind: 'holds' }>,
  massG: Readonly<Record<string, number>> | null,
  find: Find,
): Answer {
  if (massG === null) return { is: 'open', why: 'its formula does not reckon' };
  if (what.by === 'food' && what.food in FREE_OF && !bound)
    return opposite(ofFact(factsOf(massG, find), FREE_OF[what.food as keyof typeof FREE_OF]));
  const parts = partsOf(massG, find);
  const grams = parts.filter((part) => isOne(what, part)).reduce((sum, part) => sum + part.grams, 0);
  if (!bound) return when(grams > 0);
  const fatsG = parts.filter(({ material }) => isFatty(material)).reduce((sum, part) => sum + part.grams, 0);
  if (!(fatsG > 0)) return { is: 'open', why: 'it holds no fats that shares could be of' };
  const pct = (100 * grams) / fatsG;
  // Under so much of it still means some of it.
  return when(grams > 0 && (bound.relation === 'under' ? pct <= bound.pct : pct >= bound.pct));
}

function isOne(what: What, { material, ids }: { material: TraitMaterial; ids: readonly string[] }): boolean {
  if (what.by === 'material') return ids.includes(what.id);
  return what.by === 'kind' ? material.kind === what.kind : (material.foods ?? []).includes(what.food);
}

/** A bar against one filter; what speaks of batches or lots alone holds of no bar. */
export function barAnswers(filter: Filter, not: boolean, bar: BarAsked, find: Find): Answer {
  const turned = (answer: Answer) => (not ? opposite(answer) : answer);
  switch (filter.kind) {
    case 'holds':
      return turned(holds(filter, bar.massG, find));
    case 'stands': {
      if (filter.market === null)
        return bar.verdict === null
          ? { is: 'open', why: 'its formula does not reckon' }
          : turned(when(bar.verdict === filter.verdict));
      const stand = bar.markets.find(({ market }) => market === filter.market);
      // Where it is not sold it is neither.
      return stand ? turned(when(stand.verdict === filter.verdict)) : NO;
    }
    case 'soldIn':
      return turned(when(bar.markets.some(({ market }) => market === filter.market)));
    case 'fact':
      return bar.massG === null
        ? { is: 'open', why: 'its formula does not reckon' }
        : turned(ofFact(factsOf(bar.massG, find), filter.fact));
    case 'stock':
      return turned(when(filter.is === 'some' ? bar.ready > 0 : bar.ready === 0));
    case 'bar':
      return turned(when(bar.id === filter.id));
    default:
      return NO;
  }
}

/** What is asked of a batch. */
export interface BatchAsked {
  product: string;
  state: string;
  isHeld: boolean;
  left: number;
  /** The day it was poured; null before that. */
  day: string | null;
  lots: readonly string[];
}

const within = (day: string | null, { from, to }: { from: string | null; to: string | null }) =>
  day !== null && (from === null || day >= from) && (to === null || day <= to);

/** A batch against one filter; what speaks of its bar is held against that. */
export function batchAnswers(
  filter: Filter,
  not: boolean,
  batch: BatchAsked,
  bar: BarAsked | undefined,
  find: Find,
): Answer {
  const turned = (answer: Answer) => (not ? opposite(answer) : answer);
  switch (filter.kind) {
    case 'state':
      return turned(when(filter.state === 'quarantined' ? batch.isHeld : batch.state === filter.state));
    case 'days':
      return turned(when(within(batch.day, filter)));
    case 'lot':
      return turned(when(batch.lots.includes(filter.code)));
    case 'stock':
      return turned(when(filter.is === 'some' ? batch.left > 0 : batch.left === 0));
    case 'bar':
      return turned(when(batch.product === filter.id));
    default:
      return bar ? barAnswers(filter, not, bar, find) : NO;
  }
}

/** What is asked of a lot. */
export interface LotAsked {
  code: string;
  material: TraitMaterial | undefined;
  leftG: number;
  receivedOn: string;
}

/** A lot against one filter; what speaks of bars or batches alone holds of no lot. */
export function lotAnswers(filter: Filter, not: boolean, lot: LotAsked): Answer {
  const turned = (answer: Answer) => (not ? opposite(answer) : answer);
  switch (filter.kind) {
    case 'holds': {
      const { material } = lot;
      return turned(when(material !== undefined && isOne(filter.what, { material, ids: [material.id] })));
    }
    case 'stock':
      return turned(when(filter.is === 'some' ? lot.leftG > 0 : lot.leftG <= 0));
    case 'days':
      return turned(when(within(lot.receivedOn, filter)));
    case 'lot':
      return turned(when(lot.code === filter.code));
    default:
      return NO;
  }
}

/** All filters together: no where one says no, else open where one cannot be told, with why. */
export function together(answers: readonly Answer[]): Answer {
  if (answers.some(({ is }) => is === 'no')) return NO;
  return answers.find(({ is }) => is === 'open') ?? YES;
}
