/**
 * Which few swaps of scents take most names off the labels of a whole range: every scent of the bars in the place of which
 * another could stand, gram for gram, wherever it stands, also within blends. Sets of swaps are grown one by one from the
 * best found so far; what they do is reckoned, bar by bar, as an assessment would tell it. Pure.
 */
import { assess, outlineOf, type Outline } from '../assess';
import { requestOf, standOf, type Sold } from '../change/effects';
import { swapped } from '../change/swap';
import { VERDICTS } from '../formula/answer';
import { isScentBlend, mixMaterial } from '../formula/mix';
import type { Formula, Material, Stored } from '../formula/types';

export interface RangeBar {
  id: string;
  sold: Sold;
  formula: Formula;
}

export interface ScentSwap {
  from: string;
  to: string;
}

/** What a set of swaps does; bars by their ids, names by those of the constituents. */
export interface RangePoint {
  swaps: ScentSwap[];
  /** Names left on all labels. */
  names: number;
  off: { bar: string; names: string[] }[];
  on: { bar: string; names: string[] }[];
  /** How much of the scent of each bar would be another, percent of it by weight. */
  moved: { bar: string; pct: number }[];
}

export interface FewSwaps {
  /** Names on all labels as they are: of each bar each name once, in however many markets it is asked for. */
  names: number;
  /** The best found with one swap, two and so on; none where more swaps take off no more. */
  points: RangePoint[];
  /** Candidates of which nothing is known that they hold, and which are never proposed. */
  unknown: string[];
  /** Whether it was ended before all was tried. */
  isCutShort: boolean;
}

/** Shares that are so near are the same. */
const ROUNDING_PCT = 1e-6;

/** Sets that are grown further at each step. */
const KEPT = 48;

/** How a bar stands with some swaps made; null where it does not reckon. */
interface Standing {
  /** Names by the ids of their constituents. */
  names: ReadonlyMap<string, string>;
  /** By how much names are over what leaves them unsaid, in powers of e, summed: less is nearer to one name fewer. */
  over: number;
  /** By market: the verdict's place among all, and the room under the closest limit, percent. */
  stands: readonly { rank: number; roomPct: number }[];
  unproven: number;
}

function standingIn(outline: Outline): Standing {
  const { declarables, markets, unproven } = outline;
  const named = declarables.filter(({ declare }) => declare);
  return {
    names: new Map(named.map(({ id, name }) => [id, name])),
    over: named.reduce(
      (sum, { highPct, thresholdPct }) => sum + Math.log(highPct / Math.max(1e-6, thresholdPct)),
      0,
    ),
    stands: markets.map(({ market }) => {
      const { verdict, headroomPct } = standOf(outline, market);
      return { rank: VERDICTS.indexOf(verdict), roomPct: headroomPct ?? Infinity };
    }),
    unproven: unproven.length,
  };
}

const CLEAR = VERDICTS.indexOf('clear');

/** No verdict is worse, nothing is unproven that was not, and where a bar is not clear it is no further from it. */
const isNoWorse = (was: Standing, is: Standing) =>
  is.unproven <= was.unproven &&
  is.stands.every(({ rank, roomPct }, market) => {
    const before = was.stands[market]!;
    return rank > before.rank || (rank === before.rank && (rank === CLEAR || roomPct >= before.roomPct));
  });

/** How much of a formula's scent each of its scents is, those within blends as well, percent by weight. */
function scentsOf({ sold, formula }: RangeBar, stored: Stored, onDate: string): Map<string, number> {
  const result = assess(requestOf(sold, formula, onDate), stored);
  const masses = new Map<string, number>();
  const add = (id: string, massG: number) => masses.set(id, (masses.get(id) ?? 0) + massG);
  for (const { id, massG } of result.ok ? result.assessment.lines : []) {
    const used = formula.lines.find((line) => line.id === id)?.material;
    const material = used === undefined ? undefined : stored.material(used);
    if (!material || !isScentBlend(material)) continue;
    if (!material.madeOf?.length) add(material.id, massG);
    else for (const part of material.madeOf) add(part.material, (massG * part.sharePct) / 100);
  }
  const whole = [...masses.values()].reduce((sum, massG) => sum + massG, 0);
  return new Map([...masses].map(([id, massG]) => [id, (100 * massG) / Math.max(whole, 1e-9)]));
}

/** A store in which blends are made with what stands in for their parts. */
function storeWith(swaps: readonly ScentSwap[], stored: Stored): Stored {
  const to = new Map(swaps.map((swap) => [swap.from, swap.to]));
  const blends = new Map<string, Material>();
  const material = (id: string): Material | undefined => {
    const known = blends.get(id) ?? stored.material(id);
    if (blends.has(id) || !known?.madeOf?.some((part) => to.has(part.material)) || !isScentBlend(known))
      return known;
    const parts = known.madeOf.map((part) => ({
      material: to.get(part.material) ?? part.material,
      parts: part.sharePct,
    }));
    const made = mixMaterial({ id, name: known.name, parts }, (one) => stored.material(one));
    if (!made.ok) return undefined;
    blends.set(id, made.material);
    return made.material;
  };
  return { ...stored, material };
}

function reckoned({ sold, formula }: RangeBar, swaps: readonly ScentSwap[], stored: Stored, onDate: string) {
  const next = swaps.reduce(
    (made, { from, to }) => swapped(sold, made, { from, to, by: 'mass' }, stored, onDate),
    formula,
  );
  const outline = outlineOf(requestOf(sold, next, onDate), storeWith(swaps, stored));
  return outline && standingIn(outline);
}

interface Looked {
  bar: RangeBar;
  /** Its scents, each with its share of them, percent. */
  scents: ReadonlyMap<string, number>;
  was: Standing;
  /** How it stands by the swaps that it feels; null where that is worse than it was. */
  known: Map<string, Standing | null>;
}

const keyOf = (swaps: readonly ScentSwap[]) => swaps.map(({ from, to }) => `${from}>${to}`).join(' ');

/** How much of a bar's scent swaps make another, percent. */
const movedPct = ({ scents }: Looked, swaps: readonly ScentSwap[]) =>
  swaps.reduce((sum, { from }) => sum + (scents.get(from) ?? 0), 0);

function standing(
  looked: Looked,
  swaps: readonly ScentSwap[],
  stored: Stored,
  onDate: string,
): Standing | null {
  const felt = swaps.filter(({ from }) => looked.scents.has(from));
  if (felt.length === 0) return looked.was;
  const key = keyOf(felt);
  const before = looked.known.get(key);
  if (before !== undefined) return before;
  const found = reckoned(looked.bar, felt, stored, onDate);
  const kept = found && isNoWorse(looked.was, found) ? found : null;
  looked.known.set(key, kept);
  return kept;
}

interface Grown {
  swaps: ScentSwap[];
  names: number;
  over: number;
}

const better = (a: Grown, b: Grown) =>
  a.names - b.names || a.over - b.over || (keyOf(a.swaps) < keyOf(b.swaps) ? -1 : 1);

/** What a set does to each bar whose names change. */
function pointOf(
  { swaps, names }: Grown,
  all: readonly Looked[],
  stored: Stored,
  onDate: string,
): RangePoint {
  const off: RangePoint['off'] = [];
  const on: RangePoint['on'] = [];
  const moved: RangePoint['moved'] = [];
  for (const looked of all) {
    const is = standing(looked, swaps, stored, onDate)!;
    const apart = (a: Standing, b: Standing) =>
      [...a.names].flatMap(([id, name]) => (b.names.has(id) ? [] : [name]));
    const [gone, come] = [apart(looked.was, is), apart(is, looked.was)];
    if (gone.length > 0) off.push({ bar: looked.bar.id, names: gone });
    if (come.length > 0) on.push({ bar: looked.bar.id, names: come });
    const pct = movedPct(looked, swaps);
    if (pct > 0) moved.push({ bar: looked.bar.id, pct });
  }
  return { swaps, names, off, on, moved };
}

/** Whether it is known what a scent holds, so that it can be said what it would put on a label. */
const isKnown = (material: Material | undefined) => (material?.constituents?.length ?? 0) > 0;

export interface RangeAsked {
  bars: readonly RangeBar[];
  /** Scents that may take the place of others. */
  candidates: readonly string[];
  stored: Stored;
  onDate: string;
  /** How much of a bar's scent may be another at most, percent of it. */
  mostMovedPct: number;
  /** Swaps at most. */
  most: number;
  /** Whether to go on; asked before each set that is grown. */
  goOn?: () => boolean;
}

/**
 * The sets of swaps that leave fewest names on all labels, of one swap and more; no bar stands worse in any market than it
 * stood. The best that was found, which is the best there is where few scents can stand for few.
 *
 * @example
 * fewestNames(asked).points.map(({ swaps, names }) => [swaps.length, names]); // [[1, 31], [2, 27]], of 36
 */
export function fewestNames(asked: RangeAsked): FewSwaps {
  const { bars, candidates, stored, onDate, most, mostMovedPct, goOn = () => true } = asked;
  const unknown = candidates.filter((id) => !isKnown(stored.material(id)));
  const can = candidates.filter((id) => !unknown.includes(id));
  const all = bars.flatMap((bar): Looked[] => {
    const was = reckoned(bar, [], stored, onDate);
    return was && was.names.size > 0
      ? [{ bar, scents: scentsOf(bar, stored, onDate), was, known: new Map() }]
      : [];
  });
  const names = all.reduce((sum, { was }) => sum + was.names.size, 0);
  const over = all.reduce((sum, { was }) => sum + was.over, 0);
  const froms = [...new Set(all.flatMap(({ scents }) => [...scents.keys()]))].sort();
  let isCutShort = false;
  /** A set with one swap more; null where a bar stands worse for it. */
  const grow = (grown: Grown, swap: ScentSwap): Grown | null => {
    const swaps = [...grown.swaps, swap].sort((a, b) => (a.from < b.from ? -1 : 1));
    let next = { ...grown, swaps };
    for (const looked of all) {
      if (!looked.scents.has(swap.from)) continue;
      const was = standing(looked, grown.swaps, stored, onDate)!;
      const is = standing(looked, swaps, stored, onDate);
      if (!is || movedPct(looked, swaps) > mostMovedPct + ROUNDING_PCT) return null;
      next = {
        swaps,
        names: next.names + is.names.size - was.names.size,
        over: next.over + is.over - was.over,
      };
    }
    return next;
  };
  let kept: Grown[] = [{ swaps: [], names, over }];
  const points: RangePoint[] = [];
  for (let step = 0; step < most && !isCutShort; step++) {
    const found = new Map<string, Grown>();
    for (const grown of kept) {
      if (!goOn()) {
        isCutShort = true;
        break;
      }
      for (const from of froms) {
        if (grown.swaps.some((swap) => swap.from === from || swap.to === from)) continue;
        for (const to of can) {
          if (to === from || grown.swaps.some((swap) => swap.from === to)) continue;
          const next = grow(grown, { from, to });
          if (next) found.set(keyOf(next.swaps), next);
        }
      }
    }
    kept = [...found.values()].sort(better).slice(0, KEPT);
    const best = kept[0];
    if (best && best.names < (points.at(-1)?.names ?? names)) points.push(pointOf(best, all, stored, onDate));
  }
  return { names, points, unknown, isCutShort };
}
