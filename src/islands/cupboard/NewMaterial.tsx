import { useState } from 'react';
import type { CupboardEntry, CupboardRow } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { FindMaterial } from '../../ui/FindMaterial';
import { MaterialForm } from './MaterialForm';
import { MixForm } from './MixForm';

interface Props {
  rows: readonly CupboardRow[];
  onMade: (entry: CupboardEntry) => void;
  onClose: () => void;
}

const WAYS = {
  library: 'From the starter library',
  own: 'One of your own',
  mix: 'A mix of materials',
} as const;
type Way = keyof typeof WAYS;

/** Puts a material into the cupboard: from the library, one's own, or a mix. */
export function NewMaterial({ rows, onMade, onClose }: Props) {
  const [way, setWay] = useState<Way>('library');
  const [fault, setFault] = useState<string | null>(null);
  const take = async (id: string) => {
    const answer = await send<CupboardEntry>('PUT', address('materials'), { library: id });
    if (answer.ok) onMade(answer.body);
    else setFault(answer.faults[0]!.message);
  };
  return (
    <section aria-label="A new material" className="sheet">
      <div className="flex items-baseline justify-between">
        <h2 className="text-xl">Into the cupboard</h2>
        <button type="button" className="action py-0" onClick={onClose}>
          Close, change nothing
        </button>
      </div>
      <fieldset className="flex flex-wrap gap-4 py-1">
        <legend className="sr-only">Where it comes from</legend>
        {(Object.keys(WAYS) as Way[]).map((one) => (
          <label key={one} className="flex cursor-pointer items-center gap-1">
            <input
              type="radio"
              name="way"
              className="accent-ultra"
              checked={way === one}
              onChange={() => setWay(one)}
            />
            {WAYS[one]}
          </label>
        ))}
      </fieldset>
      {way === 'library' && (
        <>
          <FindMaterial label="Find it" onFound={({ material }) => void take(material.id)} />
          <p className="mt-1 text-soft">
            Its figures are typical ones until a paper from your supplier takes their place.
          </p>
        </>
      )}
      {way === 'own' && <MaterialForm onDone={onMade} />}
      {way === 'mix' && <MixForm rows={rows} onDone={onMade} />}
      {fault && (
        <p role="alert" className="text-madder">
          {fault}
        </p>
      )}
    </section>
  );
}
