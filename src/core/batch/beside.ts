/** Two batches side by side: what was done in each, how much, in what, how hot, and where they part. */
import { lineName } from './record';
import type { Batch } from './types';

export interface BesideRow {
  group: 'weighed' | 'warmth' | 'times' | 'cut' | 'checks';
  name: string;
  a: string;
  b: string;
  differs: boolean;
}

/** Weighings that part by more than this are told as different, percent. */
const TOLD_PCT = 1;

const grams = (massG: number) => `${massG.toFixed(1)} g`;
const pct = (value: number) => `${value.toFixed(2)} %`;

const fatsG = (batch: Batch) =>
  batch.lines
    .filter(({ material }) => batch.materials.find(({ id }) => id === material)?.kind === 'fat')
    .reduce((sum, { massG }) => sum + massG, 0);

/** What was weighed, in grams and of the fats, so that batches of two sizes can be matched. */
function weighed(a: Batch, b: Batch): BesideRow[] {
  const [fatsA, fatsB] = [fatsG(a) || 1, fatsG(b) || 1];
  const names = new Map<string, { a: number; b: number }>();
  for (const [batch, side] of [
    [a, 'a'],
    [b, 'b'],
  ] as const)
    for (const line of batch.lines) {
      const name = lineName(batch, line) + (line.portion === null ? '' : ` (${line.portion})`);
      const row = names.get(name) ?? { a: 0, b: 0 };
      row[side] += line.massG;
      names.set(name, row);
    }
  return [...names]
    .filter(([, row]) => row.a > 0 || row.b > 0)
    .map(([name, row]) => {
      const [shareA, shareB] = [(100 * row.a) / fatsA, (100 * row.b) / fatsB];
      const said = (massG: number, share: number) =>
        massG > 0 ? `${grams(massG)}, ${pct(share)} of fats` : 'none';
      const off = Math.abs(shareA - shareB) / Math.max(shareA, shareB);
      return {
        group: 'weighed',
        name,
        a: said(row.a, shareA),
        b: said(row.b, shareB),
        differs: 100 * off > TOLD_PCT,
      };
    });
}

function row(group: BesideRow['group'], name: string, a: string | null, b: string | null): BesideRow[] {
  if (a === null && b === null) return [];
  return [{ group, name, a: a ?? '', b: b ?? '', differs: a !== b }];
}

const hoursTo = (batch: Batch, at: string | undefined) =>
  at && batch.poured ? `${((Date.parse(at) - Date.parse(batch.poured.at)) / 3_600_000).toFixed(1)} h` : null;

/** Everything that is known of both, row by row. */
export function besideRows(a: Batch, b: Batch): BesideRow[] {
  const warmth = (batch: Batch, of: string) => {
    const last = batch.temperatures.findLast((one) => one.of === of);
    return last ? `${last.c} °C` : null;
  };
  const checks = [...new Set([...a.checks, ...b.checks].map(({ check }) => check))];
  const found = (batch: Batch, check: string) => {
    const last = batch.checks.findLast((one) => one.check === check);
    return last ? [last.outcome, last.value].filter(Boolean).join(', ') : null;
  };
  return [
    ...weighed(a, b),
    ...['lye', 'fats', 'batter', 'cook', 'mould'].flatMap((of) =>
      row('warmth', of, warmth(a, of), warmth(b, of)),
    ),
    ...row('times', 'Poured into', moulds(a), moulds(b)),
    ...row('times', 'Rested', a.rested, b.rested),
    ...row('cut', 'Cut after', hoursTo(a, a.cut?.at), hoursTo(b, b.cut?.at)),
    ...row('cut', 'Bars, seconds', counts(a), counts(b)),
    ...checks.flatMap((check) => row('checks', check, found(a, check), found(b, check))),
    ...row('checks', 'Notes', notes(a), notes(b)),
  ];
}

const moulds = ({ poured }: Batch) =>
  poured?.moulds.map(({ id, count }) => `${count} × ${id}`).join(', ') ?? null;
const counts = ({ cut }: Batch) => (cut ? `${cut.bars}, ${cut.seconds}` : null);
const notes = (batch: Batch) => batch.notes.map(({ text }) => text).join(' ') || null;
