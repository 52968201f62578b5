import { useState } from 'react';
import { conditionSaid, type ConditionStand } from '../../core/paperwork/conditions';
import { readNumberOrNull } from '../../core/quantities/number';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { DayField } from '../../ui/DayField';
import { Faults } from '../../ui/Faults';
import { useKeeping } from '../../ui/keeping';
import { TextField } from '../../ui/TextField';

interface Props {
  entry: CupboardEntry;
  today: string;
  onChanged: (entry: CupboardEntry) => void;
}

/** What a paper shows of one condition. */
function ShownForm({
  stand,
  today,
  onChanged,
  onClose,
}: Omit<Props, 'entry'> & { stand: ConditionStand; onClose: () => void }) {
  const { condition, material } = stand;
  const [value, setValue] = useState('');
  const [paper, setPaper] = useState('');
  const [on, setOn] = useState(today);
  const [until, setUntil] = useState('');
  const { busy, faults, keep } = useKeeping();
  const url = address('materials', material, 'conditions', condition.id);
  const keepIt = async () => {
    const body = { value: readNumberOrNull(value), paper: paper.trim(), on, until: until || null };
    const kept = await keep(() => send<CupboardEntry>('PUT', url, body));
    if (kept) onChanged(kept);
  };
  return (
    <div className="grid gap-2 border-l-4 border-line px-3 py-1">
      <div className="flex flex-wrap items-end gap-3">
        <TextField label="Paper: number and issuer" value={paper} onChange={setPaper} />
        {condition.most !== undefined && (
          <TextField
            label={`It states, ${condition.unit ?? ''}`}
            value={value}
            isNumber
            onChange={setValue}
          />
        )}
        <DayField label="Of" value={on} onChange={(day) => setOn(day ?? today)} />
        <DayField
          label="Counts until (empty: no end)"
          value={until}
          onChange={(day) => setUntil(day ?? '')}
        />
      </div>
      <Faults faults={faults} />
      <span className="flex gap-3">
        <button type="button" className="action py-0" disabled={busy} onClick={() => void keepIt()}>
          Keep
        </button>
        <button type="button" className="action py-0" onClick={onClose}>
          Close
        </button>
      </span>
    </div>
  );
}

/** What only a paper shows of a material, and how that stands. */
export function Conditions({ entry, today, onChanged }: Props) {
  const [open, setOpen] = useState<string | null>(null);
  const { conditions, material } = entry;
  if (conditions.length === 0) return null;
  const takeBack = async (id: string) => {
    const answer = await send<CupboardEntry>('DELETE', address('materials', material.id, 'conditions', id));
    if (answer.ok) onChanged(answer.body);
  };
  return (
    <section aria-label="What only a paper shows" className="border-b border-line py-2">
      <h3 className="text-lg">What only a paper shows</h3>
      <ul>
        {conditions.map((stand) => {
          const { condition, state, by } = stand;
          return (
            <li key={condition.id} className="grid gap-1 border-b border-hair py-1 last:border-0">
              <span className={state === 'notMet' ? 'font-medium text-madder' : ''}>
                {conditionSaid(stand)}{' '}
                <span className="font-narrow font-normal text-soft">
                  {condition.markets.join(', ')} · {condition.source}
                  {condition.unlessSoap && ' · soap sold only as soap stands outside it'}
                </span>
              </span>
              <span className="flex gap-3">
                <button type="button" className="action py-0" onClick={() => setOpen(condition.id)}>
                  A paper shows it
                </button>
                {by && (
                  <button type="button" className="action py-0" onClick={() => void takeBack(condition.id)}>
                    Take {by.paper} back
                  </button>
                )}
              </span>
              {open === condition.id && (
                <ShownForm
                  stand={stand}
                  today={today}
                  onChanged={(changed) => {
                    setOpen(null);
                    onChanged(changed);
                  }}
                  onClose={() => setOpen(null)}
                />
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
