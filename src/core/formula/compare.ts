/** What differs between two formulas, line by line and setting by setting. */
import { writeAmount } from '../quantities/amount';
import type { Formula, Line } from './types';

export type Difference =
  | { kind: 'added' | 'removed'; material: string; amount: string }
  | { kind: 'amount'; material: string; from: string; to: string }
  | { kind: 'line'; material: string; what: 'stage' | 'measuredBy' | 'portion'; from: string; to: string }
  | { kind: 'setting'; what: string; from: string; to: string };

const LINE_PARTS = ['stage', 'measuredBy', 'portion'] as const;

/** Settings compared, each as text; '' where it is not set. */
function settings({ fatsMassG, alkali, liquid, cure, marginPct, portions, scentNaming, process }: Formula) {
  const text = (value: string | number | null | undefined) => String(value ?? '');
  return {
    'fats in all, g': text(fatsMassG),
    'superfat, %': text(alkali.superfatPct),
    'alkali, g': text(alkali.massG),
    'lye purity, %': text(alkali.purityPct),
    liquid: liquid ? `${liquid.value} ${liquid.basis}` : '',
    'water left, %': text(cure?.residualWaterPct),
    'cured over pour': text(cure?.massRatio),
    'margin, %': text(marginPct),
    portions: (portions ?? [])
      .map(({ id, share }) => `${id} ${Number((share * 100).toFixed(2))} %`)
      .join(', '),
    scent: text(scentNaming),
    process: text(process),
  };
}

/** Pairs lines by material, in order, so that a line that was removed and added again counts as kept. */
function pairs(a: readonly Line[], b: readonly Line[]): [Line | undefined, Line | undefined][] {
  const left = [...b];
  const paired: [Line | undefined, Line | undefined][] = a.map((line) => {
    const sameId = left.findIndex(({ id, material }) => id === line.id && material === line.material);
    const index = sameId >= 0 ? sameId : left.findIndex(({ material }) => material === line.material);
    return [line, index >= 0 ? left.splice(index, 1)[0] : undefined];
  });
  return [...paired, ...left.map((line): [undefined, Line] => [undefined, line])];
}

function compareLines(from: Line | undefined, to: Line | undefined): Difference[] {
  if (!from || !to) {
    const line = (from ?? to)!;
    return [{ kind: from ? 'removed' : 'added', material: line.material, amount: writeAmount(line.amount) }];
  }
  const { material } = from;
  const found: Difference[] = [];
  const [was, is] = [writeAmount(from.amount), writeAmount(to.amount)];
  if (was !== is) found.push({ kind: 'amount', material, from: was, to: is });
  for (const what of LINE_PARTS) {
    const [before, after] = [from[what] ?? '', to[what] ?? ''];
    if (before !== after) found.push({ kind: 'line', material, what, from: before, to: after });
  }
  return found;
}

/**
 * The differences on the way from one formula to another; empty where they make the same bar.
 *
 * @example
 * compareFormulas(versions[1].formula, versions[2].formula); // [] where both make the same bar
 */
export function compareFormulas(from: Formula, to: Formula): Difference[] {
  const [before, after] = [settings(from), settings(to)];
  const keys = Object.keys(before) as (keyof typeof before)[];
  return [
    ...pairs(from.lines, to.lines).flatMap(([a, b]) => compareLines(a, b)),
    ...keys
      .filter((what) => before[what] !== after[what])
      .map((what): Difference => ({ kind: 'setting', what, from: before[what], to: after[what] })),
  ];
}
