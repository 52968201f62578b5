import { useState } from 'react';
import type { MixPart } from '../../core/formula/mix';
import type { Formula, Line } from '../../core/formula/types';
import type { WorkingVersion } from '../../core/records/product';
import type { Use } from '../../core/records/cupboard';
import type { ScentDeskData } from '../../core/records/scent';
import { address, send } from '../../ui/api';
import { percent } from '../../ui/words';

interface Props {
  data: ScentDeskData;
  blend: { id: string; parts: readonly MixPart[] };
  uses: readonly Use[];
  totalPct: number;
  barId: string;
  flush: () => Promise<boolean>;
}

function freeLineId(lines: readonly Line[], number: number): string {
  const taken = new Set(lines.map(({ id }) => id));
  while (taken.has(`l${number}`)) number++;
  return `l${number}`;
}

/** The formula with the blend as one line, or with its oils as lines of their own. */
function withBlend(formula: Formula, blend: Props['blend'], totalPct: number, apart: boolean): Formula {
  const sum = blend.parts.reduce((total, { parts }) => total + parts, 0);
  const loads: [string, number][] = apart
    ? blend.parts
        .filter(({ parts }) => parts > 0)
        .map(({ material, parts }) => [material, (totalPct * parts) / sum])
    : [[blend.id, totalPct]];
  const lines = [...formula.lines];
  for (const [material, value] of loads) {
    lines.push({
      id: freeLineId(lines, lines.length + 1),
      material,
      stage: 'trace',
      amount: { value: Number(value.toFixed(4)), unit: '%fats' },
      measuredBy: 'scale',
    });
  }
  return { ...formula, lines };
}

/** Puts the blend into a bar, and tells every bar that uses it. */
export function SendToBar({ data, blend, uses, totalPct, barId, flush }: Props) {
  const bars = data.bars.filter(({ id }) => id !== '');
  const [target, setTarget] = useState(barId || bars[0]?.id || '');
  const [apart, setApart] = useState(false);
  const [told, setTold] = useState<{ fault?: string; sent?: { id: string; name: string } }>({});
  const sendIt = async () => {
    if (!(await flush())) return setTold({ fault: 'Save the blend first: see what holds it up.' });
    const found = await send<{ version: WorkingVersion }>('GET', address('products', target));
    if (!found.ok) return setTold({ fault: found.faults[0]!.message });
    const { revision, formula } = found.body.version;
    const body = { revision, formula: withBlend(formula, blend, totalPct, apart) };
    const saved = await send('PUT', address('products', target, 'formula'), body);
    if (!saved.ok) return setTold({ fault: saved.faults[0]!.message });
    if (saved.status === 409) return setTold({ fault: 'That bar was changed just now. Try again.' });
    setTold({ sent: { id: target, name: bars.find(({ id }) => id === target)?.name ?? target } });
  };
  return (
    <section aria-label="Bars" className="sheet mt-3">
      <h2 className="text-lg">Into a bar</h2>
      <div className="flex flex-wrap items-end gap-3">
        <label>
          <span className="eyebrow block">Bar</span>
          <select className="field" value={target} onChange={(event) => setTarget(event.target.value)}>
            {bars.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="flex cursor-pointer items-center gap-1.5">
          <input
            type="checkbox"
            className="accent-ultra"
            checked={apart}
            onChange={(event) => setApart(event.target.checked)}
          />
          oil by oil
        </label>
        <button type="button" className="action" disabled={!target} onClick={() => void sendIt()}>
          Add {percent(totalPct)} of the fats
        </button>
      </div>
      {told.fault && (
        <p role="alert" className="text-madder">
          {told.fault}
        </p>
      )}
      {told.sent && (
        <p role="status">
          It is in{' '}
          <a className="text-ultra underline" href={`/bars/${told.sent.id}`}>
            {told.sent.name}
          </a>{' '}
          now; undo it there by removing the line.
        </p>
      )}
      <p className="mt-2">
        {uses.length === 0 ? 'No bar uses this blend as one. ' : 'Bars that use it: '}
        {uses.map(({ product, name }) => (
          <a key={product} className="mr-3 text-ultra underline" href={`/bars/${product}`}>
            {name}
          </a>
        ))}
      </p>
    </section>
  );
}
