import { useState } from 'react';
import { address, send } from '../../ui/api';
import { guarded } from '../../ui/Guarded';

function CalendarAddressIsland({ path: first }: { path: string }) {
  const [path, setPath] = useState(first);
  const renew = async () => {
    const answer = await send<{ path: string }>('POST', address('rack', 'calendar'));
    if (answer.ok) setPath(answer.body.path);
  };
  const whole = `${location.origin}${path}`;
  return (
    <div className="sheet grid gap-2">
      <label>
        <span className="eyebrow block">Address</span>
        <input className="field w-full" readOnly value={whole} onFocus={(event) => event.target.select()} />
      </label>
      <p className="flex flex-wrap gap-2">
        <a className="action" href={path} download="rack.ics">
          As a file
        </a>
        <button type="button" className="action" onClick={() => void renew()}>
          A new address
        </button>
      </p>
    </div>
  );
}

/** The secret address of the calendar, to be copied or made anew. */
export const CalendarAddress = guarded('The calendar’s address', CalendarAddressIsland);
