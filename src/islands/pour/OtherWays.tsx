import { useState } from 'react';
import type { Batch } from '../../core/batch/types';
import { gramsPerSpoon, spoonName, spoonOf, spoonsSaid, type SpoonUnit } from '../../core/making/spoons';
import { readAmount } from '../../core/quantities/amount';
import { unitRule, VOLUME_UNITS } from '../../core/quantities/units';
import benchStyles from '../../ui/bench.module.css';
import { massUnit, typedGrams } from '../../ui/masses';
import { gramsAt } from '../../ui/words';
import type { Wanted } from '../../core/batch/targets';

/** What a spoon of a line's material weighs: the spoon of the formula where it names one; null where that is not known. */
export function spoonOfLine(batch: Batch, { line, material }: Wanted): Spoon | null {
  const stated = batch.formula.lines.find(({ id }) => id === line);
  const of = batch.materials.find(({ id }) => id === material);
  const unit = (stated && spoonOf(stated.amount.unit)) ?? 'tsp';
  const gramsEach = of ? gramsPerSpoon(of, unit) : null;
  return gramsEach === null ? null : { unit, gramsEach };
}

type Other = 'typed' | 'spoon' | 'heaped' | 'eye' | 'skip';
const OTHERS: readonly [Other, string][] = [
  ['typed', 'Type it in'],
  ['spoon', 'By spoon'],
  ['heaped', 'Heaped spoon'],
  ['eye', 'By eye'],
  ['skip', 'Leave it out'],
];

interface OtherWaysProps {
  name: string;
  /** What speaks against so much of the lot, in words; null where nothing does or a reason is given. */
  speaksAgainst: (massG: number) => string | null;
  /** Grams as they are typed; 0 while they are none. */
  onTyped: (massG: number) => void;
  /** What a spoon of it weighs, and which spoon; null where that is not known. */
  spoon: Spoon | null;
  onGrams: (how: Exclude<Other, 'skip'>, massG: number, said: string | null) => void;
  onSkip: (reason: string) => void;
}

/** What a spoon of a material weighs. */
interface Spoon {
  unit: SpoonUnit;
  gramsEach: number;
}

const SPOONED: ReadonlySet<Other> = new Set(['spoon', 'heaped']);

/** Grams of what was typed for a way: spoons where it is spooned and a spoon's weight is known. */
function typedFor(how: Other | null, text: string, spoon: Spoon | null): number {
  if (how === null || !SPOONED.has(how) || !spoon) return typedGrams(text);
  const read = readAmount(text, spoon.unit);
  if (!read.ok) return NaN;
  const rule = unitRule(read.amount.unit);
  if (rule?.base !== 'absolute') return NaN;
  const perMl = spoon.gramsEach / VOLUME_UNITS[spoon.unit];
  return read.amount.value * rule.factor * (rule.byVolume ? perMl : 1);
}

/** Without the scale: typed, by spoon, guessed, or left out with a reason. */
export function OtherWays({ name, speaksAgainst, onTyped, spoon, onGrams, onSkip }: OtherWaysProps) {
  const [how, setHow] = useState<Other | null>(null);
  const [text, setText] = useState('');
  const massG = typedFor(how, text, spoon);
  const isSkip = how === 'skip';
  const inSpoons = how !== null && SPOONED.has(how) && spoon !== null;
  const type = (next: string) => {
    setText(next);
    const g = typedFor(how, next, spoon);
    onTyped(!isSkip && g > 0 ? g : 0);
  };
  const against = !isSkip && massG > 0 ? speaksAgainst(massG) : null;
  const isFit = isSkip ? text.trim() !== '' : Number.isFinite(massG) && massG > 0 && against === null;
  const done = () => {
    if (!isFit) return;
    if (isSkip) onSkip(text.trim());
    else if (how)
      onGrams(how, massG, inSpoons ? spoonsSaid(massG / spoon.gramsEach, spoon.unit, how as 'spoon') : null);
    type('');
    setHow(null);
  };
  return (
    <div className="grid gap-2">
      <div className="flex flex-wrap gap-2" role="group" aria-label="Without the scale">
        {OTHERS.map(([value, words]) => (
          <button
            key={value}
            type="button"
            className={`${benchStyles.benchAction} text-base`}
            aria-pressed={how === value}
            onClick={() => setHow(how === value ? null : value)}
          >
            {words}
          </button>
        ))}
      </div>
      {how && (
        <form
          className="grid gap-2 sm:grid-cols-[1fr_auto]"
          onSubmit={(event) => {
            event.preventDefault();
            done();
          }}
        >
          <label>
            <span className="eyebrow block text-base">
              {isSkip
                ? `Why is ${name} left out?`
                : inSpoons
                  ? `${name}, ${how === 'heaped' ? 'heaped' : 'level'} ${spoonName(spoon.unit)}`
                  : `${name}, ${massUnit()}`}
            </span>
            <input
              className={benchStyles.benchField}
              inputMode={isSkip ? 'text' : 'decimal'}
              value={text}
              onChange={(event) => type(event.target.value)}
            />
          </label>
          <button type="submit" className={`${benchStyles.benchAction} self-end`} disabled={!isFit}>
            Write it down
          </button>
          {inSpoons && massG > 0 && (
            <p className="text-base text-soft sm:col-span-2">about {gramsAt(massG, 0.1)}</p>
          )}
          {against !== null && (
            <p role="alert" className={`${benchStyles.benchNote} sm:col-span-2`}>
              {against}
            </p>
          )}
        </form>
      )}
    </div>
  );
}
