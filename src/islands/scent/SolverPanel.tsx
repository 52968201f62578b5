import { useState, type ReactNode } from 'react';
import type { MixPart } from '../../core/formula/mix';
import type { Market } from '../../core/formula/types';
import type { AssessedDeclarable } from '../../core/formula/answer';
import { blendProgramme, type BlendDemand } from '../../core/scent/programme';
import type { TryBar } from '../../core/records/scent';
import { NumberField } from '../../ui/ReadField';
import { percent } from '../../ui/words';
import { tryBlend, type Bench } from './reckoning';
import { useSolver } from './solver';
import { SolverAnswer } from './SolverAnswer';
import { SolverState } from './SolverState';

interface Props {
  bench: Bench;
  bar: TryBar;
  parts: readonly MixPart[];
  totalPct: number;
  nameOf: (id: string) => string;
  onTake: (parts: MixPart[], totalPct: number) => void;
}

const ignore = () => undefined;

/** What is wanted of the solver, as it stands on the screen. */
interface Wanted {
  mode: BlendDemand['mode'];
  leeway: number;
  holdsParts: boolean;
  keepMargin: boolean;
  /** Market and constituent, of names that are not to be called for. */
  under: readonly string[];
}

const AT_FIRST: Wanted = { mode: 'nearest', leeway: 25, holdsParts: false, keepMargin: true, under: [] };

function demandOf({ mode, leeway, holdsParts, keepMargin, under }: Wanted, totalPct: number): BlendDemand {
  return {
    mode,
    totalPctFats: totalPct,
    leewayPct: mode === 'largest' || holdsParts ? leeway : null,
    keepMargin,
    stayUnder: under.map((key) => {
      const [market, ...id] = key.split(' ');
      return { market: market as Market, id: id.join(' ') };
    }),
  };
}

interface TickProps {
  type: 'radio' | 'checkbox';
  isOn: boolean;
  onChange: (on: boolean) => void;
  children: ReactNode;
}

function Tick({ type, isOn, onChange, children }: TickProps) {
  return (
    <label className="flex cursor-pointer items-center gap-1.5">
      <input
        type={type}
        className="accent-ultra"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
      />
      {children}
    </label>
  );
}

interface WantedProps {
  wanted: Wanted;
  set: (part: Partial<Wanted>) => void;
}

function Modes({ wanted, set, totalPct }: WantedProps & { totalPct: number }) {
  const { mode, holdsParts, leeway, keepMargin } = wanted;
  return (
    <>
      <fieldset className="grid gap-1">
        <legend className="sr-only">What is wanted</legend>
        <Tick type="radio" isOn={mode === 'nearest'} onChange={() => set({ mode: 'nearest' })}>
          {percent(totalPct)} of the fats, parts moved as little as can be
        </Tick>
        <Tick type="radio" isOn={mode === 'largest'} onChange={() => set({ mode: 'largest' })}>
          as much as the limits allow
        </Tick>
      </fieldset>
      <div className="mt-1 flex flex-wrap items-end gap-x-4">
        {mode === 'nearest' && (
          <Tick type="checkbox" isOn={holdsParts} onChange={(on) => set({ holdsParts: on })}>
            hold each part
          </Tick>
        )}
        {(mode === 'largest' || holdsParts) && (
          <NumberField
            label="Each part may move by"
            unit="% of itself"
            value={leeway}
            least={0}
            most={100}
            onChange={(value) => set({ leeway: value })}
            onFault={ignore}
          />
        )}
        <Tick type="checkbox" isOn={keepMargin} onChange={(on) => set({ keepMargin: on })}>
          keep the margin too
        </Tick>
      </div>
    </>
  );
}

function StayUnder({ wanted, set, declared }: WantedProps & { declared: readonly AssessedDeclarable[] }) {
  const { under } = wanted;
  const names = [...new Map(declared.map((row) => [`${row.market} ${row.id}`, row])).entries()];
  if (names.length === 0) return null;
  return (
    <details className="mt-1">
      <summary className="cursor-pointer text-ultra">
        Names kept off the label: {under.length > 0 ? under.length : 'none chosen'}
      </summary>
      <div className="grid grid-cols-2 gap-x-3">
        {names.map(([key, row]) => (
          <Tick
            key={key}
            type="checkbox"
            isOn={under.includes(key)}
            onChange={(on) => set({ under: on ? [...under, key] : under.filter((one) => one !== key) })}
          >
            {row.name}, {row.market}
          </Tick>
        ))}
      </div>
    </details>
  );
}

/** Asks the solver for what is wanted; told at once where the demand itself cannot be. */
function useFinding({ bench, bar, parts, totalPct }: Props) {
  const [wanted, setWanted] = useState(AT_FIRST);
  const [asked, setAsked] = useState<BlendDemand | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const solver = useSolver();
  const tried = tryBlend(bench, bar, parts, totalPct);
  const find = () => {
    if (!tried) return;
    const demand = demandOf(wanted, totalPct);
    const made = blendProgramme(tried.request, bench.stored, tried.oils, demand);
    setFault(made.ok ? null : made.errors[0]!.message);
    setAsked(demand);
    if (made.ok) solver.solve({ programme: made.programme, demand, wants: 'nearest' });
    else solver.clear();
  };
  const set = (part: Partial<Wanted>) => setWanted((all) => ({ ...all, ...part }));
  return { wanted, set, asked, fault, tried, find, ...solver };
}

/** The nearest blend that fits, or the largest; solved off the main thread. */
export function SolverPanel(props: Props) {
  const { wanted, set, asked, fault, tried, find, busy, reply, stop } = useFinding(props);
  const declared = (tried?.assessment.declarables ?? []).filter(({ declare }) => declare);
  return (
    <section aria-label="Nearest blend that fits" className="sheet">
      <h2 className="text-lg">Nearest blend that fits</h2>
      <Modes wanted={wanted} set={set} totalPct={props.totalPct} />
      <StayUnder wanted={wanted} set={set} declared={declared} />
      <SolverState {...{ busy, fault, reply }} words="Find it" isHeld={!tried} onFind={find} onStop={stop} />
      {reply?.ok && reply.wants === 'nearest' && asked && (
        <SolverAnswer {...props} answer={reply.answer} demand={asked} />
      )}
    </section>
  );
}
