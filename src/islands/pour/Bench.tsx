import { useBenchReady } from '../../ui/bench-ready';
import { momentInWords, gramsAt } from '../../ui/words';
import { ArrowLeft, ArrowRight } from 'lucide-react';
import { Tick } from '../../ui/Tick';
import { useEffect, useState } from 'react';
import type { Batch } from '../../core/batch/types';
import type { RunStep } from '../../core/making/run-sheet-types';
import type { BenchData } from '../../core/records/batch';
import { guarded } from '../../ui/Guarded';
import { KeptMark } from '../../ui/KeptMark';
import { RestAdvice } from '../heat/RestAdvice';
import { RescuePanel } from './RescuePanel';
import { Poured, Rested, Split } from './Endings';
import { ExtraForm } from './ExtraForm';
import { Happened } from './Happened';
import { isLyeOver, isStepDone, nextStep, wantedOf } from '../../core/batch/targets';
import { inTheWay, PLACE_WORDS } from './sheet-view';
import { dropScales } from '../../ui/bench-store';
import { eventWords } from '../../ui/batch-words';
import { Temperature, Timer } from './Warmth';
import { TwinPanel } from './TwinPanel';
import { isBenchDevice } from '../../ui/session';
import { SetAsides } from '../../ui/SetAsides';
import { useLots, type BenchLots } from './lots';
import { WeighPanel } from './WeighPanel';
import { useWriting, type Writing } from '../../ui/writing';
import benchStyles from '../../ui/bench.module.css';

interface StepProps {
  data: BenchData;
  writing: Writing;
  step: RunStep;
}

/** Beside a reading, reasons stand below it on a phone, so that the numerals stay in sight; but never where lye is. */
const isBelow = ({ weigh, place }: RunStep) => weigh.length > 0 && place !== 'lye';

/** Cautions and reasons. */
function Reasons({ step }: { step: RunStep }) {
  return (
    <div className="grid gap-2">
      {step.cautions.map((caution) => (
        <p key={caution} className={benchStyles.benchCaution}>
          {caution}
        </p>
      ))}
      {step.why && <p className="text-soft">Why: {step.why}</p>}
    </div>
  );
}

/** What is weighed, split, poured or measured in a step. */
function StepWork({ data, writing, step, lots: { lots, find } }: StepProps & { lots: BenchLots }) {
  const { batch, write } = writing;
  const wanted = wantedOf(batch, step);
  const open = wanted.find((one) => isLyeOver(one) || (!one.isDone && one.skipped === null)) ?? wanted.at(-1);
  return (
    <div className="grid gap-4">
      {wanted.length > 1 && (
        <ul>
          {wanted.map((one) => (
            <li key={`${one.line} ${one.portion}`}>
              {one.isDone && <Tick />}
              {one.name} {gramsAt(one.doneG, 0.1)} of {gramsAt(one.massG, 0.1)}
              {one.skipped !== null && ', left out'}
            </li>
          ))}
        </ul>
      )}
      {open && (
        <WeighPanel
          key={`${open.line} ${open.portion}`}
          batchId={data.detail.id}
          batch={batch}
          markets={data.markets}
          step={step.id}
          wanted={open}
          lots={lots[open.material] ?? []}
          readabilityG={data.readabilityG}
          moulds={data.moulds}
          write={write}
          onFind={find}
        />
      )}
      {step.temperatureC && <Temperature step={step} batch={batch} write={write} />}
      {step.minutes !== null && step.temperatureC && step.minutes >= 10 && (
        <Timer key={step.id} id={`${data.detail.id} ${step.id}`} minutes={step.minutes} />
      )}
      {step.id === 'split' && <Split batch={batch} write={write} />}
      {step.id === 'pour' && <Poured batch={batch} moulds={data.moulds} write={write} />}
      {step.id === 'rest' && (
        <>
          <RestAdvice batch={batch} moulds={data.moulds} />
          <Rested batch={batch} write={write} />
        </>
      )}
    </div>
  );
}

function StepMoves({
  writing: { batch, write },
  step,
  onMove,
}: {
  writing: Writing;
  step: RunStep;
  onMove: (by: number) => void;
}) {
  const done = isStepDone(batch, step);
  const why = done ? null : inTheWay(batch, step);
  return (
    <div className="grid gap-2">
      {why && (
        <p role="status" className={benchStyles.benchNote}>
          {why}
        </p>
      )}
      <div className="grid grid-cols-[auto_1fr_auto] gap-2">
        <button
          type="button"
          className={benchStyles.benchAction}
          onClick={() => onMove(-1)}
          aria-label="The step before"
        >
          <ArrowLeft aria-hidden="true" />
        </button>
        {done ? (
          <button
            type="button"
            className={benchStyles.benchAction}
            onClick={() => write('stepUndone', { step: step.id })}
          >
            Done. Open it again
          </button>
        ) : (
          <button
            type="button"
            className={`${benchStyles.benchAction} ${benchStyles.benchActionStrong}`}
            disabled={why !== null}
            onClick={() => {
              write('stepDone', { step: step.id });
              onMove(1);
            }}
          >
            Done, next
          </button>
        )}
        <button
          type="button"
          className={benchStyles.benchAction}
          onClick={() => onMove(1)}
          aria-label="The step after"
        >
          <ArrowRight aria-hidden="true" />
        </button>
      </div>
    </div>
  );
}

const SEND_WORDS = {
  sent: 'All on file',
  sending: 'Writing it down',
  away: 'Kept here until the application answers',
} as const;

function Told({ writing: { batch, queue, by, setBy, asOf } }: { writing: Writing }) {
  const latest = queue.fromOthers.at(-1);
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-base">
      <p role="status">
        {SEND_WORDS[queue.state]}
        {queue.waiting.length > 0 && ` (${queue.waiting.length})`}
        {queue.why !== null && `. It says: ${queue.why}`}
        {queue.why !== null && (
          <a className="ml-2 text-ultra underline" href="/sign-in" target="_blank" rel="noreferrer">
            Sign in again
          </a>
        )}
      </p>
      {asOf !== null && (
        <p role="status">
          Without the network: as of {momentInWords(asOf)}, and what was written here since.
        </p>
      )}
      {latest && <p role="status">{eventWords(latest, batch)}</p>}
      <label className="ml-auto flex items-center gap-2">
        Who pours
        <input className="field w-28 border-b-2" value={by} onChange={(event) => setBy(event.target.value)} />
      </label>
    </div>
  );
}

/**
 * The step that lies open: the next one as the page was opened, until somebody here chooses another. Opened without the
 * network, it is the next of what was kept here, once that is there.
 */
function useStep({ batch, asOf }: Writing) {
  const { steps } = batch.sheet;
  const [chosen, setAt] = useState<number | null>(null);
  const next = nextStep(batch);
  const following = next ? steps.indexOf(next) : steps.length - 1;
  const [first] = useState(following);
  const at = chosen ?? (asOf === null ? first : following);
  const move = (by: number) => setAt(Math.min(steps.length - 1, Math.max(0, at + by)));
  return { at, step: steps[at]!, move, setAt };
}

function Finished({ batch, id }: { batch: Batch; id: string }) {
  const words = batch.state === 'stopped' ? `Given up: ${batch.stopped!.reason}` : 'Poured and put to rest.';
  return (
    <p className={benchStyles.benchNote}>
      {words}{' '}
      {isBenchDevice() ? (
        <a className="text-ultra underline" href={`/rack/${id}/cut`}>
          To the cut
        </a>
      ) : (
        <a className="text-ultra underline" href={`/pour/${id}/record`}>
          See its record
        </a>
      )}
    </p>
  );
}

/** Where hands are: what is weighed, what brings it back, what happened, what came besides. */
function Hands({ data, writing, step, lots }: StepProps & { lots: BenchLots }) {
  const { id } = data.detail;
  return (
    <div className="grid content-start gap-3">
      <StepWork key={step.id} data={data} writing={writing} step={step} lots={lots} />
      <div className="grid items-start gap-2 sm:grid-cols-2">
        <RescuePanel id={id} writing={writing} />
        <TwinPanel id={id} writing={writing} />
        <Happened batchId={id} step={step} write={writing.write} />
        <details className="sm:open:col-span-2">
          <summary className={benchStyles.benchAction}>Something extra</summary>
          <ExtraForm materials={data.materials} readabilityG={data.readabilityG} write={writing.write} />
        </details>
      </div>
    </div>
  );
}

/** One step at a time, at the bench. */
function BenchIsland({ data }: { data: BenchData }) {
  const keeping = useBenchReady();
  const writing = useWriting(data.detail);
  const lots = useLots(data, writing);
  const { batch } = writing;
  const isPoured = batch.poured !== null;
  useEffect(() => {
    if (isPoured) void dropScales(data.detail.id);
  }, [isPoured, data.detail.id]);
  const { at, step, move, setAt } = useStep(writing);
  const { steps } = batch.sheet;
  const factor = batch.scale;
  const isOver = batch.state === 'stopped' || batch.cut !== null || nextStep(batch) === null;
  return (
    <div className={benchStyles.bench}>
      <header className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-xl">
          <a className="mr-3 font-text font-normal underline sm:hidden" href="/pour">
            Pour day
          </a>
          {data.productName} <span className="font-text font-normal">{data.detail.code}</span>
        </h1>
        <p className="text-soft">
          {PLACE_WORDS[step.place]}, step {at + 1} of {steps.length}
        </p>
        <KeptMark keeping={keeping} />
      </header>
      <Told writing={writing} />
      <SetAsides writing={writing} lots={lots.lots} />
      {isOver && <Finished batch={batch} id={data.detail.id} />}
      <div className={benchStyles.benchTwo}>
        <section aria-label="The step" className="grid gap-3">
          <h2 className="text-2xl sm:text-3xl">
            {isStepDone(batch, step) && <Tick />}
            {step.title}
          </h2>
          <p className="text-lg sm:text-xl">{step.how}</p>
          {factor !== 1 && step.weigh.length > 0 && (
            <p className={benchStyles.benchNote}>
              The day is scaled by {factor.toFixed(3)}: weigh to the mark at the reading, not to the figure in
              the text.
            </p>
          )}
          <div className={isBelow(step) ? 'hidden lg:block' : undefined}>
            <Reasons step={step} />
          </div>
          <div className="hidden lg:block">
            <StepMoves writing={writing} step={step} onMove={move} />
          </div>
        </section>
        <Hands data={data} writing={writing} step={step} lots={lots} />
      </div>
      <div className="grid gap-3 lg:hidden">
        <div className="sticky bottom-0 bg-paper py-2">
          <StepMoves writing={writing} step={step} onMove={move} />
        </div>
        {isBelow(step) && <Reasons step={step} />}
      </div>
      <details>
        <summary className={benchStyles.benchAction}>All steps</summary>
        <ol className="mt-2 grid gap-1 sm:grid-cols-2">
          {steps.map((one, index) => (
            <li key={one.id}>
              <button
                type="button"
                className={`${benchStyles.benchAction} w-full justify-start text-left text-base`}
                aria-current={index === at ? 'step' : undefined}
                onClick={() => setAt(index)}
              >
                {isStepDone(batch, one) ? <Tick /> : '· '}
                {one.title}
                <span className="ml-auto text-soft">{PLACE_WORDS[one.place]}</span>
              </button>
            </li>
          ))}
        </ol>
      </details>
    </div>
  );
}

export const Bench = guarded('The bench', BenchIsland);
