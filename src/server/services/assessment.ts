/** Assessing what a client sends: shape, then meaning, then the core. */
import { assess, type Result } from '../../core/assess';
import type { AssessmentRequest, Stored } from '../../core/formula/types';
import { AssessmentRequestDoor } from '../doors/assessment-request';
import { checkShape } from '../doors/shape';

/** Assesses a parsed JSON value against what is stored. Errors carry the path to their field. */
export function assessInput(input: unknown, stored: Stored): Result {
  const shaped = checkShape<AssessmentRequest>(AssessmentRequestDoor, input);
  return shaped.ok ? assess(shaped.value, stored) : shaped;
}
