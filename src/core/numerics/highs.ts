/** The linear solver behind the scent desk and the rescue at the pot: HiGHS, handed a problem as text in the LP format. */

/** A linear programme in plain numbers: minimise cost · x, rows at most `atMost` or exactly, x at least 0. */
export interface LinearProblem {
  variables: number;
  cost: number[];
  rows: { terms: (readonly [variable: number, factor: number])[]; relation: '<=' | '='; right: number }[];
  /** Variables that are 0 or 1. */
  yesNo?: readonly number[];
  /** Of a problem with yes or no: an answer so near to the best there could be is as good, a share of it. */
  gap?: number;
  /** Of a problem with yes or no: after so many seconds the best answer so far is taken. */
  seconds?: number;
}

export type LinearAnswer =
  /** `isCutShort` where time ended before it was shown to be the best. */
  | { status: 'optimal'; values: number[]; objective: number; isCutShort?: true }
  | { status: 'infeasible' }
  | { status: 'unbounded' };

export type Solve = (problem: LinearProblem) => LinearAnswer;

/** What is used of a loaded HiGHS. */
export interface Highs {
  solve: (
    problem: string,
    options: { presolve: 'on'; mip_rel_gap?: number; time_limit?: number },
  ) => { Status: string; ObjectiveValue: number; Columns: Record<string, unknown> };
}

const name = (variable: number) => `x${variable}`;

function terms(list: LinearProblem['rows'][number]['terms']): string {
  const written = list
    .filter(([, factor]) => factor !== 0)
    .map(([variable, factor]) => `${factor < 0 ? '-' : '+'} ${Math.abs(factor)} ${name(variable)}`);
  return written.length > 0 ? written.join(' ') : `0 ${name(0)}`;
}

/** The problem in the LP format. Rows may be long, so each term stands on a line of its own where needed. */
export function problemText({ variables, cost, rows, yesNo = [] }: LinearProblem): string {
  const objective = terms(cost.map((factor, variable) => [variable, factor] as const));
  const constraints = rows.map(
    (row, index) => ` r${index}: ${terms(row.terms)} ${row.relation} ${row.right === 0 ? 0 : row.right}`,
  );
  const bounds = Array.from({ length: variables }, (_, variable) => variable)
    .filter((variable) => !yesNo.includes(variable))
    .map((variable) => ` ${name(variable)} >= 0`);
  return [
    'Minimize',
    ` obj: ${objective}`,
    'Subject To',
    ...constraints,
    'Bounds',
    ...bounds,
    ...(yesNo.length > 0 ? ['Binary', ...yesNo.map((variable) => ` ${name(variable)}`)] : []),
    'End',
    '',
  ].join('\n');
}

/** A solver for the core from a loaded HiGHS. Throws an Error where HiGHS neither solves nor refutes. */
export function solveWith(highs: Highs): Solve {
  return (problem) => {
    const answer = highs.solve(problemText(problem), {
      presolve: 'on',
      ...(problem.gap === undefined ? {} : { mip_rel_gap: problem.gap }),
      ...(problem.seconds === undefined ? {} : { time_limit: problem.seconds }),
    });
    switch (answer.Status) {
      case 'Optimal':
      case 'Time limit reached': {
        const values = Array.from({ length: problem.variables }, (_, v) =>
          Math.max(0, (answer.Columns[name(v)] as { Primal?: number } | undefined)?.Primal ?? 0),
        );
        const isCutShort = answer.Status !== 'Optimal' && { isCutShort: true as const };
        return { status: 'optimal', values, objective: answer.ObjectiveValue, ...isCutShort };
      }
      case 'Infeasible':
        return { status: 'infeasible' };
      case 'Unbounded':
      case 'Primal infeasible or unbounded':
        return { status: 'unbounded' };
      default:
        throw new Error(`The solver ended with "${answer.Status}".`);
    }
  };
}
