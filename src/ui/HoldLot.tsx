import { useState } from 'react';
import type { Holding } from '../core/records/holding';
import { address, send } from './api';
import { Faults } from './Faults';
import { useKeeping } from './keeping';
import { TextField } from './TextField';
import { many } from './words';

const DOUBTED = 'Doubted; it is being looked into.';

/** What goes with the lot, in a sentence. */
function whatGoes(holding: Holding): string {
  const { made } = holding;
  const lots = made.length > 0 ? `It was made into ${made.map(({ code }) => code).join(', ')}. ` : '';
  return `${lots}${whereItWent(holding)}`;
}

function whereItWent({ batches }: Holding): string {
  if (batches.length === 0) return 'It went into no batch yet.';
  const sum = (of: (one: Holding['batches'][number]) => number) =>
    batches.reduce((all, one) => all + of(one), 0);
  const names = batches.map(({ productName, code }) => `${productName} ${code}`).join(', ');
  return `It went into ${many(batches.length, 'batch', 'batches')} (${names}): ${many(
    sum(({ left }) => left),
    'bar',
    'bars',
  )} here, ${sum(({ out }) => out)} out, ${many(
    sum(({ labels }) => labels),
    'label',
    'labels',
  )} issued.`;
}

/** Those that stay held for something else. */
function stillHeld({ lot, batches }: Holding): string {
  const held = batches.filter(({ isHeld, isPast }) => isHeld && !isPast);
  if (lot.quarantine !== null || held.length === 0) return '';
  return ` Still held, for another reason: ${held.map(({ code }) => code).join(', ')}.`;
}

function Ready({ lot }: { lot: string }) {
  const list = `/api/v1/withdrawal?lot=${encodeURIComponent(lot)}`;
  return (
    <p className="flex flex-wrap gap-3">
      <a className="action py-0" href={`${list}&as=pdf`}>
        Letter and list as PDF
      </a>
      <a className="action py-0" href={`${list}&as=csv`}>
        List as CSV
      </a>
    </p>
  );
}

interface Props {
  lot: string;
  code: string;
  /** Why it is held; null where it is free. */
  quarantine: string | null;
  onDone?: (holding: Holding) => void;
}

/** Holds a lot with every batch it went into, or frees them: one press, with why. */
export function HoldLot({ lot, code, quarantine: first, onDone }: Props) {
  const [holding, setHolding] = useState<Holding | null>(null);
  const [reason, setReason] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  const { busy, faults, keep } = useKeeping();
  const quarantine = holding ? holding.lot.quarantine : first;
  const isHeld = quarantine !== null;
  const look = async () => {
    const found = await send<Holding>('GET', address('lots', lot, 'hold'));
    if (found.ok) setHolding(found.body);
  };
  const why = reason.trim() || (isHeld ? '' : DOUBTED);
  const press = async () => {
    const body = { isHeld: !isHeld, reason: why, by: localStorage.getItem('proportia.by') };
    const done = await keep(() => send<Holding>('POST', address('lots', lot, 'hold'), body));
    if (!done) return;
    setHolding(done);
    setReason('');
    setSaid(
      isHeld ? `Lot ${code} and what it went into are free.${stillHeld(done)}` : `Held. ${whatGoes(done)}`,
    );
    onDone?.(done);
  };
  return (
    <details onToggle={({ currentTarget }) => currentTarget.open && holding === null && void look()}>
      <summary className="cursor-pointer text-ultra">
        {isHeld ? `Lot ${code} is held; free it` : `Hold lot ${code} and what it went into`}
      </summary>
      <div className="grid gap-2 border-l-4 border-line bg-sheet px-3 py-2">
        {said ? <p role="status">{said}</p> : <p>{holding ? whatGoes(holding) : 'Looking where it went…'}</p>}
        {isHeld && <p>Why it is held: {quarantine}</p>}
        <TextField
          label={isHeld ? 'Why it is free again' : `Why (empty: “${DOUBTED}”)`}
          value={reason}
          onChange={setReason}
        />
        <button
          type="button"
          className="action action-strong justify-self-start"
          disabled={busy || why === ''}
          onClick={() => void press()}
        >
          {isHeld ? 'Free the lot and its batches' : 'Hold lot, batches and sales'}
        </button>
        <Faults faults={faults} />
        {isHeld && <Ready lot={lot} />}
      </div>
    </details>
  );
}
