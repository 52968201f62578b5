import { useEffect, useState } from 'react';
import type { Batch } from '../../core/batch/types';
import type { Market } from '../../core/formula/types';
import type { Lot } from '../../core/making/cost';
import { shortLiquid, shortWords } from '../../core/batch/told';
import { exactness } from '../../core/making/exact';
import type { Mould } from '../../core/making/size';
import { massFigure } from '../../core/quantities/say';
import { decimalsOf } from '../../core/weighing/display';
import type { Following } from '../../core/weighing/follow';
import { NEAR_ZERO } from '../../core/weighing/scale';
import { lastingDoubtG } from '../../core/weighing/tare';
import benchStyles from '../../ui/bench.module.css';
import { habits } from '../../ui/habits';
import { useStable } from '../../ui/latest';
import { Straightedge } from '../../ui/Straightedge';
import { gramsAt } from '../../ui/words';
import type { Write } from '../../ui/writing';
import { AtThisDevice } from './AtThisDevice';
import { FromLot, useFromLot } from './FromLot';
import type { BenchLots } from './lots';
import { OtherWays, spoonOfLine } from './OtherWays';
import { Overshoot } from './Overshoot';
import { useScale, type BenchScale } from './scale';
import type { Wanted } from '../../core/batch/targets';

interface Props {
  batchId: string;
  batch: Batch;
  markets: Market[];
  moulds: readonly Mould[];
  step: string;
  wanted: Wanted;
  lots: readonly Lot[];
  readabilityG: number;
  write: Write;
  onFind: BenchLots['find'];
}

const STATE_WORDS = {
  ok: null,
  asleep: 'The scale is asleep. Wake it; what is held is kept.',
  overloaded: 'Too heavy for this scale.',
  unplugged: 'The scale is unplugged.',
  away: 'No scale is heard. Type the weight in, or wait for it.',
} as const;

interface Asked {
  says: string;
  yes: string;
  no: string;
}

/** What is asked, with what each answer would make of what the display shows. */
function questionWords({ question, recent, offsetG, readabilityG }: Following): Asked {
  const { code, wasG } = question!;
  const g = (value: number) => gramsAt(value, readabilityG);
  const shownG = (recent.at(-1)?.g ?? offsetG) - offsetG;
  const isAtZero = Math.abs(shownG) <= NEAR_ZERO * readabilityG;
  if (code === 'zeroed')
    return {
      says: `Zero was pressed with ${g(wasG)} in the vessel. It is carried on from there.`,
      yes: 'Right, carry on',
      no: 'No, begin at zero',
    };
  if (code === 'emptied')
    return {
      says: `The scale shows zero. If the vessel is back and empty: did the ${g(wasG)} go into the pot? If it is still off, put it back and nothing is asked.`,
      yes: 'Yes, count on from there',
      no: 'No, begin at zero',
    };
  if (isAtZero)
    return {
      says: `The scale came back at zero after a while in which it was not heard. Before, it held ${g(wasG)}. Does the same vessel still stand there?`,
      yes: `Yes, ${g(wasG)} are in it`,
      no: 'No, it is empty',
    };
  return {
    says: `The scale was not heard for a while. Before, it held ${g(wasG)}; now the display says ${g(shownG)}. Was zero pressed in between?`,
    yes: `Yes: ${g(wasG + shownG)} in all`,
    no: `No: ${g(shownG + offsetG)} in all`,
  };
}

function Question({ scale }: { scale: BenchScale }) {
  const { following } = scale;
  if (!following.question || !scale.isBegun) return null;
  const { says, yes, no } = questionWords(following);
  return (
    <div role="alert" className={benchStyles.benchNote}>
      <p>{says}</p>
      <div className="mt-2 grid gap-2 sm:grid-cols-2">
        <button type="button" className={benchStyles.benchAction} onClick={() => scale.answer(true)}>
          {yes}
        </button>
        <button type="button" className={benchStyles.benchAction} onClick={() => scale.answer(false)}>
          {no}
        </button>
      </div>
    </div>
  );
}

/** How exact it must be, and why, in one line. */
function Exact({ batch, wanted, readabilityG }: Pick<Props, 'batch' | 'wanted' | 'readabilityG'>) {
  const measure = batch.formula.lines.find(({ id }) => id === wanted.line)?.measuredBy ?? 'scale';
  const { how, fromG, toG, pct, why } = exactness(wanted, measure);
  const range = `${gramsAt(fromG, readabilityG)} to ${gramsAt(toG, readabilityG)}`;
  const said = {
    gram: `To the gram: ${range}`,
    within: `Within ${Number(pct.toFixed(1))} %: ${range}`,
    spoon: 'By spoon is fine',
    heaped: 'A heaped spoon is fine',
    eye: 'By eye is fine',
  }[how];
  return (
    <p className="text-base">
      {said}; {why}.
    </p>
  );
}

/** What is in the vessel, in numerals for two metres, and against what is wanted. */
function Held({ scale, wanted, readabilityG }: { scale: BenchScale; wanted: Wanted; readabilityG: number }) {
  const { doubtG, settled } = scale.following;
  const heldG = scale.isBegun ? scale.following.heldG : 0;
  const togetherG = wanted.doneG + heldG;
  const leftG = wanted.massG - togetherG;
  const ratio = (g: number) => Math.max(0, g) / (wanted.massG || 1);
  const rest =
    Math.abs(leftG) <= Math.max(wanted.underG, wanted.overG)
      ? 'That is it'
      : leftG > 0
        ? `${gramsAt(leftG, readabilityG)} still to come`
        : `${gramsAt(-leftG, readabilityG)} too much`;
  return (
    <div>
      <p
        className={benchStyles.benchReading}
        data-held={heldG.toFixed(2)}
        data-settled={settled}
        data-begun={scale.isBegun}
      >
        {massFigure(togetherG, readabilityG, habits().weights)}
        <span className={benchStyles.benchUnit}>of {gramsAt(wanted.massG, readabilityG)}</span>
      </p>
      <div className={benchStyles.benchEdge}>
        <Straightedge
          load={{
            low: ratio(togetherG - doubtG),
            nominal: ratio(togetherG),
            high: ratio(togetherG + doubtG),
          }}
          margin={Math.min(0.5, wanted.underG / (wanted.massG || 1))}
          label={`${gramsAt(togetherG, readabilityG)} of ${gramsAt(wanted.massG, readabilityG)}`}
        />
      </div>
      <p role="status" className="text-2xl font-semibold">
        {rest}
        <span className="block text-base font-normal text-soft">
          {!scale.isBegun
            ? `Put the ${wanted.vessel} on and press zero; the scale shows ${gramsAt(scale.following.heldG, readabilityG)}.`
            : settled
              ? 'The reading rests.'
              : 'Wait until the reading rests.'}
        </span>
      </p>
    </div>
  );
}

const BY_ITSELF_KEY = 'proportia.takes-by-itself';

/** Takes a reading by itself once it rests on what is wanted; whether it does is kept on this device. */
function useTakenByItself(isReady: boolean, take: () => void) {
  const [isOn, setOn] = useState(() => localStorage.getItem(BY_ITSELF_KEY) === 'yes');
  const taken = useStable(take);
  useEffect(() => {
    if (!isOn || !isReady) return;
    const timer = setTimeout(taken, RESTS_MS);
    return () => clearTimeout(timer);
  }, [isOn, isReady, taken]);
  const set = (next: boolean) => {
    localStorage.setItem(BY_ITSELF_KEY, next ? 'yes' : 'no');
    setOn(next);
  };
  return [isOn, set] as const;
}

/** A reading on the mark is left so long before it is taken by itself: a last drop may still come. */
const RESTS_MS = 1500;

function ByItself({ isOn, set }: { isOn: boolean; set: (isOn: boolean) => void }) {
  return (
    <label className="flex min-h-14 items-center gap-3">
      <input
        type="checkbox"
        className="accent-ultra"
        checked={isOn}
        onChange={(event) => set(event.target.checked)}
      />
      Written down by itself when it rests on the mark
    </label>
  );
}

/** One thing to weigh: the reading, what is still to come, from which lot, and the ways without a scale. */
export function WeighPanel(props: Props) {
  const { batchId, batch, step, wanted, lots, write } = props;
  const scale = useScale(batchId, `${wanted.line} ${wanted.portion ?? ''}`, props.readabilityG);
  const { following, state } = scale;
  const [typedG, setTypedG] = useState(0);
  /** As the display is seen to move, whatever was said of it. */
  const { readabilityG } = following;
  const takeG = Number(following.heldG.toFixed(decimalsOf(readabilityG)));
  const most = Math.max(wanted.massG - wanted.doneG, scale.isBegun ? takeG : 0, typedG, 0);
  const from = useFromLot(batch, wanted.material, lots, most);
  const { against, hasReason } = from;
  const drawn = { line: wanted.line, portion: wanted.portion, step, ...from.drawn };
  const take = () => {
    write('weighed', { ...drawn, massG: takeG, readabilityG, how: 'scale' });
    scale.tare();
  };
  const canTake = scale.isBegun && following.settled && takeG > 0;
  const isOnMark =
    takeG + wanted.doneG >= wanted.massG - wanted.underG &&
    takeG + wanted.doneG <= wanted.massG + wanted.overG;
  const isBlocked = against(takeG) !== null && !hasReason;
  const [takesByItself, setTakesByItself] = useTakenByItself(
    canTake && isOnMark && !isBlocked && following.question === null,
    take,
  );
  const spoon = spoonOfLine(batch, wanted);
  // What is in the vessel and rests counts as if it were written down.
  const wouldBeG = wanted.doneG + (canTake ? takeG : 0);
  const short = shortLiquid(batch, wanted.line, wouldBeG, wanted.massG, wanted.underG);
  const words = STATE_WORDS[state];
  const lostG = scale.isBegun ? lastingDoubtG(following) : null;
  return (
    <section aria-label={`Weigh ${wanted.name}`} className="grid gap-3">
      <h3 className="text-2xl">
        {wanted.name}{' '}
        <span className="font-text text-base font-normal text-soft">into the {wanted.vessel}</span>
      </h3>
      <Exact batch={batch} wanted={wanted} readabilityG={readabilityG} />
      <Held scale={scale} wanted={wanted} readabilityG={readabilityG} />
      {words && <p className={benchStyles.benchNote}>{words}</p>}
      {lostG !== null && (
        <p role="alert" className={benchStyles.benchNote}>
          Zero was pressed while it was running in: the mass is only known to {gramsAt(lostG, 0.1)} either
          way. Type in what you take it for, or empty the vessel and set it to zero.
        </p>
      )}
      <Question scale={scale} />
      <div className="grid gap-2 sm:grid-cols-[2fr_1fr]">
        <button
          type="button"
          className={`${benchStyles.benchAction} ${benchStyles.benchActionStrong}`}
          disabled={!canTake || isBlocked}
          onClick={take}
        >
          Write down {gramsAt(scale.isBegun ? following.heldG : 0, readabilityG)}
        </button>
        <button type="button" className={benchStyles.benchAction} onClick={scale.tare}>
          Empty vessel: zero
        </button>
      </div>
      {short && <p className={benchStyles.benchNote}>{shortWords(short)}</p>}
      <ByItself isOn={takesByItself} set={setTakesByItself} />
      <FromLot from={from} lots={lots} onFind={(quantityG) => props.onFind(wanted.material, quantityG)} />
      <OtherWays
        name={wanted.name}
        onTyped={setTypedG}
        speaksAgainst={(massG) => (hasReason ? null : against(massG))}
        spoon={spoon}
        onGrams={(how, massG, said) =>
          how === 'typed'
            ? write('weighed', { ...drawn, massG, readabilityG, how })
            : write('guessed', { ...drawn, massG, how, ...(said ? { said } : {}) })
        }
        onSkip={(reason) => write('skipped', { line: wanted.line, reason })}
      />
      <AtThisDevice serial={scale.serial} />
      <Overshoot {...props} />
    </section>
  );
}
