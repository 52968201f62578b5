/** What the worktable reckons at every change: the assessment, remedies, and what a trial would give. */
import { useEffect, useMemo, useRef, useState } from 'react';
import { assess } from '../../core/assess';
import type { Assessment } from '../../core/formula/answer';
import {
  REQUEST_FORMAT,
  type AssessmentRequest,
  type Formula,
  type Material,
  type RequestError,
  type Stored,
} from '../../core/formula/types';
import { compareVerdicts } from '../../core/loads/limits';
import type { Remedy } from '../../core/loads/remedies';
import type { FoundMaterial } from '../../core/records/cupboard';
import type { WorktableData } from '../../core/records/product';
import { send } from '../../ui/api';
import type { useMaterials } from './hooks';
import type { RemedyReply, RemedyTask } from '../../workers/remedies-worker';

/** The request for a formula on the table, on a day. */
function requestFor({ product }: WorktableData, formula: Formula, onDate: string): AssessmentRequest {
  const { markets, firstPlacedOn } = product;
  return { format: REQUEST_FORMAT, formula, markets, onDate, firstPlacedOn };
}

/** Assesses any formula against the rules on the table; null where it does not reckon. */
export type Reckon = (formula: Formula, onDate: string) => Assessment | null;

/** Remedies follow once the hands rest so long: they try many formulas. */
const REST_MS = 150;

/** The maker's own materials of the kinds on the table, fetched once remedies are wanted; empty until they are there. */
function useAlternatives(materials: Material[], wanted: boolean, add: (found: readonly Material[]) => void) {
  const [alternatives, setAlternatives] = useState<Material[]>([]);
  const kinds = [...new Set(materials.map(({ kind }) => kind))].sort().join(',');
  useEffect(() => {
    if (!wanted) return;
    let isCurrent = true;
    void send<{ materials: FoundMaterial[] }>('GET', `/api/v1/materials?kinds=${kinds}`).then((answer) => {
      if (!isCurrent || !answer.ok) return;
      const found = answer.body.materials.map(({ material }) => material);
      setAlternatives(found);
      add(found);
    });
    return () => {
      isCurrent = false;
    };
  }, [kinds, wanted, add]);
  return alternatives;
}

const NO_REMEDIES: readonly Remedy[] = [];

/** The remedies for what is on the table, found in a worker; null while newer ones are looked for. */
function useRemedies(
  { rules }: WorktableData,
  materials: Material[],
  alternatives: Material[],
  request: AssessmentRequest,
  wanted: boolean,
): readonly Remedy[] | null {
  const [found, setFound] = useState<{ request: AssessmentRequest; remedies: Remedy[] } | null>(null);
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  useEffect(() => {
    const made = new Worker(new URL('../../workers/remedies-worker.ts', import.meta.url), { type: 'module' });
    worker.current = made;
    return () => made.terminate();
  }, []);
  useEffect(() => {
    worker.current?.postMessage({ setting: { rules, alternatives, materials } } satisfies RemedyTask);
  }, [rules, alternatives, materials]);
  useEffect(() => {
    const id = ++asked.current;
    if (!wanted) return;
    const onReply = ({ data }: MessageEvent<RemedyReply>) => {
      if (data.id === id) setFound({ request, remedies: data.remedies });
    };
    const current = worker.current!;
    current.addEventListener('message', onReply);
    const timer = setTimeout(() => current.postMessage({ id, request } satisfies RemedyTask), REST_MS);
    return () => {
      clearTimeout(timer);
      current.removeEventListener('message', onReply);
    };
  }, [request, materials, alternatives, wanted]);
  if (!wanted) return NO_REMEDIES;
  return found?.request === request ? found.remedies : null;
}

const NO_ERRORS: readonly RequestError[] = [];

interface Asked {
  formula: Formula;
  onDate: string;
  /** Whether somebody looks at the chain of arithmetic. */
  explain: boolean;
}

/** The last assessment that reckoned; kept while what is on the table does not. */
function useLastGood(answer: ReturnType<typeof assess>): Assessment | null {
  const [lastGood, setLastGood] = useState<Assessment | null>(null);
  const current = answer.ok ? answer.assessment : lastGood;
  // Put aside while drawing, so that the very next answer may fall back on it.
  if (current !== lastGood) setLastGood(current);
  return current;
}

/** Reckons at every change; keeps the last good answer while what is on the table does not reckon. */
export function useReckoning(
  data: WorktableData,
  { materials, add }: Pick<ReturnType<typeof useMaterials>, 'materials' | 'add'>,
  { formula, onDate, explain }: Asked,
) {
  const stored: Stored = useMemo(() => {
    const byId = new Map(materials.map((material) => [material.id, material]));
    return { ...data.rules, material: (id) => byId.get(id) };
  }, [data.rules, materials]);
  const request = useMemo(() => requestFor(data, formula, onDate), [data, formula, onDate]);
  const answer = useMemo(() => assess({ ...request, explain }, stored), [request, stored, explain]);
  const assessment = useLastGood(answer);
  const errors = answer.ok ? NO_ERRORS : answer.errors;
  const wanted = answer.ok && compareVerdicts(answer.assessment.verdict, 'tight') < 0;
  const alternatives = useAlternatives(materials, wanted, add);
  const remedies = useRemedies(data, materials, alternatives, request, wanted);
  const reckon: Reckon = useMemo(
    () => (tried, day) => {
      const found = assess(requestFor(data, tried, day), stored);
      return found.ok ? found.assessment : null;
    },
    [data, stored],
  );
  return { assessment, errors, remedies, reckon };
}
