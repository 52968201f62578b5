import { useState } from 'react';
import type { CraftLimit } from '../../rulebook/types';
import type { CraftFigures } from '../../core/records/cupboard';
import { readNumberOrNull } from '../../core/quantities/number';
import { address, send } from '../../ui/api';
import { BASIS_WORDS, KIND_WORDS, percent } from '../../ui/words';
import type { Kind } from '../../core/formula/types';
import { inWords } from '../worktable/view';

interface Props {
  craft: readonly CraftLimit[];
  own: CraftFigures;
}

function subject({ subject: { type, id } }: CraftLimit): string {
  return type === 'kind' ? KIND_WORDS[id as Kind] : inWords(id);
}

/** The craft's ceilings, and the maker's own in their place. Advice, never law. */
export function CraftFiguresPanel({ craft, own }: Props) {
  const [figures, setFigures] = useState(own);
  const [fault, setFault] = useState<string | null>(null);
  const keep = async (id: string, text: string) => {
    const maxPct = readNumberOrNull(text);
    if ((figures[id] ?? null) === maxPct) return;
    const answer = await send<CraftFigures>('PUT', address('craft', id), { maxPct });
    setFault(answer.ok ? null : answer.faults[0]!.message);
    if (answer.ok) setFigures(answer.body);
  };
  return (
    <section aria-label="Craft ceilings" className="sheet">
      <h2 className="text-lg">Craft ceilings</h2>
      <p className="text-soft">
        What makers advise. Put your own figure in its place, or leave the field empty.
      </p>
      <p role="alert" className="text-madder">
        {fault}
      </p>
      <table className="plain-table">
        <thead>
          <tr>
            <th scope="col">Load</th>
            <th scope="col">Advised at most</th>
            <th scope="col">Your own, %</th>
          </tr>
        </thead>
        <tbody>
          {craft.map((limit) => (
            <tr key={limit.id}>
              <th scope="row" title={limit.note}>
                {subject(limit)}
              </th>
              <td className="tabular-nums">
                {percent(limit.maxPct)} {BASIS_WORDS[limit.basis]}
              </td>
              <td>
                <input
                  className="field w-16 tabular-nums"
                  inputMode="decimal"
                  aria-label={`Your own ceiling for ${subject(limit)}, percent`}
                  defaultValue={figures[limit.id] ?? ''}
                  onBlur={(event) => void keep(limit.id, event.target.value)}
                />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
