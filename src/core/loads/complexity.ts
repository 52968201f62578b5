/** How much work a request asks for, so that none can hold a server up. */
import { binds } from './limits';
import type { Plan } from './plan';
import type { Subjects } from './sections';

/** Steps of the search for largest loads that are taken on: about a second's work; a large formula asks for a thousandth. */
const MOST_SEARCH_STEPS = 4e7;
/** Contributors written out over all rows of limits. */
const MOST_CONTRIBUTORS = 5e5;

/** Whether lines, limits, portions and markets together ask for more than one answer should hold. */
export function isTooComplex(plan: Plan, subjects: Subjects, marketCount: number): boolean {
  const carriers = new Array<number>(subjects.count).fill(0);
  for (const k of subjects.subject) carriers[k]!++;
  const sections = plan.portions.length + 1;
  let steps = 0;
  let contributors = 0;
  subjects.limits.forEach((rules, k) => {
    const binding = rules.filter(({ limit }) => binds(limit.force)).length;
    steps += binding * carriers[k]! ** 2 * sections;
    contributors += rules.length * marketCount * carriers[k]!;
  });
  steps += plan.count ** 2 * sections;
  return steps > MOST_SEARCH_STEPS || contributors > MOST_CONTRIBUTORS;
}
