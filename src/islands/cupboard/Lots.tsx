import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { Lot } from '../../core/making/cost';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { useKeeping } from '../../ui/keeping';
import { Faults } from '../../ui/Faults';
import { dayInWords, money, stock } from '../../ui/words';

interface Props {
  entry: CupboardEntry;
  today: string;
  currency: string;
  onChanged: (entry: CupboardEntry) => void;
}

type Draft = Record<
  'supplier' | 'code' | 'receivedOn' | 'openedOn' | 'bestBefore' | 'quantityG' | 'leftG' | 'price',
  string
>;

function draftOf(lot: Lot | null, supplier: string | null, today: string): Draft {
  return {
    supplier: lot?.supplier ?? supplier ?? '',
    code: lot?.code ?? '',
    receivedOn: lot?.receivedOn ?? today,
    openedOn: lot?.openedOn ?? '',
    bestBefore: lot?.bestBefore ?? '',
    quantityG: lot ? String(lot.quantityG) : '',
    leftG: lot ? String(lot.leftG) : '',
    price: lot?.price == null ? '' : String(lot.price),
  };
}

const number = (text: string) => Number(text.trim().replace(',', '.') || NaN);

function bodyOf(draft: Draft) {
  const quantityG = number(draft.quantityG);
  return {
    supplier: draft.supplier,
    code: draft.code,
    receivedOn: draft.receivedOn,
    openedOn: draft.openedOn || null,
    bestBefore: draft.bestBefore || null,
    quantityG,
    leftG: draft.leftG.trim() === '' ? quantityG : number(draft.leftG),
    price: draft.price.trim() === '' ? null : number(draft.price),
  };
}

const FIELDS: readonly (readonly [keyof Draft, string, 'text' | 'date' | 'number'])[] = [
  ['code', 'Lot', 'text'],
  ['supplier', 'Supplier', 'text'],
  ['receivedOn', 'Came on', 'date'],
  ['openedOn', 'Opened on', 'date'],
  ['bestBefore', 'Best before', 'date'],
  ['quantityG', 'Bought, g', 'number'],
  ['leftG', 'Left, g', 'number'],
  ['price', 'Price of it all', 'number'],
];

interface FormProps {
  entry: CupboardEntry;
  lot: Lot | null;
  today: string;
  onDone: (entry: CupboardEntry) => void;
  onClose: () => void;
}

function LotForm({ entry, lot, today, onDone, onClose }: FormProps) {
  const [draft, setDraft] = useState(() => draftOf(lot, entry.supplier, today));
  const [revision, setRevision] = useState(lot?.revision ?? 0);
  const { busy, faults, keep } = useKeeping<{ stale: CupboardEntry }>(({ stale }) =>
    setRevision(stale.lots.find(({ id }) => id === lot?.id)?.revision ?? revision),
  );
  const keepIt = async () => {
    const url = address('materials', entry.material.id, 'lots', ...(lot ? [lot.id] : []));
    const body = bodyOf(draft);
    const kept = lot
      ? await keep(() => send<{ entry: CupboardEntry }>('PUT', url, { ...body, revision }))
      : await keep((key) => send<CupboardEntry>('POST', url, body, key));
    if (kept) onDone('entry' in kept ? kept.entry : kept);
  };
  return (
    <form
      className="my-1 flex flex-wrap items-end gap-x-3 gap-y-1 border-l-4 border-line pl-3"
      onSubmit={(event) => {
        event.preventDefault();
        void keepIt();
      }}
    >
      {FIELDS.map(([key, label, type]) => {
        const fault = faults.find(({ path }) => path === key);
        return (
          <label key={key}>
            <span className="eyebrow block">{label}</span>
            <input
              className={`field ${type === 'number' ? 'w-20' : type === 'date' ? '' : 'w-32'}`}
              type={type === 'date' ? 'date' : 'text'}
              inputMode={type === 'number' ? 'decimal' : undefined}
              value={draft[key]}
              aria-invalid={fault ? true : undefined}
              onChange={(event) => setDraft((all) => ({ ...all, [key]: event.target.value }))}
            />
            {fault && (
              <span role="alert" className="block text-[0.82rem] text-madder">
                {fault.message}
              </span>
            )}
          </label>
        );
      })}
      <button type="submit" className="action py-0" disabled={busy}>
        Keep
      </button>
      <button type="button" className="action py-0" onClick={onClose}>
        Leave it
      </button>
      <Faults faults={faults.filter(({ path }) => !FIELDS.some(([key]) => key === path))} />
    </form>
  );
}

/** The lots of a material: which bottle of which delivery, how much is left, what it cost. */
export function LotsPanel({ entry, today, currency, onChanged }: Props) {
  const [edited, setEdited] = useState<string | 'new' | null>(null);
  const remove = async (id: string) => {
    const answer = await send<CupboardEntry>('DELETE', address('materials', entry.material.id, 'lots', id));
    if (answer.ok) onChanged(answer.body);
  };
  const done = (changed: CupboardEntry) => {
    setEdited(null);
    onChanged(changed);
  };
  return (
    <section aria-label="Lots" className="border-b border-line py-2">
      <div className="flex items-baseline justify-between">
        <h3 className="text-lg">Lots</h3>
        <button type="button" className="action py-0" onClick={() => setEdited('new')}>
          <Plus size={15} aria-hidden="true" /> A lot
        </button>
      </div>
      {edited === 'new' && (
        <LotForm entry={entry} lot={null} today={today} onDone={done} onClose={() => setEdited(null)} />
      )}
      {entry.lots.length === 0 && edited !== 'new' && (
        <p className="text-soft">
          None. A lot tells what is left, what it costs, and which bars it went into.
        </p>
      )}
      {entry.lots.length > 0 && (
        <table className="plain-table font-narrow whitespace-nowrap max-md:whitespace-normal">
          <thead>
            <tr>
              {['Lot', 'Came', 'Opened', 'Best before', 'Left', 'Price', ''].map((head) => (
                <th scope="col" key={head}>
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {entry.lots.map((lot) => (
              <tr key={lot.id}>
                <th scope="row">
                  <button
                    type="button"
                    className="cursor-pointer text-ultra underline"
                    onClick={() => setEdited(lot.id)}
                  >
                    {lot.code}
                  </button>
                </th>
                <td>{dayInWords(lot.receivedOn)}</td>
                <td>{lot.openedOn ? dayInWords(lot.openedOn) : 'closed'}</td>
                <td>{lot.bestBefore ? dayInWords(lot.bestBefore) : ''}</td>
                <td className="tabular-nums">
                  {stock(lot.leftG)} of {stock(lot.quantityG)}
                </td>
                <td className="tabular-nums">{lot.price === null ? 'none' : money(lot.price, currency)}</td>
                <td>
                  <button
                    type="button"
                    className="icon-action"
                    aria-label={`Remove lot ${lot.code}`}
                    onClick={() => void remove(lot.id)}
                  >
                    <Trash2 size={14} aria-hidden="true" />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {edited && edited !== 'new' && (
        <LotForm
          key={edited}
          entry={entry}
          lot={entry.lots.find(({ id }) => id === edited) ?? null}
          today={today}
          onDone={done}
          onClose={() => setEdited(null)}
        />
      )}
    </section>
  );
}
