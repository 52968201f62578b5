import { massUnit, typedGramsOrNull } from '../../ui/masses';
import { useState } from 'react';
import type { CountedLot } from '../../core/records/cupboard';
import { address, makeKey, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { guarded } from '../../ui/Guarded';
import { stock } from '../../ui/words';

function Row({ lot, text, onChange }: { lot: CountedLot; text: string; onChange: (text: string) => void }) {
  const counted = typedGramsOrNull(text);
  const off = counted === null ? null : counted - lot.leftG;
  return (
    <tr>
      <th scope="row">
        {lot.name} <span className="font-narrow font-normal">{lot.code}</span>
      </th>
      <td className="text-right tabular-nums">{stock(lot.leftG)}</td>
      <td className="text-right">
        <input
          className="field w-24 text-right tabular-nums"
          inputMode="decimal"
          aria-label={`Counted of ${lot.name} ${lot.code}, ${massUnit()}`}
          value={text}
          onChange={(event) => onChange(event.target.value)}
        />
      </td>
      <td className="text-right tabular-nums">
        {off === null || Math.abs(off) < 0.05 ? '' : `${off > 0 ? '+' : '−'}${stock(Math.abs(off))}`}
      </td>
    </tr>
  );
}

function useCount(first: readonly CountedLot[]) {
  const [lots, setLots] = useState(first);
  const [texts, setTexts] = useState<Record<string, string>>({});
  const [reason, setReason] = useState('Counted on the shelf');
  const [faults, setFaults] = useState<Fault[]>([]);
  const [said, setSaid] = useState<string | null>(null);
  const rows = Object.entries(texts).flatMap(([lot, text]) => {
    const leftG = typedGramsOrNull(text);
    return leftG === null ? [] : [{ lot, leftG }];
  });
  const write = async () => {
    const body = { rows, reason: reason.trim() };
    const answer = await send<{ lots: CountedLot[] }>('POST', address('lots', 'count'), body, makeKey());
    if (!answer.ok) return setFaults(answer.faults);
    setFaults([]);
    setLots(answer.body.lots);
    setTexts({});
    setSaid(`${rows.length} written down.`);
  };
  return { lots, texts, setTexts, reason, setReason, faults, said, rows, write };
}

/** The shelf, counted in one go: every lot with what the ledger says, and a place for what is really there. */
function ShelfCountIsland({ lots: first }: { lots: readonly CountedLot[] }) {
  const { lots, texts, setTexts, reason, setReason, faults, said, rows, write } = useCount(first);
  if (lots.length === 0)
    return <p className="text-soft">No lot is on file. Lots are taken down in the cupboard.</p>;
  return (
    <section aria-label="The shelf" className="sheet max-w-3xl">
      <table className="plain-table">
        <thead>
          <tr>
            <th scope="col">Lot</th>
            <th scope="col" className="text-right">
              By the ledger
            </th>
            <th scope="col" className="text-right">
              Counted, {massUnit()}
            </th>
            <th scope="col" className="text-right">
              Off
            </th>
          </tr>
        </thead>
        <tbody>
          {lots.map((lot) => (
            <Row
              key={lot.id}
              lot={lot}
              text={texts[lot.id] ?? ''}
              onChange={(text) => setTexts({ ...texts, [lot.id]: text })}
            />
          ))}
        </tbody>
      </table>
      <Faults faults={faults} />
      <div className="mt-2 flex flex-wrap items-end gap-3">
        <label>
          <span className="eyebrow block">Reason in the ledger</span>
          <input className="field w-64" value={reason} onChange={(event) => setReason(event.target.value)} />
        </label>
        <button
          type="button"
          className="action action-strong"
          disabled={rows.length === 0 || reason.trim() === ''}
          onClick={() => void write()}
        >
          Write {rows.length} down
        </button>
        {said && <p role="status">{said}</p>}
      </div>
    </section>
  );
}

export const ShelfCount = guarded('Counting the shelf', ShelfCountIsland);
