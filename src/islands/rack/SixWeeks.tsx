/** Six weeks of pours, planned by the solver, with what binds them; and what a plan made by hand costs beside it. */
import { useEffect, useMemo, useRef, useState } from 'react';
import { dayAfter, weekdayOf } from '../../core/quantities/day';
import type { NextData } from '../../core/records/next';
import {
  missedBy,
  PLANNED_DAYS,
  type Binding,
  type PlanAsk,
  type SixWeeks,
} from '../../core/stock/six-weeks';
import { isOffered } from '../../core/stock/tonight';
import { dayInWords, grams, many } from '../../ui/words';
import type { SixWeeksReply } from '../../workers/six-weeks-worker';
import type { Plans } from './NextDesk';

/** Days until an order is here. */
const ORDER_DAYS = 7;

const WEEKDAYS = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'] as const;
const MONDAY_FIRST = [1, 2, 3, 4, 5, 6, 0] as const;

const BINDING_WORDS: Record<Binding['what'], string> = {
  evenings: 'One more evening a week',
  room: 'Half as much room again',
  stock: 'Having everything here at once',
};

const bars = (count: number) => many(count, 'bar');
const about = (count: number) => `about ${bars(Math.round(count))}`;

/** What is planned is of the bars that can be sold as they stand, and known how many a pour makes. */
function askOf({ bars: all, today, cureDays, evenings, room, wanted, materials }: NextData): PlanAsk {
  return {
    today,
    cureDays,
    evenings,
    room,
    orderDays: ORDER_DAYS,
    lots: Object.fromEntries(Object.entries(materials).map(([id, { lots }]) => [id, lots])),
    bars: all.filter(isOffered).flatMap(({ id, pace, ready, curing, barsAPour, massG }) =>
      barsAPour === null
        ? []
        : [
            {
              ...{ id, perWeek: pace.perWeek, ready, coming: curing, massG, bars: barsAPour },
              wanted: wanted.filter(({ product, day }) => product === id && day >= today),
            },
          ],
    ),
  };
}

/** The solver's answer, for what it was asked. */
function usePlanning() {
  const [state, setState] = useState<{ of: string | null; isBusy: boolean; reply: SixWeeksReply | null }>({
    of: null,
    isBusy: false,
    reply: null,
  });
  const worker = useRef<Worker | null>(null);
  const end = () => {
    worker.current?.terminate();
    worker.current = null;
  };
  useEffect(() => end, []);
  const go = (ask: PlanAsk) => {
    const of = JSON.stringify(ask);
    setState({ of, isBusy: true, reply: null });
    worker.current ??= new Worker(new URL('../../workers/six-weeks-worker.ts', import.meta.url), {
      type: 'module',
    });
    const told = (reply: SixWeeksReply) => setState({ of, isBusy: false, reply });
    worker.current.onmessage = ({ data }: MessageEvent<SixWeeksReply>) => told(data);
    worker.current.onerror = () => told({ ok: false, message: 'the solver could not be started' });
    worker.current.postMessage(ask);
  };
  const stop = () => {
    end();
    setState({ of: null, isBusy: false, reply: null });
  };
  return { ...state, go, stop };
}

function Limits({ data, keep }: { data: NextData; keep: (plans: Partial<Plans>) => void }) {
  const { evenings, room } = data;
  const [text, setText] = useState(room === null ? '' : String(room));
  const isCount = /^(?:[1-9]\d{0,4})?$/.test(text.trim());
  const turned = (day: number) =>
    evenings.includes(day) ? evenings.filter((one) => one !== day) : [...evenings, day];
  return (
    <div className="flex flex-wrap items-end gap-x-6 gap-y-2">
      <fieldset className="flex flex-wrap gap-x-3">
        <legend className="eyebrow">Time for a pour on</legend>
        {MONDAY_FIRST.map((day) => (
          <label key={day} className="inline-flex min-h-6 items-baseline gap-1.5">
            <input
              type="checkbox"
              className="accent-ultra"
              checked={evenings.includes(day)}
              onChange={() => keep({ evenings: turned(day) })}
            />
            {WEEKDAYS[day]}
          </label>
        ))}
      </fieldset>
      <label>
        <span className="eyebrow block">Bars that have room to cure</span>
        <input
          className="field w-28"
          inputMode="numeric"
          placeholder="no limit"
          aria-invalid={!isCount}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => isCount && keep({ room: text.trim() === '' ? null : Number(text) })}
        />
      </label>
      {!isCount && <span className="text-madder">Give a whole number of bars, or leave it empty.</span>}
    </div>
  );
}

/** What binds a plan, what it has to have ordered, and what goes off beside it. */
function Beside({ plan, data }: { plan: SixWeeks; data: NextData }) {
  const amount = (material: string, massG: number) =>
    `${data.materials[material]?.name ?? material} ${grams(massG)}`;
  return (
    <ul>
      {plan.binds.map(({ what, saved }) => (
        <li key={what}>
          {BINDING_WORDS[what]} would save {about(saved)} more.
        </li>
      ))}
      {plan.order.length > 0 && (
        <li>
          To order:{' '}
          {plan.order
            .map(({ material, massG, by }) => `${amount(material, massG)} by ${dayInWords(by)}`)
            .join(', ')}
          .
        </li>
      )}
      {plan.unused.length > 0 && (
        <li>
          Goes off before any of these pours takes it:{' '}
          {plan.unused
            .map(({ material, massG, until }) => `${amount(material, massG)} on ${dayInWords(until)}`)
            .join(', ')}
          .
        </li>
      )}
    </ul>
  );
}

function Found({
  plan,
  data,
  keep,
}: {
  plan: SixWeeks;
  data: NextData;
  keep: (plans: Partial<Plans>) => void;
}) {
  const [before, setBefore] = useState<NextData['planned'] | null>(null);
  const barOf = (id: string) => data.bars.find((bar) => bar.id === id);
  const until = dayAfter(data.today, PLANNED_DAYS);
  const own = data.planned.filter(({ day }) => day >= data.today && day < until);
  const take = () => {
    setBefore(data.planned);
    const pours = plan.pours.map(({ product, day }) => ({
      ...{ id: crypto.randomUUID(), product, day, bars: barOf(product)?.barsAPour ?? 1 },
    }));
    keep({ planned: [...data.planned.filter((one) => !own.includes(one)), ...pours] });
  };
  if (plan.pours.length === 0)
    return <p role="status">No pour of these six weeks would save sales enough to be worth its evening.</p>;
  return (
    <div className="grid gap-2">
      <p role="status">
        {plan.pours.length} pours. At the paces as far as they are known, {about(plan.missed)} would be missed
        or lie too long; were nothing poured, {about(plan.missedWithout)}.
        {!plan.isBest && ' It is the best that was found in ten seconds; there may be a better one.'}
        {plan.leftOut > 0 && ` Of ${plan.leftOut} more bars, which miss less, no pour was looked at.`}
        {plan.gone >= 0.5 && ` Of either, ${about(plan.gone)} before a pour of tonight could be ready.`}
      </p>
      <ol className="columns-1 gap-8 sm:columns-2 lg:columns-3" aria-label="The plan">
        {plan.pours.map(({ product, day }) => (
          <li key={day} className="break-inside-avoid">
            {WEEKDAYS[weekdayOf(day)]} {dayInWords(day)}:{' '}
            <span className="font-medium">{barOf(product)?.name}</span>,{' '}
            {bars(barOf(product)?.barsAPour ?? 0)}
          </li>
        ))}
      </ol>
      <Beside plan={plan} data={data} />
      <p className="flex flex-wrap gap-3">
        <button type="button" className="action action-strong" onClick={take}>
          {own.length > 0 ? `Plan these in the place of ${own.length} planned` : 'Plan these pours'}
        </button>
        {before && (
          <button
            type="button"
            className="action"
            onClick={() => {
              keep({ planned: before });
              setBefore(null);
            }}
          >
            Put back what was planned
          </button>
        )}
      </p>
    </div>
  );
}

/** What the pours that stand on the lines miss, and how much of it the best plan would not. */
function ByHand({ data, ask, best }: { data: NextData; ask: PlanAsk; best: SixWeeks | null }) {
  const missed = useMemo(() => missedBy(ask, data.planned), [ask, data.planned]);
  if (data.planned.length === 0) return null;
  const more = best ? missed - best.missed : 0;
  return (
    <p>
      As the pours stand on the lines below, {about(missed)} would be missed or lie too long
      {best && (more >= 0.5 ? `: ${about(more)} more than by the plan here` : ', as few as by the plan here')}
      .
    </p>
  );
}

export function SixWeeksPlan({ data, keep }: { data: NextData; keep: (plans: Partial<Plans>) => void }) {
  const ask = useMemo(() => askOf(data), [data]);
  const { of, isBusy, reply, go, stop } = usePlanning();
  const isCurrent = of === JSON.stringify(ask);
  return (
    <section aria-label="Six weeks" className="sheet grid gap-2">
      <h2 className="text-lg">Six weeks of pours</h2>
      <Limits data={data} keep={keep} />
      <p className="flex gap-3">
        <button
          type="button"
          className="action"
          disabled={isBusy || data.evenings.length === 0}
          onClick={() => go(ask)}
        >
          Find the best plan
        </button>
        {isBusy && (
          <button type="button" className="action" onClick={stop}>
            Stop
          </button>
        )}
      </p>
      {isBusy && <p role="status">Trying plans… a few seconds, with many bars longer.</p>}
      {reply && !isCurrent && <p className="text-soft">What it was found for has changed: find it again.</p>}
      {reply && !reply.ok && (
        <p role="alert" className="text-madder">
          No plan: {reply.message}. Try again.
        </p>
      )}
      {reply?.ok && isCurrent && <Found plan={reply.plan} data={data} keep={keep} />}
      <ByHand data={data} ask={ask} best={reply?.ok && isCurrent ? reply.plan : null} />
      <p className="text-soft">
        Of what is over a limit or unproven no pour is planned. An order is taken to be here after{' '}
        {ORDER_DAYS} days; until then pours are of what is there.
      </p>
    </section>
  );
}
