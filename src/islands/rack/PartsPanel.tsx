import { massUnit, typedGramsOrNull } from '../../ui/masses';
import { useState } from 'react';
import { PART_KINDS, type PartKind } from '../../core/batch/part';
import type { CupboardEntry } from '../../core/records/cupboard';
import type { CureData } from '../../core/records/rack';
import { address, makeKey, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import type { Writing } from '../../ui/writing';
import { TextField } from '../../ui/TextField';

const PART_WORDS: Record<PartKind, string> = {
  leftover: 'Batter left over',
  trimmings: 'Trimmings',
  seconds: 'Seconds',
  embeds: 'Embeds, shavings',
};

/** What a batch left, taken into the cupboard as a material that carries its list and its batch. */
export function PartsPanel({ data, writing: { batch } }: { data: CureData; writing: Writing }) {
  const [what, setWhat] = useState<PartKind>('trimmings');
  const [mass, setMass] = useState(() => String(batch.cut?.trimmingsG ?? batch.poured?.leftoverG ?? ''));
  const [name, setName] = useState(`${data.productName} trimmings`);
  const [faults, setFaults] = useState<Fault[]>([]);
  const [made, setMade] = useState<CupboardEntry | null>(null);
  const massG = typedGramsOrNull(mass);
  if (!batch.poured) return null;
  const choose = (next: PartKind) => {
    setWhat(next);
    setName(`${data.productName} ${next}`);
    if (next === 'leftover') setMass(String(batch.poured!.leftoverG));
  };
  const make = async () => {
    const body = { what, name: name.trim(), massG };
    const answer = await send<CupboardEntry>(
      'POST',
      address('batches', data.detail.id, 'parts'),
      body,
      makeKey(),
    );
    setFaults(answer.ok ? [] : answer.faults);
    if (answer.ok) setMade(answer.body);
  };
  return (
    <details className="sheet">
      <summary className="cursor-pointer text-ultra">Make a material of what it left</summary>
      <div className="grid grid-cols-2 gap-2">
        <label>
          <span className="eyebrow block">What</span>
          <select
            className="field w-full"
            value={what}
            onChange={(event) => choose(event.target.value as PartKind)}
          >
            {PART_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {PART_WORDS[kind]}
              </option>
            ))}
          </select>
        </label>
        <TextField label={`How much, ${massUnit()}`} value={mass} onChange={setMass} isNumber />
        <TextField label="Name in the cupboard" value={name} onChange={setName} />
      </div>
      <Faults faults={faults} />
      <button
        type="button"
        className="action mt-1"
        disabled={massG === null || massG <= 0 || name.trim() === ''}
        onClick={() => void make()}
      >
        Into the cupboard
      </button>
      {made && (
        <p role="status">
          {made.material.name} stands in the cupboard with the list of this batch and a lot that leads back to
          it.{' '}
          <a
            className="text-ultra underline"
            href={`/cupboard?material=${encodeURIComponent(made.material.id)}`}
          >
            See it
          </a>
        </p>
      )}
    </details>
  );
}
