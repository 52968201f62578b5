import { useState } from 'react';
import { readNumberOrNull } from '../../core/quantities/number';
import type { RackData } from '../../core/records/rack';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { TextField } from '../../ui/TextField';

const CONFLICT = 409;
const STALE = 'Another window changed the days; these are the newer.';

/** The maker's own days: how long a bar cures at least, and how long from the pour to sale as a rule. */
export function OwnDays({ data, onSet }: { data: RackData; onSet: (data: RackData) => void }) {
  const [least, setLeast] = useState(String(data.days.least));
  const [usual, setUsual] = useState(String(data.days.usual));
  const [faults, setFaults] = useState<Fault[]>([]);
  const keep = async () => {
    const answer = await send<RackData>('PUT', address('rack', 'days'), {
      revision: data.revision,
      least: readNumberOrNull(least),
      usual: readNumberOrNull(usual),
    });
    if (!answer.ok) return setFaults(answer.faults);
    const { days } = answer.body;
    onSet(answer.body);
    setLeast(String(days.least));
    setUsual(String(days.usual));
    setFaults(answer.status === CONFLICT ? [{ path: '', message: STALE }] : []);
  };
  return (
    <details className="sheet mt-4 max-w-xl">
      <summary className="cursor-pointer text-ultra">
        Cures at least {data.days.least} days; usually for sale after {data.days.usual}
      </summary>
      <div className="grid grid-cols-2 gap-2">
        <TextField label="Cures at least, days" value={least} onChange={setLeast} isNumber />
        <TextField label="From pour to sale, days" value={usual} onChange={setUsual} isNumber />
      </div>
      <p className="text-soft">
        28 and 42 are what makers advise. Release waits for the first; what to pour next reckons with the
        second.
      </p>
      <button type="button" className="action mt-1" onClick={() => void keep()}>
        Keep these days
      </button>
      <Faults faults={faults} />
    </details>
  );
}
