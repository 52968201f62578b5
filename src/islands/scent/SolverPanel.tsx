import { useEffect, useRef, useState } from 'react';
import type { MixPart } from '../../core/formula/mix';
import type { Market } from '../../core/formula/types';
import { effectOnProduct } from '../../core/loads/limits';
import type { BlendAnswer, Bound, Demanded } from '../../core/scent/nearest';
import { blendProgramme, type BlendDemand } from '../../core/scent/programme';
import type { TryBar } from '../../core/records/scent';
import { NumberField } from '../../ui/ReadField';
import { VerdictMark } from '../../ui/VerdictMark';
import { FORCE_WORDS, percent, VERDICT_WORDS } from '../../ui/words';
import type { BlendReply, BlendTask } from '../../workers/blend-worker';
import { inWords, subjectName } from '../worktable/view';
import { tryBlend, type Bench } from './reckoning';

interface Props {
  bench: Bench;
  bar: TryBar;
  parts: readonly MixPart[];
  totalPct: number;
  nameOf: (id: string) => string;
  onTake: (parts: MixPart[], totalPct: number) => void;
}

type Found = Extract<BlendAnswer, { outcome: 'found' }>;
/** Parts of an answer are told out of so many in all. */
const PARTS_IN_ALL = 100;
const DECIMALS = 3;
const ignore = () => undefined;

function demandInWords(demanded: Demanded, nameOf: (id: string) => string): string {
  switch (demanded.kind) {
    case 'total':
      return demanded.pctFats > 0 ? `${percent(demanded.pctFats)} of the fats in all` : 'any scent at all';
    case 'leeway':
      return `${nameOf(demanded.line.replace(/^oil /, ''))} close to its part`;
    case 'threshold':
      return `${demanded.name} under the ${percent(demanded.maxPct)} at which ${demanded.market} asks for its name`;
    case 'limit': {
      const { subject, maxPct, portion } = demanded;
      const name = subject.type === 'material' ? nameOf(subject.id) : inWords(subject.id);
      return `${name} at most ${percent(maxPct)}${portion ? ` in portion ${portion}` : ''}`;
    }
  }
}

function boundInWords(bound: Bound, demand: BlendDemand, found: Found): string {
  if (demand.mode === 'largest') {
    const more = bound.looserTotalPctFats;
    return more === null || more <= found.totalPctFats + 1e-6
      ? 'ten percent more of it alone would buy nothing'
      : `ten percent more of it would let the whole go to ${percent(more)}`;
  }
  const moved = bound.looserMovedPct;
  return moved === null || moved >= found.movedPct - 1e-6
    ? 'ten percent more of it alone would change nothing'
    : `with ten percent more of it, ${percent(moved)} would change hands instead of ${percent(found.movedPct)}`;
}

/** The parts of an answer, out of a hundred, rounded. */
function partsOf(found: Found): MixPart[] {
  const total = found.masses.reduce((sum, { massG }) => sum + massG, 0);
  return found.masses.map(({ line, massG }) => ({
    material: line.replace(/^oil /, ''),
    parts: Number(((PARTS_IN_ALL * massG) / total).toFixed(DECIMALS)),
  }));
}

/** Rounded down, so that the total never lifts a load over. */
function totalOf(found: Found, demand: BlendDemand): number {
  if (demand.mode === 'nearest') return demand.totalPctFats;
  return Math.floor(found.totalPctFats * 10 ** DECIMALS) / 10 ** DECIMALS;
}

function useSolver() {
  const worker = useRef<Worker | null>(null);
  const [state, setState] = useState<{ busy: boolean; reply: BlendReply | null }>({
    busy: false,
    reply: null,
  });
  const stop = () => {
    worker.current?.terminate();
    worker.current = null;
    setState((was) => ({ ...was, busy: false }));
  };
  useEffect(() => () => worker.current?.terminate(), []);
  const solve = (task: BlendTask) => {
    worker.current ??= new Worker(new URL('../../workers/blend-worker.ts', import.meta.url), {
      type: 'module',
    });
    worker.current.onmessage = (event: MessageEvent<BlendReply>) =>
      setState({ busy: false, reply: event.data });
    worker.current.onerror = () =>
      setState({ busy: false, reply: { ok: false, message: 'the solver could not be started' } });
    setState({ busy: true, reply: null });
    worker.current.postMessage(task);
  };
  const clear = () => setState({ busy: false, reply: null });
  return { ...state, solve, stop, clear };
}

interface AnswerProps extends Props {
  answer: BlendAnswer;
  demand: BlendDemand;
}

function Answer({ answer, demand, bench, bar, nameOf, onTake }: AnswerProps) {
  if (answer.outcome === 'unbounded') return <p>No limit on file holds this blend back.</p>;
  if (answer.outcome === 'nothing') {
    return (
      <div role="status">
        <p className="font-medium">Nothing fits. These do not go together:</p>
        <ul className="list-disc pl-5">
          {answer.collide.map((one) => (
            <li key={JSON.stringify(one)}>{demandInWords(one, nameOf)}</li>
          ))}
        </ul>
      </div>
    );
  }
  const parts = partsOf(answer);
  const total = totalOf(answer, demand);
  const again = tryBlend(bench, bar, parts, total)?.assessment ?? null;
  const telling = again?.limits.find(
    ({ force, verdict }) => effectOnProduct(force, verdict) === again.verdict,
  );
  return (
    <div role="status">
      <p>
        <strong className="font-semibold">{percent(total)} of the fats</strong>
        {answer.movedPct > 0.005
          ? `, ${percent(answer.movedPct)} of the blend changes hands`
          : ', the parts as they are'}
      </p>
      <ul className="tabular-nums">
        {parts.map(({ material, parts: share }) => (
          <li key={material} className="flex justify-between border-b border-hair">
            <span>{nameOf(material)}</span>
            <span>{percent(share)}</span>
          </li>
        ))}
      </ul>
      {again && (
        <p className="mt-1 flex items-center gap-2">
          <VerdictMark verdict={again.verdict} size={16} /> Assessed again:{' '}
          {VERDICT_WORDS[again.verdict].toLowerCase()}
          {telling &&
            again.verdict !== 'clear' &&
            ` (${subjectName(telling, nameOf)}, ${FORCE_WORDS[telling.force].toLowerCase()})`}
        </p>
      )}
      {answer.bounds.length > 0 && (
        <>
          <h3 className="mt-1 font-medium">What bound it</h3>
          <ul className="list-disc pl-5 leading-snug">
            {answer.bounds.map((bound) => (
              <li key={JSON.stringify(bound.meaning)}>
                {demandInWords(bound.meaning, nameOf)};{' '}
                <span className="text-soft">{boundInWords(bound, demand, answer)}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      <button type="button" className="action action-strong mt-2" onClick={() => onTake(parts, total)}>
        Take these parts
      </button>
    </div>
  );
}

/** The nearest blend that fits, or the largest; solved off the main thread. */
export function SolverPanel(props: Props) {
  const { bench, bar, parts, totalPct, nameOf } = props;
  const [mode, setMode] = useState<BlendDemand['mode']>('nearest');
  const [leeway, setLeeway] = useState(25);
  const [holdsParts, setHoldsParts] = useState(false);
  const [keepMargin, setKeepMargin] = useState(true);
  const [under, setUnder] = useState<readonly string[]>([]);
  const [asked, setAsked] = useState<BlendDemand | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const { busy, reply, solve, stop, clear } = useSolver();
  const tried = tryBlend(bench, bar, parts, totalPct);
  const declared = (tried?.assessment.declarables ?? []).filter(({ declare }) => declare);
  const names = [...new Map(declared.map((row) => [`${row.market} ${row.id}`, row])).entries()];
  const find = () => {
    if (!tried) return;
    const stayUnder = under.map((key) => {
      const [market, ...id] = key.split(' ');
      return { market: market as Market, id: id.join(' ') };
    });
    const demand: BlendDemand = {
      mode,
      totalPctFats: totalPct,
      leewayPct: mode === 'largest' || holdsParts ? leeway : null,
      keepMargin,
      stayUnder,
    };
    const made = blendProgramme(tried.request, bench.stored, tried.oils, demand);
    setFault(made.ok ? null : made.errors[0]!.message);
    setAsked(demand);
    if (made.ok) solve({ programme: made.programme, demand });
    else clear();
  };
  return (
    <section aria-label="Nearest blend that fits" className="sheet">
      <h2 className="text-lg">Nearest blend that fits</h2>
      <fieldset className="grid gap-1">
        <legend className="sr-only">What is wanted</legend>
        <label className="flex cursor-pointer items-center gap-1.5">
          <input
            type="radio"
            name="wanted"
            className="accent-ultra"
            checked={mode === 'nearest'}
            onChange={() => setMode('nearest')}
          />
          {percent(totalPct)} of the fats, parts moved as little as can be
        </label>
        <label className="flex cursor-pointer items-center gap-1.5">
          <input
            type="radio"
            name="wanted"
            className="accent-ultra"
            checked={mode === 'largest'}
            onChange={() => setMode('largest')}
          />
          as much as the limits allow
        </label>
      </fieldset>
      <div className="mt-1 flex flex-wrap items-end gap-x-4">
        {mode === 'nearest' && (
          <label className="flex cursor-pointer items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-ultra"
              checked={holdsParts}
              onChange={(event) => setHoldsParts(event.target.checked)}
            />
            hold each part
          </label>
        )}
        {(mode === 'largest' || holdsParts) && (
          <NumberField
            label="Each part may move by"
            unit="% of itself"
            value={leeway}
            least={0}
            most={100}
            onChange={setLeeway}
            onFault={ignore}
          />
        )}
        <label className="flex cursor-pointer items-center gap-1.5">
          <input
            type="checkbox"
            className="accent-ultra"
            checked={keepMargin}
            onChange={(event) => setKeepMargin(event.target.checked)}
          />
          keep the margin too
        </label>
      </div>
      {names.length > 0 && (
        <details className="mt-1">
          <summary className="cursor-pointer text-ultra">
            Stay under the naming threshold of {under.length > 0 ? under.length : 'none yet'}
          </summary>
          <div className="grid grid-cols-2 gap-x-3">
            {names.map(([key, row]) => (
              <label key={key} className="flex cursor-pointer items-center gap-1.5">
                <input
                  type="checkbox"
                  className="accent-ultra"
                  checked={under.includes(key)}
                  onChange={(event) =>
                    setUnder((all) =>
                      event.target.checked ? [...all, key] : all.filter((one) => one !== key),
                    )
                  }
                />
                {row.name}, {row.market}
              </label>
            ))}
          </div>
        </details>
      )}
      <div className="my-2 flex gap-3">
        <button type="button" className="action" disabled={!tried || busy} onClick={find}>
          Find it
        </button>
        {busy && (
          <button type="button" className="action" onClick={stop}>
            Stop
          </button>
        )}
      </div>
      {busy && <p role="status">Solving…</p>}
      {fault && (
        <p role="alert" className="text-madder">
          {fault}
        </p>
      )}
      {reply && !reply.ok && (
        <p role="alert" className="text-madder">
          No answer: {reply.message}. Try again.
        </p>
      )}
      {reply?.ok && asked && <Answer {...props} nameOf={nameOf} answer={reply.answer} demand={asked} />}
    </section>
  );
}
