/** Assessing what a client sends: shape, then meaning, then the core. */
import { assess, type Result } from '../../../core/assess';
import type { AssessmentRequest, Stored } from '../../../core/formula/types';
import { withReached } from '../../../library/reach';
import { AssessmentRequestDoor } from '../../doors/assessment-request';
import { checkShape } from '../../doors/shape';
import type { House } from '../../house';
import { onThread } from '../../jobs/threads';
import { sharedSetting } from '../../store/shared';
import { snapshotOf } from '../../store/snapshot';
import { told } from '../../jobs/told';

/** Lines, materials, rules and portions above which a request is reckoned on a thread. */
const LARGE = 150;
/** A request can ask for thousands of times an ordinary formula: it is ended before a person would give up. */
const LIMIT_MS = 1500;

function sizeOf({ formula, materials, rules }: AssessmentRequest): number {
  const portions = 1 + (formula.portions?.length ?? 0);
  const parts = (materials ?? []).reduce(
    (sum, { constituents, inci, limits }) =>
      sum + 1 + ((constituents?.length ?? 0) + (inci?.length ?? 0) + (limits?.length ?? 0)) / 4,
    0,
  );
  const ruled = ((rules?.limits?.length ?? 0) + (rules?.declarables?.length ?? 0)) / 4;
  return formula.lines.length * portions + parts + ruled;
}

/** Against the stored rules, a material that came with the request is known by its names too. */
const reached = (request: AssessmentRequest): AssessmentRequest =>
  request.rules?.replace || !request.materials
    ? request
    : { ...request, materials: request.materials.map(withReached) };

/** Assesses a parsed JSON value against a snapshot. Errors carry the path to their field. */
export function assessValue(input: unknown, snapshot: Stored): Result {
  const shaped = checkShape<AssessmentRequest>(AssessmentRequestDoor, input);
  return shaped.ok ? assess(reached(shaped.value), snapshot) : shaped;
}

/** Assesses a parsed JSON value against what is stored; a large one on a thread. Errors carry paths. */
export async function assessInput({ db, today }: House, input: unknown): Promise<Result> {
  const shaped = checkShape<AssessmentRequest>(AssessmentRequestDoor, input);
  if (!shaped.ok) return shaped;
  const snapshot = await snapshotOf(db, today);
  const asked = reached(shaped.value);
  if (sizeOf(asked) <= LARGE) return assess(asked, snapshot);
  const job = { setting: sharedSetting(snapshot), request: asked };
  return told(onThread('assessOnThread', job, { limitMs: LIMIT_MS }), 'formula.lines');
}
