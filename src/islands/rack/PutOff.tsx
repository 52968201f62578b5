import { useState } from 'react';
import { CUT_CHECK, TOO_SOFT } from '../../core/curing/window';
import { writeOne } from '../../ui/writing';

/** A cut that was tried and is put off: written down, so that the window moves. */
export function PutOff({ batch, onDone }: { batch: string; onDone: () => void }) {
  const [says, setSays] = useState<string | null>(null);
  const putOff = async () => {
    const answer = await writeOne(batch, 'checked', {
      check: CUT_CHECK,
      outcome: 'doubtful',
      value: TOO_SOFT,
    });
    if (answer.ok) onDone();
    else setSays(answer.faults[0]!.message);
  };
  return (
    <span className="ml-auto flex items-center gap-2">
      {says && (
        <span role="alert" className="text-madder">
          {says}
        </span>
      )}
      <button type="button" className="action py-0" onClick={() => void putOff()}>
        Tried, too soft
      </button>
    </span>
  );
}
