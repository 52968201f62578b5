import { useState, type ComponentType } from 'react';
import type { Change, ChangeKind, InlineEdition } from '../../core/change/types';
import { MARKETS, type Market } from '../../core/formula/types';
import { readNumberOrNull } from '../../core/quantities/number';
import type { Lot as StockLot } from '../../core/making/cost';
import type { WatchData } from '../../core/records/watch';
import { address, send, type Fault } from '../../ui/api';
import { lookAtChange } from '../../ui/look-at-change';
import { DayField } from '../../ui/DayField';
import { Faults } from '../../ui/Faults';
import { FindMaterial, type FoundMaterial } from '../../ui/FindMaterial';
import { Select } from '../../ui/Select';
import { TextField } from '../../ui/TextField';
import { dayInWords } from '../../ui/words';
import { Substitutes } from './Substitutes';

/** A paper comes by the tray; everything else is asked about here. */
type Asked = Exclude<ChangeKind, 'paper'>;

const KIND_WORDS: Record<Asked, string> = {
  swap: 'One material for another',
  day: 'Another day',
  limit: 'A stricter limit of my own',
  lot: 'A lot that is doubted',
  market: 'A bar comes to a market',
  edition: 'Another rulebook edition',
};
type LotOfMaterial = Pick<StockLot, 'id' | 'code' | 'receivedOn' | 'quarantine'>;

const lotWords = ({ code, receivedOn, quarantine }: LotOfMaterial): string =>
  `${code}, came ${dayInWords(receivedOn)}${quarantine === null ? '' : ', in quarantine'}`;

interface Form {
  data: WatchData;
  onAsk: (change: Change) => void;
}

function Look({ isReady, change, onAsk }: { isReady: boolean; change: () => Change } & Pick<Form, 'onAsk'>) {
  return (
    <button
      type="button"
      className="action action-strong mt-2"
      disabled={!isReady}
      onClick={() => onAsk(change())}
    >
      See what it touches
    </button>
  );
}

function Chosen({
  label,
  name,
  onFound,
}: {
  label: string;
  name: string | undefined;
  onFound: (found: FoundMaterial) => void;
}) {
  return (
    <div>
      <FindMaterial label={label} onFound={onFound} />
      {name && <p className="font-medium">{name}</p>}
    </div>
  );
}

function Swap({ onAsk }: Form) {
  const [from, setFrom] = useState<FoundMaterial | null>(null);
  const [to, setTo] = useState<{ id: string; name: string } | null>(null);
  const [by, setBy] = useState<'mass' | 'headroom'>('mass');
  return (
    <>
      <Chosen label="Instead of" name={from?.material.name} onFound={setFrom} />
      <Chosen label="Take" name={to?.name} onFound={({ material }) => setTo(material)} />
      {from && <Substitutes of={from.material.id} chosen={to?.id ?? null} onChoose={setTo} />}
      <Select
        label="How much of it"
        value={by}
        options={[
          ['mass', 'gram for gram'],
          ['headroom', 'at the same share of its own limit'],
        ]}
        onChange={setBy}
      />
      <Look
        isReady={from !== null && to !== null}
        change={() => ({ kind: 'swap', from: from!.material.id, to: to!.id, by })}
        onAsk={onAsk}
      />
    </>
  );
}

function Day({ data, onAsk }: Form) {
  const [day, setDay] = useState(data.today);
  return (
    <>
      <DayField label="The day" value={day} onChange={setDay} />
      <Look isReady={day !== data.today} change={() => ({ kind: 'day', onDate: day })} onAsk={onAsk} />
    </>
  );
}

function Limit({ onAsk }: Form) {
  const [found, setFound] = useState<FoundMaterial | null>(null);
  const [most, setMost] = useState('');
  const maxPct = readNumberOrNull(most);
  return (
    <>
      <Chosen label="Material" name={found?.material.name} onFound={setFound} />
      <TextField label="At most, percent of the cured bar" value={most} onChange={setMost} isNumber />
      <Look
        isReady={found !== null && maxPct !== null && maxPct >= 0 && maxPct <= 100}
        change={() => ({
          kind: 'limit',
          limit: {
            id: `own-${found!.material.id}`,
            subject: { type: 'material', id: found!.material.id },
            maxPct: maxPct!,
            basis: 'cured',
            force: 'standard',
            source: 'Your own limit',
          },
        })}
        onAsk={onAsk}
      />
    </>
  );
}

function Lot({ onAsk }: Form) {
  const [lots, setLots] = useState<{ of: string; rows: readonly LotOfMaterial[] } | null>(null);
  const [lot, setLot] = useState('');
  const [reason, setReason] = useState('');
  const [faults, setFaults] = useState<Fault[]>([]);
  const held = lots?.rows.find(({ id }) => id === lot)?.quarantine ?? null;
  const choose = async ({ material }: FoundMaterial) => {
    const answer = await send<{ lots: LotOfMaterial[] }>('GET', address('materials', material.id));
    setFaults(answer.ok || answer.status === 404 ? [] : answer.faults);
    const rows = answer.ok ? [...answer.body.lots].reverse() : [];
    setLots({ of: material.name, rows });
    setLot(rows[0]?.id ?? '');
  };
  return (
    <>
      <Chosen label="A lot of" name={lots?.of} onFound={(found) => void choose(found)} />
      <Faults faults={faults} />
      {lots?.rows.length === 0 && faults.length === 0 && <p>No lot of it is on file.</p>}
      {lots && lots.rows.length > 0 && (
        <Select
          label="Lot, the newest first"
          value={lot}
          options={lots.rows.map((one) => [one.id, lotWords(one)] as const)}
          onChange={setLot}
        />
      )}
      {held === null ? (
        <TextField label="Why it goes into quarantine" value={reason} onChange={setReason} />
      ) : (
        <p>In quarantine: {held} It would be free again.</p>
      )}
      <Look
        isReady={lot !== '' && (held !== null || reason.trim() !== '')}
        change={() => ({ kind: 'lot', lot, quarantine: held === null ? reason.trim() : null })}
        onAsk={onAsk}
      />
    </>
  );
}

function NewMarket({ data, onAsk }: Form) {
  const [product, setProduct] = useState(data.bars[0]?.id ?? '');
  const open = MARKETS.filter((one) => !data.bars.find(({ id }) => id === product)?.markets.includes(one));
  const [chosen, setMarket] = useState<Market | ''>('');
  const market = open.find((one) => one === chosen) ?? open[0];
  return (
    <>
      <Select
        label="Bar"
        value={product}
        options={data.bars.map(({ id, name }) => [id, name] as const)}
        onChange={setProduct}
      />
      {market && (
        <Select
          label="Market"
          value={market}
          options={open.map((one) => [one, one] as const)}
          onChange={setMarket}
        />
      )}
      <Look
        isReady={market !== undefined && product !== ''}
        change={() => ({ kind: 'market', product, market: market! })}
        onAsk={onAsk}
      />
    </>
  );
}

function Edition({ data, onAsk }: Form) {
  const [edition, setEdition] = useState(data.editions.find((one) => one !== data.edition) ?? data.edition);
  const [says, setSays] = useState<string | null>(null);
  const fromFile = async (file: File | undefined) => {
    if (!file) return;
    try {
      const inline = JSON.parse(await file.text()) as InlineEdition;
      setSays(null);
      onAsk({ kind: 'edition', edition: inline });
    } catch {
      setSays('This file is not JSON. Take one that was saved as an edition.');
    }
  };
  return (
    <>
      <Select
        label="On file"
        value={edition}
        options={data.editions.map((one) => [one, one] as const)}
        onChange={setEdition}
      />
      <p className="text-soft">In force: {data.edition}</p>
      <Look isReady={edition !== data.edition} change={() => ({ kind: 'edition', edition })} onAsk={onAsk} />
      <label className="action mt-2">
        From a file
        <input
          type="file"
          accept=".json,application/json"
          className="sr-only"
          onChange={(event) => void fromFile(event.target.files?.[0])}
        />
      </label>
      {says && <p role="alert">{says}</p>}
    </>
  );
}

const FORMS: Record<Asked, ComponentType<Form>> = {
  swap: Swap,
  day: Day,
  limit: Limit,
  lot: Lot,
  market: NewMarket,
  edition: Edition,
};

/** Asks what a change would touch; it is looked at on a page of its own. */
export function AskChange({ data }: { data: WatchData }) {
  const [kind, setKind] = useState<Asked>('swap');
  const [faults, setFaults] = useState<Fault[]>([]);
  const ask = async (change: Change) => setFaults(await lookAtChange(change));
  const Fields = FORMS[kind];
  return (
    <section aria-label="What would change" className="sheet grid content-start gap-2">
      <h2 className="text-lg">What would it touch?</h2>
      <Select
        label="What would change"
        value={kind}
        options={Object.entries(KIND_WORDS) as [Asked, string][]}
        onChange={(next) => {
          setKind(next);
          setFaults([]);
        }}
      />
      <Fields key={kind} data={data} onAsk={(change) => void ask(change)} />
      <p className="text-soft">
        A supplier’s paper is looked at from the{' '}
        <a className="text-ultra underline" href="/cupboard/papers">
          paper tray
        </a>
        .
      </p>
      <Faults faults={faults} />
    </section>
  );
}
