import { useState } from 'react';
import { assess } from '../../core/assess';
import type { MixPart } from '../../core/formula/mix';
import { MARKETS, type Market } from '../../core/formula/types';
import { binds } from '../../core/loads/limits';
import type { TryBar } from '../../core/records/scent';
import type { FrontierPoint } from '../../core/scent/frontier';
import { blendProgramme, type BlendDemand } from '../../core/scent/programme';
import { Select } from '../../ui/Select';
import { dayInWords, percent } from '../../ui/words';
import { daysOfChange } from '../worktable/trial';
import { partsOfMasses, tryBlend, type Bench, type Tried } from './reckoning';
import { useSolver } from './solver';
import { SolverState } from './SolverState';
import styles from './blend.module.css';

interface Props {
  bench: Bench;
  bar: TryBar;
  parts: readonly MixPart[];
  totalPct: number;
  onTake: (parts: MixPart[], totalPct: number) => void;
}

/** The names that a label has to say on a day, by their ids. */
function declaredOn(bench: Bench, { request }: Tried, onDate: string): Map<string, string> {
  const result = assess({ ...request, onDate }, bench.stored);
  const rows = result.ok ? result.assessment.declarables.filter(({ declare }) => declare) : [];
  return new Map(rows.map(({ id, name }) => [id, name]));
}

const demandOf = (names: Iterable<string>, totalPct: number): BlendDemand => ({
  mode: 'nearest',
  totalPctFats: totalPct,
  leewayPct: null,
  keepMargin: true,
  stayUnder: [...names].flatMap((id) => MARKETS.map((market: Market) => ({ market, id }))),
});

/** How much of the tightest limit a blend leaves free, percent; null where nothing binds. */
function roomOf({ assessment }: Tried): number | null {
  const rooms = assessment.limits.flatMap(({ force, headroomPct }) =>
    binds(force) && headroomPct !== null ? [headroomPct] : [],
  );
  return rooms.length > 0 ? Math.min(...rooms) : null;
}

interface Answered {
  points: readonly FrontierPoint[];
  /** Every name before anything moves, by its id. */
  names: ReadonlyMap<string, string>;
}

/** Names left against movement, a step for each blend; the one that is chosen stands out. */
function Curve({ points, names, chosen }: Answered & { chosen: number }) {
  const all = [
    { off: 0, movedPct: 0 },
    ...points.map(({ off, movedPct }) => ({ off: off.length, movedPct })),
  ];
  const most = Math.max(...all.map(({ movedPct }) => movedPct), 1);
  const [width, height, edge] = [300, 110, 12];
  const x = (movedPct: number) => edge + (movedPct / most) * (width - 2 * edge);
  const y = (off: number) => height - edge - ((names.size - off) / names.size) * (height - 2 * edge);
  const path = all
    .map(({ off, movedPct }, at) => (at === 0 ? `M${x(movedPct)} ${y(off)}` : `H${x(movedPct)} V${y(off)}`))
    .join(' ');
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className={styles.curve}
      role="img"
      aria-label="Names left against movement of the blend"
    >
      <path d={path} className={styles.step} />
      {all.map(({ off, movedPct }, at) => (
        <circle
          key={off}
          cx={x(movedPct)}
          cy={y(off)}
          r={at - 1 === chosen ? 6 : 3.5}
          className={at - 1 === chosen ? styles.chosen : styles.point}
        />
      ))}
    </svg>
  );
}

function Points({ points, names, props }: Answered & { props: Props }) {
  const [chosen, setChosen] = useState(0);
  if (points.length === 0)
    return <p role="status">No other parts of this blend name fewer within its limits.</p>;
  const take = (point: FrontierPoint) => props.onTake(partsOfMasses(point.masses), props.totalPct);
  return (
    <div role="status">
      <Curve points={points} names={names} chosen={chosen} />
      <p className="text-[0.86rem] text-soft" aria-hidden="true">
        Names left, downwards; how much of the blend moves, to the right.
      </p>
      <ul>
        {points.map((point, at) => {
          const tried = tryBlend(props.bench, props.bar, partsOfMasses(point.masses), props.totalPct);
          const room = tried && roomOf(tried);
          return (
            <li key={point.off.join()} className="border-b border-hair py-1 leading-snug">
              <label className="flex items-baseline gap-2">
                <input
                  type="radio"
                  name="fewer"
                  className="accent-ultra"
                  checked={at === chosen}
                  onChange={() => setChosen(at)}
                />
                <span>
                  <strong className="font-medium">
                    {names.size - point.off.length} of {names.size} names
                  </strong>{' '}
                  for {percent(point.movedPct)} of the blend moved
                  <span className="block text-soft">
                    without {point.off.map((id) => names.get(id) ?? id).join(', ')}
                    {room !== null && room !== undefined && `; ${percent(room)} of the tightest limit free`}
                  </span>
                </span>
              </label>
            </li>
          );
        })}
      </ul>
      <button type="button" className="action action-strong mt-2" onClick={() => take(points[chosen]!)}>
        Take these parts
      </button>
    </div>
  );
}

/** Fewer names on the label, today or on the day a list grows, for so much movement of the blend. */
export function FewerNames(props: Props) {
  const { bench, bar, parts, totalPct } = props;
  const tried = tryBlend(bench, bar, parts, totalPct);
  const [day, setDay] = useState('');
  const [asked, setAsked] = useState<{ key: string; names: ReadonlyMap<string, string> } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const { busy, reply, solve, stop } = useSolver();
  if (!tried) return null;
  const today = tried.request.onDate;
  const days = daysOfChange(bench.stored, today);
  const onDate = day || today;
  const names = declaredOn(bench, tried, onDate);
  const key = JSON.stringify([parts, totalPct, onDate, bar.id]);
  const find = () => {
    const demand = demandOf(names.keys(), totalPct);
    const made = blendProgramme({ ...tried.request, onDate }, bench.stored, tried.oils, demand);
    setFault(made.ok ? null : made.errors[0]!.message);
    setAsked({ key, names });
    if (made.ok) solve({ programme: made.programme, demand, wants: 'frontier' });
  };
  return (
    <section aria-label="Fewer names on the label" className="sheet mt-3">
      <h2 className="text-lg">Fewer names on the label</h2>
      <p>
        {names.size === 0
          ? 'Nothing of it has to be named.'
          : `${names.size} names: ${[...names.values()].join(', ')}.`}
      </p>
      {days.length > 0 && (
        <Select
          label="As the label reads on"
          value={day}
          options={[['', 'today'], ...days.map((one) => [one, dayInWords(one)] as const)]}
          onChange={setDay}
        />
      )}
      <SolverState
        {...{ busy, fault, reply }}
        words="What would each cost?"
        isHeld={names.size === 0}
        onFind={find}
        onStop={stop}
      />
      {reply?.ok && reply.wants === 'frontier' && asked?.key === key && (
        <Points key={key} points={reply.points} names={asked.names} props={props} />
      )}
    </section>
  );
}
