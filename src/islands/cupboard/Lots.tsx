import { FlaskConical, Plus, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { Lot } from '../../core/making/cost';
import { lyeStockWords } from '../../core/making/lye-stock';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { HoldLot } from '../../ui/HoldLot';
import { RecordTable, type Column } from '../../ui/RecordTable';
import { dayInWords, money, stock } from '../../ui/words';
import { LotForm } from './LotForm';
import { madeOf, MakeLot } from './MakeLot';

interface Props {
  entry: CupboardEntry;
  today: string;
  currency: string;
  onChanged: (entry: CupboardEntry) => void;
}

const NEW = Symbol('a new lot');
const MADE = Symbol('a lot made here');

interface Actions {
  edit: (id: string) => void;
  remove: (id: string) => void;
}

function lotColumns(currency: string, { edit, remove }: Actions): Column<Lot>[] {
  const day = (read: (lot: Lot) => string | null, none: string) => ({
    cell: (lot: Lot) => (read(lot) ? dayInWords(read(lot)!) : none),
    sort: (lot: Lot) => read(lot) ?? '',
  });
  return [
    {
      id: 'code',
      header: 'Lot',
      cell: ({ id, code, strengthPct }) => (
        <>
          <button
            type="button"
            className="min-h-6 cursor-pointer whitespace-nowrap text-ultra underline"
            onClick={() => edit(id)}
          >
            {code}
          </button>
          {strengthPct != null && <span className="block">{lyeStockWords(strengthPct)}</span>}
        </>
      ),
      sort: ({ code }) => code,
    },
    { id: 'came', header: 'Came', ...day(({ receivedOn }) => receivedOn, ''), className: 'max-md:hidden' },
    { id: 'opened', header: 'Opened', ...day(({ openedOn }) => openedOn, 'closed') },
    {
      id: 'best',
      header: 'Best before',
      ...day(({ bestBefore }) => bestBefore, ''),
      className: 'max-md:hidden',
    },
    {
      id: 'left',
      header: 'Left',
      cell: ({ leftG, quantityG, quarantine }) =>
        `${stock(leftG)} of ${stock(quantityG)}${quarantine === null ? '' : ', in quarantine'}`,
      sort: ({ leftG }) => leftG,
      isNumber: true,
    },
    {
      id: 'price',
      header: 'Price',
      cell: ({ price }) => (price === null ? 'none' : money(price, currency)),
      sort: ({ price }) => price ?? -1,
      isNumber: true,
      className: 'max-md:hidden',
    },
    {
      id: 'do',
      header: '',
      cell: ({ id, code }) => (
        <span className="flex items-center gap-2">
          <a
            className="whitespace-nowrap text-ultra underline"
            href={`/pour/trace?lot=${encodeURIComponent(id)}`}
          >
            Trace<span className="sr-only"> lot {code}</span>
          </a>
          <button
            type="button"
            className="icon-action"
            aria-label={`Remove lot ${code}`}
            onClick={() => remove(id)}
          >
            <Trash2 size={14} aria-hidden="true" />
          </button>
        </span>
      ),
    },
  ];
}

/** Empty lots beyond so many are folded away. */
const FEW_EMPTY = 3;

/** The lots of a material that are shown: those in use, and the empty ones where they are few or asked for. */
function useFolded(lots: readonly Lot[]) {
  const [isWhole, setWhole] = useState(false);
  const used = lots.filter(({ leftG, quarantine }) => leftG !== 0 || quarantine !== null);
  const empty = lots.length - used.length;
  const isFolded = !isWhole && empty > FEW_EMPTY;
  return { shown: isFolded ? used : lots, folded: isFolded ? empty : 0, unfold: () => setWhole(true) };
}

type Edited = string | typeof NEW | typeof MADE;

function LotsHead({ entry, onEdit }: Pick<Props, 'entry'> & { onEdit: (what: Edited) => void }) {
  return (
    <div className="flex items-baseline justify-between">
      <h3 className="text-lg">Lots</h3>
      <span className="flex gap-2">
        {madeOf(entry) !== null && (
          <button type="button" className="action py-0" onClick={() => onEdit(MADE)}>
            <FlaskConical size={15} aria-hidden="true" /> {entry.mix ? 'Make some' : 'Make a lye stock'}
          </button>
        )}
        <button type="button" className="action py-0" onClick={() => onEdit(NEW)}>
          <Plus size={15} aria-hidden="true" /> A lot
        </button>
      </span>
    </div>
  );
}

/** The lots of a material: which bottle of which delivery, how much is left, what it cost. */
export function LotsPanel({ entry, today, currency, onChanged }: Props) {
  const [edited, setEdited] = useState<Edited | null>(null);
  const materialId = entry.material.id;
  const columns = useMemo(() => {
    const remove = async (id: string) => {
      const answer = await send<CupboardEntry>('DELETE', address('materials', materialId, 'lots', id));
      if (answer.ok) onChanged(answer.body);
    };
    return lotColumns(currency, { edit: setEdited, remove: (id) => void remove(id) });
  }, [currency, materialId, onChanged]);
  const { shown, folded, unfold } = useFolded(entry.lots);
  const refresh = async () => {
    const answer = await send<CupboardEntry>('GET', address('materials', materialId));
    if (answer.ok) onChanged(answer.body);
  };
  const lot = entry.lots.find(({ id }) => id === edited) ?? null;
  return (
    <section aria-label="Lots" className="border-b border-line py-2">
      <LotsHead entry={entry} onEdit={setEdited} />
      {edited === MADE && (
        <MakeLot
          entry={entry}
          onDone={(made) => {
            setEdited(null);
            if (made.material.id === materialId) onChanged(made);
            else location.assign(`/cupboard?material=${encodeURIComponent(made.material.id)}`);
          }}
          onClose={() => setEdited(null)}
        />
      )}
      {entry.lots.length === 0 && edited !== NEW && edited !== MADE && (
        <p className="text-soft">
          None. A lot tells what is left, what it costs, and which bars it went into.
        </p>
      )}
      {shown.length > 0 && (
        <RecordTable label="Lots on file" rows={shown} columns={columns} keyOf={({ id }) => id} />
      )}
      {folded > 0 && (
        <button type="button" className="text-ultra underline" onClick={unfold}>
          {folded} empty lots
        </button>
      )}
      {(edited === NEW || lot) && (
        <LotForm
          key={String(edited)}
          entry={entry}
          lot={lot}
          today={today}
          onDone={(changed) => {
            setEdited(null);
            onChanged(changed);
          }}
          onClose={() => setEdited(null)}
        />
      )}
      {lot && (
        <HoldLot
          key={`hold ${lot.id}`}
          lot={lot.id}
          code={lot.code}
          quarantine={lot.quarantine}
          onDone={() => void refresh()}
        />
      )}
    </section>
  );
}
