/** What the worktable reckons at every change: the assessment, remedies, and what a trial would give. */
import { useDeferredValue, useMemo, useRef } from 'react';
import { assess } from '../../core/assess';
import type { Assessment } from '../../core/formula/answer';
import {
  REQUEST_FORMAT,
  type AssessmentRequest,
  type Formula,
  type Material,
  type Stored,
} from '../../core/formula/types';
import { findRemedies } from '../../core/loads/remedies';
import type { WorktableData } from '../../core/records/product';

/** The request for a formula on the table, on a day. */
function requestFor(
  data: WorktableData,
  materials: Material[],
  formula: Formula,
  onDate: string,
): AssessmentRequest {
  const { markets, firstPlacedOn } = data.product;
  return { format: REQUEST_FORMAT, formula, materials, markets, onDate, firstPlacedOn, explain: true };
}

/** Assesses any formula against the rules on the table; null where it does not reckon. */
export type Reckon = (formula: Formula, onDate: string) => Assessment | null;

/** Reckons at every change; keeps the last good answer while what is on the table does not reckon. */
export function useReckoning(data: WorktableData, materials: Material[], formula: Formula, onDate: string) {
  const lastGood = useRef<Assessment | null>(null);
  const stored: Stored = useMemo(() => ({ ...data.rules, material: () => undefined }), [data.rules]);
  const result = useMemo(() => {
    const request = requestFor(data, materials, formula, onDate);
    const answer = assess(request, stored);
    if (answer.ok) lastGood.current = answer.assessment;
    return { request, assessment: lastGood.current, errors: answer.ok ? [] : answer.errors };
  }, [data, materials, formula, stored, onDate]);
  // Remedies try many formulas; they follow a moment after the figures, never in the way of typing.
  const settled = useDeferredValue(result);
  const remedies = useMemo(
    () =>
      settled.assessment && settled.errors.length === 0
        ? findRemedies(settled.request, settled.assessment, stored, data.alternatives, assess)
        : [],
    [settled, stored, data.alternatives],
  );
  const reckon: Reckon = useMemo(
    () => (tried, day) => {
      const answer = assess(requestFor(data, materials, tried, day), stored);
      return answer.ok ? answer.assessment : null;
    },
    [data, materials, stored],
  );
  return { ...result, remedies: settled === result ? remedies : [], reckon };
}
