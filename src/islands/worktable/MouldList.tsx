import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { MouldMake } from '../../core/heat/mould';
import { blockMl } from '../../core/making/mould-size';
import type { Mould } from '../../core/making/size';
import { readNumber } from '../../core/quantities/number';
import { address, send } from '../../ui/api';
import { NumberIn, TextIn } from '../../ui/form/fields';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { MouldMakeForm } from './MouldMake';
import { litres } from '../../ui/words';

interface StoredMoulds {
  moulds: Mould[];
  revision: number;
}

interface Props {
  moulds: Mould[];
  /** The revision they were loaded at. */
  loaded: number;
  onChange: (moulds: Mould[]) => void;
}

interface Draft {
  name: string;
  volumeMl: string;
  cavities: string;
  /** Inside of a block, millimetres, in place of what it holds. */
  lengthMm: string;
  widthMm: string;
  heightMm: string;
}

const MOST_ML = 1e6;
const MOST_CAVITIES = 10_000;
/** A fault with any mould of the list is told at the field it is about. */
const fieldOf = (path: string) => (/\.(name|volumeMl|cavities)$/.exec(path)?.[1] as keyof Draft) ?? null;

/** One mould: what it holds, whether its bars are cut, what it is made of. Null takes it away. */
function MouldRow({ mould, onChange }: { mould: Mould; onChange: (next: Mould | null) => void }) {
  return (
    <li className="flex flex-wrap items-center justify-between border-b border-hair py-0.5">
      <span>
        {mould.name}, {litres(mould.volumeMl)}, {mould.cavities} bars
      </span>
      <button
        type="button"
        className="ml-auto min-h-6 cursor-pointer text-ultra underline"
        title="Whether its bars are cut, or each has a cavity of its own"
        onClick={() => onChange({ ...mould, isSingle: !mould.isSingle })}
      >
        {mould.isSingle ? 'single bars' : 'to be cut'}
      </button>
      <button
        type="button"
        className="icon-action"
        aria-label={`Remove ${mould.name}`}
        onClick={() => onChange(null)}
      >
        <Trash2 size={15} aria-hidden="true" />
      </button>
      <MouldMakeForm mould={mould} onKeep={(make) => onChange({ ...mould, make })} />
    </li>
  );
}

/** A mould as it was written; null where neither what it holds nor its inside can be read. */
function mouldOf({ name, volumeMl, cavities, ...inside }: Draft): Mould | null {
  const [lengthMm, widthMm] = [readNumber(inside.lengthMm), readNumber(inside.widthMm)];
  const insideMl = Math.round(blockMl(lengthMm, widthMm, readNumber(inside.heightMm)));
  const holdsMl = volumeMl.trim() === '' ? insideMl : readNumber(volumeMl);
  if (!(holdsMl >= 1 && holdsMl <= MOST_ML)) return null;
  const make: MouldMake = { wall: 'silicone', form: 'block', widthMm, lengthMm };
  return {
    id: `mould-${crypto.randomUUID().slice(0, 8)}`,
    name,
    volumeMl: holdsMl,
    cavities: readNumber(cavities),
    ...(insideMl > 0 ? { make } : {}),
  };
}

/** The maker's moulds, changed and kept on the spot. */
export function MouldList({ moulds, loaded, onChange }: Props) {
  const [revision, setRevision] = useState(loaded);
  const record = useRecordForm<Draft, StoredMoulds>({
    defaults: { name: '', volumeMl: '', cavities: '1', lengthMm: '', widthMm: '', heightMm: '' },
    fieldOf,
    onStale: (newer) => {
      setRevision(newer.revision);
      onChange(newer.moulds);
    },
  });
  const { busy, keep } = record.keeping;
  const keepAll = async (next: Mould[]) => {
    const body = { moulds: next, revision };
    const kept = await keep(() => send<StoredMoulds>('PUT', address('moulds'), body));
    if (!kept) return;
    setRevision(kept.revision);
    onChange(kept.moulds);
    record.form.reset();
  };
  const [fault, setFault] = useState<string | null>(null);
  const add = (draft: Draft) => {
    const made = mouldOf(draft);
    setFault(
      made ? null : 'Say how many millilitres it holds, or its length, width and height inside, in mm.',
    );
    return made ? keepAll([...moulds, made]) : Promise.resolve();
  };
  return (
    <details className="mt-1">
      <summary className="cursor-pointer text-ultra">My moulds</summary>
      <ul>
        {moulds.map((mould) => (
          <MouldRow
            key={mould.id}
            mould={mould}
            onChange={(next) =>
              void keepAll(moulds.flatMap((one) => (one.id !== mould.id ? [one] : next ? [next] : [])))
            }
          />
        ))}
      </ul>
      <RecordFields
        record={record}
        onKeep={add}
        label="A mould"
        className="mt-1 flex flex-wrap items-end gap-2"
      >
        <TextIn name="name" label="Name" width="w-32" needed="Give it a name." />
        <NumberIn name="volumeMl" label="Holds, mL" least={1} most={MOST_ML} />
        <NumberIn name="lengthMm" label="or inside, mm: long" width="w-16" least={1} most={5000} />
        <NumberIn name="widthMm" label="wide" width="w-14" least={1} most={5000} />
        <NumberIn name="heightMm" label="high" width="w-14" least={1} most={5000} />
        <NumberIn name="cavities" label="Bars" width="w-14" least={1} most={MOST_CAVITIES} isNeeded />
        <button type="submit" className="action py-0" disabled={busy}>
          Add
        </button>
        {fault !== null && (
          <p role="alert" className="w-full text-madder">
            {fault}
          </p>
        )}
      </RecordFields>
    </details>
  );
}
