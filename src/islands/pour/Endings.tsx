import { grams } from '../../ui/words';
import { massUnit, typedGrams, typedGramsOrNull } from '../../ui/masses';
import { Check } from 'lucide-react';
import { useState } from 'react';
import { BenchField } from './BenchField';
import { lineName } from '../../core/batch/record';
import type { Batch } from '../../core/batch/types';
import type { Mould } from '../../core/making/size';
import { readNumber } from '../../core/quantities/number';
import { REST_WAYS } from '../../core/batch/types';
import { REST_WORDS } from '../../ui/batch-words';
import type { Write } from '../../ui/writing';
import benchStyles from '../../ui/bench.module.css';

/** What the split really was: grams of each part, or the shares as planned. */
export function Split({ batch, write }: { batch: Batch; write: Write }) {
  const planned = batch.formula.portions ?? [];
  const [texts, setTexts] = useState<Record<string, string>>({});
  if (batch.portions) {
    const words = batch.portions.map(({ id, share }) => `${id} ${(100 * share).toFixed(1)} %`).join(', ');
    return <p className={benchStyles.benchNote}>Split as {words}.</p>;
  }
  const masses = planned.map(({ id }) => typedGrams(texts[id] ?? ''));
  const together = masses.reduce((sum, massG) => sum + massG, 0);
  const isWhole = masses.every((massG) => massG > 0);
  return (
    <div className="grid gap-2">
      {planned.map(({ id, share }) => (
        <BenchField
          key={id}
          label={`${id}, planned ${(100 * share).toFixed(0)} %, ${massUnit()}`}
          value={texts[id] ?? ''}
          onChange={(text) => setTexts({ ...texts, [id]: text })}
        />
      ))}
      <button
        type="button"
        className={benchStyles.benchAction}
        disabled={!isWhole}
        onClick={() =>
          write('split', { portions: planned.map(({ id }, at) => ({ id, share: masses[at]! / together })) })
        }
      >
        That was the split
      </button>
      <button
        type="button"
        className={benchStyles.benchAction}
        onClick={() => write('split', { portions: planned })}
      >
        By eye, as planned
      </button>
    </div>
  );
}

/** Lines that nothing was weighed of yet: to be weighed or left out before the pour. */
const untouched = ({ lines }: Batch) =>
  lines.filter(
    ({ weighings, skipped, plannedG, stage }) =>
      weighings.length === 0 && skipped === null && (plannedG ?? 0) > 0 && stage !== 'top',
  );

/** How many of a mould a text says: nothing is none; NaN where it is no whole number. */
function mouldCount(text = ''): number {
  const count = text.trim() === '' ? 0 : readNumber(text);
  return Number.isInteger(count) && count >= 0 ? count : NaN;
}

/** Poured: into which moulds, and what was left over. */
export function Poured({ batch, moulds, write }: { batch: Batch; moulds: readonly Mould[]; write: Write }) {
  const [counts, setCounts] = useState<Record<string, string>>(() =>
    Object.fromEntries(batch.sheet.moulds.map(({ id, count }) => [id, String(count)])),
  );
  const [left, setLeft] = useState('');
  if (batch.poured)
    return (
      <p className={benchStyles.benchNote}>
        Poured. {batch.poured.leftoverG > 0 && `${grams(batch.poured.leftoverG)} were left over.`}
      </p>
    );
  const missing = untouched(batch);
  const countFault = (id: string) => (isNaN(mouldCount(counts[id])) ? 'A whole number, or nothing.' : null);
  const leftoverG = typedGramsOrNull(left) ?? 0;
  const leftFault = leftoverG >= 0 ? null : 'A weight, or nothing.';
  const poured = moulds.flatMap(({ id }) => {
    const count = mouldCount(counts[id]);
    return count > 0 ? [{ id, count }] : [];
  });
  const isFit = leftFault === null && moulds.every(({ id }) => countFault(id) === null);
  return (
    <div className="grid gap-2">
      {missing.length > 0 && (
        <div role="alert" className={benchStyles.benchCaution}>
          Nothing is written down of {missing.map((line) => lineName(batch, line)).join(', ')}. Poured like
          this, it counts as left out.
        </div>
      )}
      {moulds.map((mould) => (
        <BenchField
          key={mould.id}
          label={`${mould.name}, how many`}
          value={counts[mould.id] ?? ''}
          fault={countFault(mould.id)}
          onChange={(text) => setCounts({ ...counts, [mould.id]: text })}
        />
      ))}
      <BenchField label={`Left over, ${massUnit()}`} value={left} fault={leftFault} onChange={setLeft} />
      <button
        type="button"
        className={`${benchStyles.benchAction} ${benchStyles.benchActionStrong}`}
        disabled={!isFit}
        onClick={() => write('poured', { moulds: poured, leftoverG })}
      >
        It is poured
      </button>
    </div>
  );
}

/** How it rests. */
export function Rested({ batch, write }: { batch: Batch; write: Write }) {
  return (
    <div className="grid gap-2 sm:grid-cols-3" role="group" aria-label="How it rests">
      {REST_WAYS.map((way) => (
        <button
          key={way}
          type="button"
          className={benchStyles.benchAction}
          aria-pressed={batch.rested === way}
          onClick={() => write('rested', { way })}
        >
          {REST_WORDS[way]}
          {batch.rested === way && (
            <Check aria-hidden="true" className="ml-1.5 size-[0.9em]" strokeWidth={3} />
          )}
        </button>
      ))}
    </div>
  );
}
