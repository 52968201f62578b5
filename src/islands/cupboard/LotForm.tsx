import { massUnit, toType, typedGrams, typedGramsOrNull } from '../../ui/masses';
import { useRef } from 'react';
import type { Lot } from '../../core/making/cost';
import { readNumberOrNull } from '../../core/quantities/number';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { DayIn, NumberIn, TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';

type Draft = Record<
  | 'supplier'
  | 'code'
  | 'receivedOn'
  | 'openedOn'
  | 'bestBefore'
  | 'quantityG'
  | 'leftG'
  | 'price'
  | 'peroxideMmolPerL'
  | 'peroxideOn',
  string
>;

const MOST_GRAMS = 1e7;
const MOST_PRICE = 1e7;
const MOST_PEROXIDE = 1000;

function draftOf(lot: Lot | null, supplier: string | null, today: string): Draft {
  return {
    supplier: lot?.supplier ?? supplier ?? '',
    code: lot?.code ?? '',
    receivedOn: lot?.receivedOn ?? today,
    openedOn: lot?.openedOn ?? '',
    bestBefore: lot?.bestBefore ?? '',
    quantityG: lot ? toType(lot.quantityG) : '',
    leftG: lot ? toType(lot.leftG) : '',
    price: lot?.price == null ? '' : String(lot.price),
    peroxideMmolPerL: lot?.peroxideMmolPerL == null ? '' : String(lot.peroxideMmolPerL),
    peroxideOn: lot?.peroxideOn ?? '',
  };
}

function bodyOf(draft: Draft) {
  const quantityG = typedGrams(draft.quantityG);
  return {
    supplier: draft.supplier,
    code: draft.code,
    receivedOn: draft.receivedOn,
    openedOn: draft.openedOn || null,
    bestBefore: draft.bestBefore || null,
    quantityG,
    leftG: typedGramsOrNull(draft.leftG) ?? quantityG,
    price: readNumberOrNull(draft.price),
    peroxideMmolPerL: readNumberOrNull(draft.peroxideMmolPerL),
    peroxideOn: draft.peroxideOn || null,
  };
}

interface Props {
  entry: CupboardEntry;
  /** The lot to change; null for a new one. */
  lot: Lot | null;
  today: string;
  onDone: (entry: CupboardEntry) => void;
  onClose: () => void;
}

/** One delivery of a material. */
export function LotForm({ entry, lot, today, onDone, onClose }: Props) {
  const revision = useRef(lot?.revision ?? 0);
  const record = useRecordForm<Draft, { stale: CupboardEntry }>({
    defaults: draftOf(lot, entry.supplier, today),
    onStale: ({ stale }) => {
      revision.current = stale.lots.find(({ id }) => id === lot?.id)?.revision ?? revision.current;
    },
  });
  const { busy, keep } = record.keeping;
  const takesUpOxygen = entry.material.concerns?.includes('oxidises') || lot?.peroxideMmolPerL != null;
  const keepIt = async (draft: Draft) => {
    const url = address('materials', entry.material.id, 'lots', ...(lot ? [lot.id] : []));
    const body = bodyOf(draft);
    const changed = { ...body, revision: revision.current };
    const kept = lot
      ? await keep(() => send<{ entry: CupboardEntry }>('PUT', url, changed))
      : await keep((key) => send<CupboardEntry>('POST', url, body, key));
    if (kept) onDone('entry' in kept ? kept.entry : kept);
  };
  return (
    <RecordFields
      record={record}
      onKeep={keepIt}
      label={lot ? `Lot ${lot.code}` : 'A new lot'}
      className="my-1 flex flex-wrap items-end gap-x-3 gap-y-1 border-l-4 border-line pl-3"
    >
      <TextIn name="code" label="Lot" width="w-32" needed="Give the code that stands on it." />
      <TextIn name="supplier" label="Supplier" width="w-32" />
      <DayIn name="receivedOn" label="Came on" needed="Say when it came." />
      <DayIn name="openedOn" label="Opened on" />
      <DayIn name="bestBefore" label="Best before" />
      <NumberIn name="quantityG" label={`Bought, ${massUnit()}`} least={0} most={MOST_GRAMS} isNeeded />
      <NumberIn name="leftG" label={`Left, ${massUnit()}`} least={0} most={MOST_GRAMS} />
      <NumberIn name="price" label="Price of it all" least={0} most={MOST_PRICE} />
      {takesUpOxygen && (
        <>
          <NumberIn
            name="peroxideMmolPerL"
            label="Peroxide by its paper, mmol/l"
            least={0}
            most={MOST_PEROXIDE}
          />
          <DayIn name="peroxideOn" label="Measured on" />
        </>
      )}
      <button type="submit" className="action py-0" disabled={busy}>
        Keep
      </button>
      <button type="button" className="action py-0" onClick={onClose}>
        Close, change nothing
      </button>
    </RecordFields>
  );
}
