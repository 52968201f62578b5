/**
 * Fewer names on a label for so much movement of a blend: for each number of names the blend that moves least, by the
 * linear solver with a yes or no for each name. The programme is read with every name to stay under its threshold.
 */
import type { LinearProblem, Solve } from '../numerics/highs';
import type { Programme, ProgrammeRow } from './programme';

export interface FrontierPoint {
  /** Ids of the constituents that the label need not name any more. */
  off: string[];
  /** Sum of what the parts moved, in percent of the whole blend. */
  movedPct: number;
  masses: { line: string; massG: number }[];
}

/** Names more than this are not tried one by one. */
const MOST_NAMES = 24;
/** A point that moves hardly more than one with more names is no point of its own. */
const SAME_PCT = 0.005;

type Row = LinearProblem['rows'][number];

const isThreshold = ({ meaning }: ProgrammeRow) => meaning.kind === 'threshold';

/** A bound on the oils' masses; of a name it holds only where its yes is said. */
function bounded({ coefficients, constant }: ProgrammeRow, totalG: number, yes: number | null): Row {
  // The most it can be over, with all of the blend in the oil that brings most.
  const most = Math.max(0, totalG * Math.max(...coefficients) + constant);
  const size = Math.max(Math.abs(constant), most, ...coefficients.map(Math.abs)) || 1;
  const terms: [number, number][] = coefficients.map((factor, oil) => [oil, factor / size]);
  if (yes === null) return { terms, relation: '<=', right: -constant / size };
  return { terms: [...terms, [yes, most / size]], relation: '<=', right: (most - constant) / size };
}

/**
 * The blends that move least for one name fewer, two fewer and so on, as far as any is found; the total stays. A name counts
 * once, in however many markets it is asked for.
 *
 * @example
 * frontier(programme, 3, highs).map(({ off, movedPct }) => [off.length, movedPct]); // [[1, 0.8], [2, 3.1], [4, 9.6]]
 */
export function frontier(programme: Programme, totalPctFats: number, solve: Solve): FrontierPoint[] {
  const { oils, rows, fatsG } = programme;
  const count = oils.length;
  const totalG = (totalPctFats / 100) * fatsG;
  const partsSum = oils.reduce((sum, { parts }) => sum + parts, 0);
  const names = [...new Set(rows.filter(isThreshold).map(({ meaning }) => meaning.id))].slice(0, MOST_NAMES);
  const yesOf = (id: string) => 2 * count + names.indexOf(id);
  const fixed: Row[] = [
    ...rows
      .filter((row) => !isThreshold(row) || names.includes(row.meaning.id))
      .map((row) => bounded(row, totalG, isThreshold(row) ? yesOf(row.meaning.id) : null)),
    { terms: oils.map((_, oil) => [oil, 1] as const), relation: '=', right: totalG },
    ...oils.flatMap(({ parts }, oil) =>
      [1, -1].map((side): Row => ({
        terms: [
          [oil, side],
          [count + oil, -1],
        ],
        relation: '<=',
        right: (side * parts * totalG) / partsSum,
      })),
    ),
  ];
  const cost = [...oils.map(() => 0), ...oils.map(() => 1), ...names.map(() => 0)];
  const yeses = names.map(yesOf);
  const points: FrontierPoint[] = [];
  for (let fewer = 1; fewer <= names.length; fewer++) {
    const enough: Row = { terms: yeses.map((at) => [at, -1] as const), relation: '<=', right: -fewer };
    const answer = solve({ variables: cost.length, cost, rows: [...fixed, enough], yesNo: yeses });
    if (answer.status !== 'optimal') break;
    const masses = answer.values.slice(0, count);
    const apart = masses.reduce(
      (sum, mass, oil) => sum + Math.abs(mass - (oils[oil]!.parts * totalG) / partsSum),
      0,
    );
    const off = names.filter((id) => answer.values[yesOf(id)]! > 0.5);
    const point = {
      off,
      movedPct: totalG > 0 ? (100 * apart) / 2 / totalG : 0,
      masses: oils.map(({ line }, oil) => ({ line, massG: masses[oil]! })),
    };
    // Of points that move as much the one with most names off stands.
    const before = points.at(-1);
    if (before && point.movedPct <= before.movedPct + SAME_PCT) points.pop();
    points.push(point);
    fewer = Math.max(fewer, off.length);
  }
  return points;
}
