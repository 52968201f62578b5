import { useState } from 'react';
import type { MouldMake } from '../../core/heat/mould';
import { MOULD_FORMS, MOULD_WALLS } from '../../core/heat/types';
import type { Mould } from '../../core/making/size';
import { readNumberOrNull } from '../../core/quantities/number';
import { Select } from '../../ui/Select';
import { TextField } from '../../ui/TextField';
import { WALL_WORDS } from '../heat/words';

const FORM_WORDS: Record<MouldMake['form'], string> = { block: 'straight sides', column: 'round' };
const [LEAST_MM, MOST_MM] = [10, 5000];

const isFit = (mm: number | null): mm is number => mm !== null && mm >= LEAST_MM && mm <= MOST_MM;

/** What a mould is made of and how wide it is inside: what the warmth is reckoned from. */
export function MouldMakeForm({ mould, onKeep }: { mould: Mould; onKeep: (make: MouldMake) => void }) {
  const [wall, setWall] = useState<MouldMake['wall']>(mould.make?.wall ?? 'silicone');
  const [form, setForm] = useState<MouldMake['form']>(mould.make?.form ?? 'block');
  const [width, setWidth] = useState(String(mould.make?.widthMm ?? ''));
  const [length, setLength] = useState(String(mould.make?.lengthMm ?? ''));
  const widthMm = readNumberOrNull(width);
  const lengthMm = form === 'column' ? widthMm : readNumberOrNull(length);
  const said = mould.make
    ? `${WALL_WORDS[mould.make.wall]}, ${mould.make.lengthMm} × ${mould.make.widthMm} mm`
    : 'what it is made of?';
  return (
    <details className="w-full">
      <summary className="cursor-pointer text-soft">{said}</summary>
      <div className="grid grid-cols-2 items-end gap-2 pb-1">
        <Select
          label="Wall"
          value={wall}
          options={MOULD_WALLS.map((one) => [one, WALL_WORDS[one]] as const)}
          onChange={setWall}
        />
        <Select
          label="Inside"
          value={form}
          options={MOULD_FORMS.map((one) => [one, FORM_WORDS[one]] as const)}
          onChange={setForm}
        />
        <TextField
          label={form === 'column' ? 'Across, mm' : 'Width, mm'}
          value={width}
          onChange={setWidth}
          isNumber
        />
        {form === 'block' && <TextField label="Length, mm" value={length} onChange={setLength} isNumber />}
        <button
          type="button"
          className="action py-0"
          disabled={!isFit(widthMm) || !isFit(lengthMm)}
          onClick={() => onKeep({ wall, form, widthMm: widthMm!, lengthMm: lengthMm! })}
        >
          Keep
        </button>
      </div>
      <p className="eyebrow">{mould.isSingle ? 'Of one cavity.' : 'Of the whole mould.'}</p>
    </details>
  );
}
