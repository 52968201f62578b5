import { useEffect, useRef, useState } from 'react';
import { MARKETS, type Material } from '../../core/formula/types';
import {
  WANTED_FACTS,
  type Everywhere,
  type EverywhereDemand,
  type WantedFact,
} from '../../core/loads/everywhere';
import type { FoundMaterial } from '../../core/records/cupboard';
import { send } from '../../ui/api';
import { newStep } from '../../ui/step';
import { dayInWords, grams, MARKET_WORDS, percent, VERDICT_WORDS } from '../../ui/words';
import type { EverywhereReply, EverywhereTask } from '../../workers/everywhere-worker';
import { useTable } from './context';
import { daysOfChange } from './trial';

const FACT_WORDS: Record<WantedFact, string> = { vegan: 'vegan', palmFree: 'free of palm' };

interface Wanted extends Omit<EverywhereDemand, 'dates'> {
  /** Whether days are kept on which rules change from now on. */
  isAhead: boolean;
}

function Box({ label, checked, onChange }: { label: string; checked: boolean; onChange: () => void }) {
  return (
    <label className="inline-flex items-baseline gap-1.5">
      <input type="checkbox" className="accent-ultra" checked={checked} onChange={onChange} />
      {label}
    </label>
  );
}

const turned = <T,>(all: readonly T[], one: T): T[] =>
  all.includes(one) ? all.filter((other) => other !== one) : [...all, one];

function Demand({
  wanted,
  days,
  onChange,
}: {
  wanted: Wanted;
  days: readonly string[];
  onChange: (wanted: Wanted) => void;
}) {
  const { markets, facts, keepMargin, isAhead } = wanted;
  return (
    <div className="grid gap-1">
      <fieldset className="flex flex-wrap gap-x-4">
        <legend className="eyebrow">Within the limits of</legend>
        {MARKETS.map((market) => (
          <Box
            key={market}
            label={MARKET_WORDS[market]}
            checked={markets.includes(market)}
            onChange={() =>
              onChange({ ...wanted, markets: MARKETS.filter((one) => turned(markets, market).includes(one)) })
            }
          />
        ))}
      </fieldset>
      <fieldset className="flex flex-wrap gap-x-4">
        <legend className="eyebrow">and</legend>
        <Box
          label="with your margin"
          checked={keepMargin}
          onChange={() => onChange({ ...wanted, keepMargin: !keepMargin })}
        />
        {WANTED_FACTS.map((fact) => (
          <Box
            key={fact}
            label={FACT_WORDS[fact]}
            checked={facts.includes(fact)}
            onChange={() => onChange({ ...wanted, facts: turned(facts, fact) })}
          />
        ))}
        {days.length > 0 && (
          <Box
            label={`also by the rules that begin by ${dayInWords(days.at(-1)!)}`}
            checked={isAhead}
            onChange={() => onChange({ ...wanted, isAhead: !isAhead })}
          />
        )}
      </fieldset>
    </div>
  );
}

type Found = Extract<Everywhere, { outcome: 'found' }>;

/** What moves, where that leads, and putting it on the table. */
function Answer({
  found,
  nameOf,
  onTake,
}: {
  found: Found;
  nameOf: (id: string) => string;
  onTake: () => void;
}) {
  const { moves, verdicts, unproven, open, lyeFollows } = found;
  const left = verdicts.filter(({ verdict }) => verdict !== 'clear');
  return (
    <div className="grid gap-1.5" role="status">
      {moves.length === 0 ? (
        <p>Nothing has to move.</p>
      ) : (
        <table className="plain-table font-narrow" aria-label="What moves">
          <tbody>
            {moves.map(({ line, material, fromG, toG }) => (
              <tr key={line}>
                <th scope="row" className="pr-3 text-left font-medium">
                  {nameOf(material)}
                </th>
                <td className="pr-3 tabular-nums">{fromG === 0 ? 'comes in' : grams(fromG)}</td>
                <td className="tabular-nums">{toG === 0 ? 'goes' : `to ${grams(toG)}`}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p>
        {left.length === 0
          ? 'Then it is clear in all of them.'
          : `Then it reads ${left.map(({ market, verdict }) => `${VERDICT_WORDS[verdict].toLowerCase()} in ${MARKET_WORDS[market]}`).join(', ')}.`}
        {unproven.length > 0 && ` No amount proves ${unproven.map(nameOf).join(', ')}: a certificate does.`}
        {lyeFollows &&
          ` The lye was stated by its mass; with other fats it follows from the superfat that it made, ${percent(found.formula.alkali.superfatPct ?? 0)}.`}
        {open.map(
          ({ fact, because }) =>
            ` Whether it is ${FACT_WORDS[fact]} is open: ask for papers of ${because.join(', ')}.`,
        )}
      </p>
      {moves.length > 0 && (
        <button type="button" className="action justify-self-start" onClick={onTake}>
          Put it on the table
        </button>
      )}
    </div>
  );
}

/** The fats of the cupboard, asked for once. */
async function fatsBeside(): Promise<Material[] | null> {
  const answer = await send<{ materials: FoundMaterial[] }>('GET', '/api/v1/materials?kinds=fat');
  return answer.ok ? answer.body.materials.map(({ material }) => material) : null;
}

/** Finding in a worker; what was found is of one formula, and gone once another lies on the table. */
function useFinding() {
  const { data, formula, material } = useTable();
  const worker = useRef<Worker | null>(null);
  const [state, setState] = useState<{
    of: unknown;
    isBusy: boolean;
    reply: EverywhereReply | null;
    beside: Material[];
  }>({
    ...{ of: null, isBusy: false, reply: null, beside: [] },
  });
  useEffect(() => () => worker.current?.terminate(), []);
  const go = async (demand: EverywhereDemand) => {
    setState({ of: formula, isBusy: true, reply: null, beside: [] });
    const beside = demand.facts.length > 0 ? await fatsBeside() : [];
    if (!beside) {
      const reply = {
        outcome: 'failed',
        message: 'the fats of the cupboard could not be asked for',
      } as const;
      return setState({ of: formula, isBusy: false, reply, beside: [] });
    }
    worker.current ??= new Worker(new URL('../../workers/everywhere-worker.ts', import.meta.url), {
      type: 'module',
    });
    const told = (reply: EverywhereReply) => setState({ of: formula, isBusy: false, reply, beside });
    worker.current.onmessage = ({ data: reply }: MessageEvent<EverywhereReply>) => told(reply);
    worker.current.onerror = () => told({ outcome: 'failed', message: 'the solver could not be started' });
    const materials = formula.lines.flatMap((line) => material(line.material) ?? []);
    const { firstPlacedOn } = data.product;
    worker.current.postMessage({
      rules: data.rules,
      materials,
      beside,
      formula,
      firstPlacedOn,
      demand,
    } satisfies EverywhereTask);
  };
  const forget = () => setState((was) => ({ ...was, of: null, reply: null }));
  return { ...state, isCurrent: state.of === formula, go, forget };
}

function Told({ reply, nameOf }: { reply: Exclude<EverywhereReply, Found>; nameOf: (id: string) => string }) {
  switch (reply.outcome) {
    case 'nothing':
      return (
        <p role="status">
          It does not go together: {reply.because.map(nameOf).join(', ')} cannot be{' '}
          {reply.facts.map((fact) => FACT_WORDS[fact]).join(' and ')}, and no other fat on the table or in the
          cupboard takes the place. Bring one in first.
        </p>
      );
    case 'error':
      return <p role="alert">{reply.errors.map(({ message }) => message).join(' ')}</p>;
    case 'failed':
      return <p role="alert">It could not be found: {reply.message}.</p>;
  }
}

/** What it would cost to be clear everywhere: the nearest formula that is, fats and loads alike. */
export function EverywherePanel() {
  const { data, formula, onDate, materialName, material, bring, change } = useTable();
  const { isBusy, isCurrent, reply, beside, go, forget } = useFinding();
  const [wanted, setWanted] = useState<Wanted>({
    markets: data.product.markets,
    keepMargin: true,
    facts: [],
    isAhead: true,
  });
  const days = daysOfChange(data.rules, onDate);
  const nameOf = (id: string) => {
    const of = formula.lines.find((line) => line.id === id)?.material ?? id;
    return material(of)?.name ?? beside.find((one) => one.id === of)?.name ?? materialName(of);
  };
  const take = (found: Found) => {
    bring(beside.filter(({ id }) => found.formula.lines.some((line) => line.material === id)));
    change(found.formula, newStep('everywhere'));
  };
  return (
    <details className="border-b border-line py-2">
      <summary className="cursor-pointer text-lg">Clear everywhere</summary>
      <section aria-label="Clear everywhere" className="grid gap-2 pt-1">
        <p className="text-soft">The nearest formula that is, moving fats and loads as little as it can.</p>
        <Demand
          wanted={wanted}
          days={days}
          onChange={(next) => {
            // What was found is of what was wanted then.
            forget();
            setWanted(next);
          }}
        />
        <button
          type="button"
          className="action justify-self-start"
          disabled={isBusy || wanted.markets.length === 0}
          onClick={() => {
            const { isAhead, ...demand } = wanted;
            void go({ ...demand, dates: isAhead ? [onDate, ...days] : [onDate] });
          }}
        >
          Find the nearest
        </button>
        {isBusy && <p role="status">Looking for it…</p>}
        {reply && isCurrent && reply.outcome === 'found' && (
          <Answer found={reply} nameOf={nameOf} onTake={() => take(reply)} />
        )}
        {reply && isCurrent && reply.outcome !== 'found' && <Told reply={reply} nameOf={nameOf} />}
      </section>
    </details>
  );
}
