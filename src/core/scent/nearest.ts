/**
 * The nearest blend that fits, and the largest: sets up the linear programme, reads the solver's answer, and
 * tells what bound it, what loosening that would buy, or which demands collide. The solver itself is given.
 */
import type { LinearProblem, Solve } from '../numerics/highs';
import { type BlendDemand, type Programme, type ProgrammeRow, type RowMeaning } from './programme';

/** A demand that stands against others. */
export type Demanded = RowMeaning | { kind: 'total'; pctFats: number } | { kind: 'leeway'; line: string };

export interface Bound {
  meaning: RowMeaning;
  /** What the answer would be with ten percent more: total in percent of the fats, or points of parts moved. */
  looserTotalPctFats: number | null;
  looserMovedPct: number | null;
}

export type BlendAnswer =
  | {
      outcome: 'found';
      masses: { line: string; massG: number }[];
      totalPctFats: number;
      /** Sum of what the parts moved, in percent of the whole blend. */
      movedPct: number;
      bounds: Bound[];
    }
  | { outcome: 'nothing'; collide: Demanded[] }
  | { outcome: 'unbounded' };

/** A row whose free part is below this share of what the blend itself brings counts as reached. */
const REACHED = 1e-6;
const NOTHING_G = 1e-6;

interface Entry {
  demanded: Demanded | null;
  row: LinearProblem['rows'][number];
}

/** Shares of the oils in the blend as it stands; they add up to 1. */
function shares({ oils }: Programme): number[] {
  const total = oils.reduce((sum, { parts }) => sum + parts, 0);
  return oils.map(({ parts }) => parts / total);
}

function limitEntry(row: ProgrammeRow, loosened: boolean): Entry {
  const factor = (index: number) =>
    row.coefficients[index]! - (loosened ? row.looser.coefficients[index]! : 0);
  const constant = row.constant - (loosened ? row.looser.constant : 0);
  const size = Math.max(Math.abs(constant), ...row.coefficients.map(Math.abs)) || 1;
  return {
    demanded: row.meaning,
    row: {
      terms: row.coefficients.map((_, index) => [index, factor(index) / size] as const),
      relation: '<=',
      right: -constant / size,
    },
  };
}

/** Rows that keep each oil's mass within the leeway around its share of the total. */
function leewayEntries(programme: Programme, leewayPct: number): Entry[] {
  const leeway = leewayPct / 100;
  return shares(programme).flatMap((share, oil) => {
    const against = (side: 1 | -1): Entry => ({
      demanded: { kind: 'leeway', line: programme.oils[oil]!.line },
      row: {
        terms: programme.oils.map((_, index) => {
          const own = index === oil ? side : 0;
          return [index, own - side * share * (1 + side * leeway)] as const;
        }),
        relation: '<=',
        right: 0,
      },
    });
    return [against(1), against(-1)];
  });
}

/** Variables: the oils' masses, then, for the nearest blend, how far each is from its share of the total. */
function entriesFor(programme: Programme, demand: BlendDemand, loosened: string | null): Entry[] {
  const limits = programme.rows.map((row) => limitEntry(row, row.key === loosened));
  const leeway = demand.leewayPct === null ? [] : leewayEntries(programme, demand.leewayPct);
  if (demand.mode === 'largest') return [...limits, ...leeway];
  const count = programme.oils.length;
  const totalG = (demand.totalPctFats / 100) * programme.fatsG;
  const distances = shares(programme).flatMap((share, oil): Entry[] => {
    const far = (side: 1 | -1): Entry => ({
      demanded: null,
      row: {
        terms: [
          [oil, side],
          [count + oil, -1],
        ],
        relation: '<=',
        right: side * share * totalG,
      },
    });
    return [far(1), far(-1)];
  });
  const total: Entry = {
    demanded: { kind: 'total', pctFats: demand.totalPctFats },
    row: { terms: programme.oils.map((_, index) => [index, 1] as const), relation: '=', right: totalG },
  };
  return [...limits, ...leeway, total, ...distances];
}

function problemFrom(programme: Programme, demand: BlendDemand, entries: readonly Entry[]): LinearProblem {
  const count = programme.oils.length;
  const ones = new Array<number>(count).fill(1);
  const cost =
    demand.mode === 'largest' ? ones.map(() => -1) : [...new Array<number>(count).fill(0), ...ones];
  return { variables: cost.length, cost, rows: entries.map(({ row }) => row) };
}

/** Leaves out one demand after the other as long as the rest still collide: what is left collides as it is. */
function collision(
  programme: Programme,
  demand: BlendDemand,
  entries: readonly Entry[],
  solve: Solve,
): Demanded[] {
  let kept = [...entries];
  for (const entry of entries) {
    if (entry.demanded === null) continue;
    const without = kept.filter((other) => other !== entry);
    if (solve(problemFrom(programme, demand, without)).status === 'infeasible') kept = without;
  }
  const demands = kept.flatMap(({ demanded }) => demanded ?? []);
  const words = demands.map((entry) => JSON.stringify(entry));
  return demands.filter((_, index) => words.indexOf(words[index]!) === index);
}

function moved(programme: Programme, masses: readonly number[]): number {
  const totalG = masses.reduce((sum, mass) => sum + mass, 0);
  if (totalG === 0) return 0;
  const apart = shares(programme).reduce(
    (sum, share, index) => sum + Math.abs(masses[index]! / totalG - share),
    0,
  );
  // What one oil gains another loses: half of the sum is what changed hands.
  return (100 * apart) / 2;
}

function totalPct(programme: Programme, masses: readonly number[]): number {
  return (100 * masses.reduce((sum, mass) => sum + mass, 0)) / programme.fatsG;
}

function isReached(row: ProgrammeRow, masses: readonly number[]): boolean {
  const brought = row.coefficients.reduce((sum, factor, index) => sum + factor * masses[index]!, 0);
  const size = row.coefficients.reduce((sum, factor, index) => sum + Math.abs(factor) * masses[index]!, 0);
  return brought + row.constant > -REACHED * Math.max(size, Math.abs(row.constant), NOTHING_G);
}

function boundsOf(
  programme: Programme,
  demand: BlendDemand,
  masses: readonly number[],
  solve: Solve,
): Bound[] {
  const seen = new Set<string>();
  return programme.rows
    .filter((row) => isReached(row, masses))
    .flatMap((row): Bound[] => {
      const told = JSON.stringify({ ...row.meaning, markets: null, market: null });
      if (seen.has(told)) return [];
      seen.add(told);
      const answer = solve(problemFrom(programme, demand, entriesFor(programme, demand, row.key)));
      if (answer.status !== 'optimal') {
        return [{ meaning: row.meaning, looserTotalPctFats: null, looserMovedPct: null }];
      }
      const looser = answer.values.slice(0, programme.oils.length);
      return [
        {
          meaning: row.meaning,
          looserTotalPctFats: totalPct(programme, looser),
          looserMovedPct: moved(programme, looser),
        },
      ];
    });
}

/**
 * Solves a blend's programme with the given solver.
 *
 * @example
 * const read = blendProgramme(request, snapshot, oils, demand);
 * if (read.ok) solveBlend(read.programme, demand, highs); // the nearest blend within the limits
 */
export function solveBlend(programme: Programme, demand: BlendDemand, solve: Solve): BlendAnswer {
  const entries = entriesFor(programme, demand, null);
  const answer = solve(problemFrom(programme, demand, entries));
  if (answer.status === 'unbounded') return { outcome: 'unbounded' };
  if (answer.status === 'infeasible') {
    return { outcome: 'nothing', collide: collision(programme, demand, entries, solve) };
  }
  const masses = answer.values.slice(0, programme.oils.length);
  if (masses.reduce((sum, mass) => sum + mass, 0) < NOTHING_G) {
    const wants: Entry = {
      demanded: { kind: 'total', pctFats: 0 },
      row: { terms: programme.oils.map((_, index) => [index, -1] as const), relation: '<=', right: -1 },
    };
    return { outcome: 'nothing', collide: collision(programme, demand, [...entries, wants], solve) };
  }
  return {
    outcome: 'found',
    masses: programme.oils.map(({ line }, index) => ({ line, massG: masses[index]! })),
    totalPctFats: totalPct(programme, masses),
    movedPct: moved(programme, masses),
    bounds: boundsOf(programme, demand, masses, solve),
  };
}
