import { habits } from '../../ui/habits';
import { massFigure } from '../../core/quantities/say';
import { grams } from '../../ui/words';
import { massUnit, typedGramsOrNull, typedStepG } from '../../ui/masses';
import { ChevronRight } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { Batch } from '../../core/batch/types';
import { decimalsOf } from '../../core/weighing/display';
import { useStable } from '../../ui/latest';
import type { Write } from '../../ui/writing';
import { usePan } from './pan';
import benchStyles from '../../ui/bench.module.css';

/** Bars proposed for the first weighing: from both ends and the middle of the block. */
function firstBars(batch: Batch): string[] {
  const count = batch.cut?.bars ?? 0;
  if (count < 3) return Array.from({ length: Math.max(1, count) }, (_, at) => String(at + 1));
  return ['1', String(Math.ceil(count / 2)), String(count)];
}

/** Bars weighed before, in the order of their first weighing; none yet, those proposed. */
export function barsToWeigh(batch: Batch): string[] {
  const known = [...new Set(batch.barWeighings.map(({ bar }) => bar))];
  return known.length > 0 ? known : firstBars(batch);
}

const lastOf = ({ barWeighings }: Batch, bar: string) => barWeighings.filter((one) => one.bar === bar).at(-1);

interface Props {
  batch: Batch;
  readabilityG: number;
  write: Write;
  /** Bench size: larger, for gloves. */
  isBench?: boolean;
}

/** The bar that is weighed now, and the ways on: the scale takes it by itself when it rests. */
function useRound({ batch, readabilityG, write }: Props) {
  const [bars, setBars] = useState(() => barsToWeigh(batch));
  const [at, setAt] = useState(0);
  const [isOn, setOn] = useState(false);
  const [taken, setTaken] = useState<Record<string, number>>({});
  /** The pan has to be empty before the next bar counts. */
  const [isClear, setClear] = useState(false);
  const pan = usePan(readabilityG, isOn);
  const bar = bars[at] ?? null;
  const take = useStable((massG: number, stepG: number) => {
    if (bar === null) return;
    write('barWeighed', { bar, massG, readabilityG: stepG });
    setTaken((old) => ({ ...old, [bar]: massG }));
    setAt((now) => now + 1);
    setClear(false);
  });
  const { restsG } = pan;
  const settle = useStable((rests: number | null) => {
    if (rests === 0) setClear(true);
    else if (rests !== null && rests > 0 && isClear && bar !== null)
      take(Number(rests.toFixed(decimalsOf(readabilityG))), readabilityG);
  });
  useEffect(() => {
    // What the scale says comes from outside; taking it is the answer to that, not a state of this screen alone.
    if (isOn) settle(restsG);
  }, [isOn, restsG, settle]);
  return { bars, setBars, at, setAt, bar, isOn, setOn, taken, isClear, pan, take };
}

interface TypedProps {
  bar: string;
  onTake: (massG: number, readabilityG: number) => void;
  isBench: boolean;
}

function Typed({ bar, onTake, isBench }: TypedProps) {
  const [text, setText] = useState('');
  const massG = typedGramsOrNull(text);
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (massG === null || massG <= 0) return;
        onTake(massG, typedStepG(text));
        setText('');
      }}
    >
      <label>
        <span className="eyebrow block">
          Bar {bar}, {massUnit()}
        </span>
        <input
          className={isBench ? benchStyles.benchField : 'field w-24'}
          inputMode="decimal"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <button
        type="submit"
        className={isBench ? benchStyles.benchAction : 'action'}
        disabled={massG === null || massG <= 0}
      >
        Write it down
      </button>
    </form>
  );
}

/** With its unit once it was weighed in this round; the bare figure of the last time before that. */
function weighedWords(takenG: number | undefined, lastG: number | undefined): string {
  if (takenG !== undefined) return grams(takenG);
  return lastG === undefined ? 'not yet' : massFigure(lastG, 0.1, habits().weights);
}

interface BarsProps {
  round: ReturnType<typeof useRound>;
  batch: Batch;
  action: string | undefined;
}

function Bars({ round, batch, action }: BarsProps) {
  const { bars, setBars, at, setAt, taken } = round;
  return (
    <ol className="flex flex-wrap gap-2" aria-label="Bars">
      {bars.map((bar, index) => (
        <li key={bar}>
          <button
            type="button"
            className={action}
            aria-current={index === at ? 'step' : undefined}
            onClick={() => setAt(index)}
          >
            {index === at && <ChevronRight aria-hidden="true" className="size-[1em]" strokeWidth={3} />}
            {bar}: {weighedWords(taken[bar], lastOf(batch, bar)?.massG)}
          </button>
        </li>
      ))}
      <li>
        <button
          type="button"
          className={action}
          onClick={() => {
            const next = String(Math.max(0, ...bars.map((bar) => Number(bar) || 0)) + 1);
            setBars([...bars, next]);
            setAt(bars.length);
          }}
        >
          One more bar
        </button>
      </li>
    </ol>
  );
}

/** Weighing for the cure, bar by bar, typed or by the scale. */
export function WeighBars(props: Props) {
  const { batch, isBench = false } = props;
  const round = useRound(props);
  const { bar, isOn, setOn, pan, isClear, take, taken } = round;
  const action = isBench ? benchStyles.benchAction : 'action';
  return (
    <div className="grid gap-2">
      <Bars round={round} batch={batch} action={action} />
      {isOn && (
        <p className={isBench ? benchStyles.benchReading : 'text-4xl font-semibold tabular-nums'}>
          {pan.shownG === null ? '–' : pan.shownG.toFixed(1)}
          <span className={isBench ? benchStyles.benchUnit : 'text-base'}> g</span>
        </p>
      )}
      <p role="status">
        {bar === null
          ? `${Object.keys(taken).length} bars weighed.`
          : isOn
            ? isClear
              ? `Lay bar ${bar} on; it is taken when the reading rests.`
              : 'Take everything off the pan.'
            : `Next: bar ${bar}.`}
      </p>
      <div className="flex flex-wrap items-end gap-2">
        {bar !== null && <Typed key={bar} bar={bar} onTake={take} isBench={isBench} />}
        <button type="button" className={action} onClick={() => setOn(!isOn)}>
          {isOn ? 'Without the scale' : 'By the scale'}
        </button>
      </div>
    </div>
  );
}
