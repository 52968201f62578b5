import { massUnit, typedGrams } from '../../ui/masses';
import { useState } from 'react';
import { STAGES, type Stage } from '../../core/formula/types';
import { STAGE_WORDS } from '../../ui/words';
import type { Write } from '../../ui/writing';
import { BenchField } from './BenchField';
import benchStyles from '../../ui/bench.module.css';

interface Props {
  materials: readonly { id: string; name: string }[];
  readabilityG: number;
  write: Write;
}

/** Something that was not planned: what, how much, into what, and whether it was weighed. */
export function ExtraForm({ materials, readabilityG, write }: Props) {
  const [material, setMaterial] = useState('');
  const [stage, setStage] = useState<Stage>('trace');
  const [how, setHow] = useState<'typed' | 'spoon' | 'eye'>('typed');
  const [text, setText] = useState('');
  const massG = typedGrams(text);
  const isFit = material !== '' && Number.isFinite(massG) && massG > 0;
  const add = () => {
    if (!isFit) return;
    if (how === 'typed') write('added', { material, stage, massG, how, readabilityG });
    else write('added', { material, stage, massG, how });
    setText('');
  };
  return (
    <form
      aria-label="Something extra"
      className="mt-2 grid gap-2 sm:grid-cols-2"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <label>
        <span className="eyebrow block text-base">What</span>
        <select
          className={benchStyles.benchField}
          value={material}
          onChange={(event) => setMaterial(event.target.value)}
        >
          <option value="">choose a material</option>
          {materials.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label>
        <span className="eyebrow block text-base">Into</span>
        <select
          className={benchStyles.benchField}
          value={stage}
          onChange={(event) => setStage(event.target.value as Stage)}
        >
          {STAGES.map((one) => (
            <option key={one} value={one}>
              {STAGE_WORDS[one]}
            </option>
          ))}
        </select>
      </label>
      <BenchField label={`How much, ${massUnit()}`} value={text} onChange={setText} />
      <label>
        <span className="eyebrow block text-base">How</span>
        <select
          className={benchStyles.benchField}
          value={how}
          onChange={(event) => setHow(event.target.value as typeof how)}
        >
          <option value="typed">weighed</option>
          <option value="spoon">by spoon</option>
          <option value="eye">by eye</option>
        </select>
      </label>
      <button type="submit" className={`${benchStyles.benchAction} sm:col-span-2`} disabled={!isFit}>
        Write it down
      </button>
    </form>
  );
}
