import type { Mould } from '../../core/making/size';
import { lyeStockWords } from '../../core/making/lye-stock';
import { OF_THE_DAY } from '../../core/making/day-words';
import { useEffect, useRef, useState, type FormEvent } from 'react';
import type { Verdict } from '../../core/formula/answer';
import type { BatchDetail, LastPour, PourPlan } from '../../core/records/batch';
import { address, makeKey, send, type Fault } from '../../ui/api';
import { guarded } from '../../ui/Guarded';
import { Faults } from '../../ui/Faults';
import { REST_WORDS, TEMPERATURE_WORDS } from '../../ui/batch-words';
import { TextField } from '../../ui/TextField';
import { degreesWords } from '../../ui/habits';
import { grams, VERDICT_WORDS } from '../../ui/words';
import { bodyOf, PlanFields, wishOf, type FieldsProps, type Props, type Wish } from './PlanFields';

/** What reads as a doubt on what is to be poured; it wants a reason in writing. */
const DOUBTFUL: ReadonlySet<Verdict> = new Set(['over', 'unproven']);

/** The plan as it would be, a breath after the wish rests. */
function usePlan(wish: Wish): { plan: PourPlan | null; faults: Fault[] } {
  const [found, setFound] = useState<{ plan: PourPlan | null; faults: Fault[] }>({ plan: null, faults: [] });
  const key = JSON.stringify(bodyOf({ ...wish, despite: '' }));
  useEffect(() => {
    let isStale = false;
    const timer = setTimeout(() => {
      const body = JSON.parse(key) as { product: string };
      if (!body.product) return;
      void send<PourPlan>('POST', address('batches', 'plan'), body).then((answer) => {
        if (isStale) return;
        setFound(answer.ok ? { plan: answer.body, faults: [] } : { plan: null, faults: answer.faults });
      });
    }, 250);
    return () => {
      isStale = true;
      clearTimeout(timer);
    };
  }, [key]);
  return found;
}

function Wants({ plan }: { plan: PourPlan }) {
  const { sheet, needed, notes, verdict } = plan;
  const minded = needed.filter(({ warnings }) => warnings.length > 0);
  const hours = sheet.minutes / 60;
  const cautions = sheet.steps.flatMap(({ title, cautions: all }) =>
    all.filter((one) => !OF_THE_DAY.has(one)).map((one) => `${title}: ${one}`),
  );
  return (
    <section aria-label="What the day wants" className="mt-3 grid gap-2">
      <p>
        Fats {grams(sheet.fatsG)}, lye {grams(sheet.alkaliG)}
        {sheet.lyeStock &&
          ` (${grams(sheet.lyeStock.massG)} of stock, ${lyeStockWords(sheet.lyeStock.concentrationPct)}${sheet.lyeStock.dryG ? `, and ${grams(sheet.lyeStock.dryG)} dry` : ''})`}
        {sheet.bucket && `, ${grams(sheet.bucket.massG)} of the fats from ${sheet.bucket.name}`}, batter{' '}
        {grams(sheet.pourG)}
        {sheet.bars !== null && `, about ${sheet.bars} bars`}. {sheet.steps.length} steps, some{' '}
        {hours.toFixed(1)} hours with the waiting.
      </p>
      {!(verdict && DOUBTFUL.has(verdict)) && (
        <p>As planned: {verdict ? VERDICT_WORDS[verdict] : 'does not reckon'}.</p>
      )}
      <p className="text-soft">
        Set out: {sheet.vessels.join(', ')}; goggles, gloves, long sleeves, closed shoes.
      </p>
      {notes.length > 0 && (
        <ul aria-label="Found out last time" className="border-l-4 border-ink pl-3">
          {notes.map(({ batch, code, text }) => (
            <li key={`${batch} ${text}`}>
              {text} <span className="text-soft">({code})</span>
            </li>
          ))}
        </ul>
      )}
      {cautions.length > 0 && (
        <ul aria-label="Mind on the day" className="border-l-4 border-madder pl-3">
          {cautions.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
      {minded.length > 0 && (
        <>
          <h2 className="font-medium">Mind before anything is melted</h2>
          <ul>
            {minded.map(({ material, name, neededG, warnings }) => (
              <li key={material} className="border-b border-hair py-0.5">
                <span className="font-medium">{name}</span>, {grams(neededG)} wanted. {warnings.join(' ')}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

/** What the last pour of the bar was like, beyond what is filled in. */
function AsLastTime({ last }: { last: LastPour }) {
  const { code, temperatures, rested } = last;
  const warmths = temperatures.map(({ of, c }) => `${TEMPERATURE_WORDS[of]} ${degreesWords(c)}`);
  const parts = [...warmths, ...(rested ? [`${REST_WORDS[rested].toLowerCase()} to rest`] : [])];
  return (
    <div className="pb-2 text-soft">
      <p>Filled in as batch {code} was poured.</p>
      {parts.length > 0 && <p>It was: {parts.join(', ')}.</p>}
    </div>
  );
}

/** Asked for where the plan is over a limit or unproven. */
function Despite({ verdict, wish, set }: Pick<FieldsProps, 'wish' | 'set'> & { verdict: Verdict }) {
  return (
    <div className="mt-3 border-l-4 border-madder bg-wash px-3 py-1.5">
      <p>
        As planned it is {VERDICT_WORDS[verdict].toLowerCase()}:{' '}
        <a className="text-ultra underline" href={`/bars/${encodeURIComponent(wish.product)}`}>
          what stands against it
        </a>
        .
      </p>
      <TextField
        label="Why it is poured all the same; it stands in the record"
        value={wish.despite}
        onChange={(despite) => set({ despite })}
      />
    </div>
  );
}

/** As it was poured the last time, but for what was typed since the bar was chosen; a size is one thing with its kind. */
function filledIn(now: Wish, typed: Partial<Wish>, last: LastPour | null, moulds: readonly Mould[]): Wish {
  const { kind, size, moulds: rows } = now;
  const isSized = 'kind' in typed || 'size' in typed || 'moulds' in typed;
  return { ...wishOf(now.product, last, moulds), ...typed, ...(isSized ? { kind, size, moulds: rows } : {}) };
}

/** The wish, filled in anew as the last pour was where another bar is chosen. */
function useWish({ bars, moulds, product, last: first }: PlanProps) {
  const [last, setLast] = useState(first);
  const [wish, setWish] = useState(() => wishOf(product ?? bars[0]?.id ?? '', first, moulds));
  const typed = useRef<Partial<Wish>>({});
  const set = (change: Partial<Wish>) => {
    setWish((old) => ({ ...old, ...change }));
    const { product: other } = change;
    typed.current = other === undefined ? { ...typed.current, ...change } : {};
    if (other === undefined) return;
    setLast(null);
    void send<{ last: LastPour | null }>('GET', address('products', other, 'last-pour')).then((answer) => {
      if (!answer.ok) return;
      const found = answer.body.last;
      const since = typed.current;
      setWish((now) => (now.product === other ? filledIn(now, since, found, moulds) : now));
      setLast(found);
    });
  };
  return { wish, set, last };
}

interface PlanProps extends Props {
  /** The bar that is to be poured; null for the first there is. */
  product: string | null;
  /** How it was poured the last time. */
  last: LastPour | null;
}

/** Plans a pour: bar, size, lye stock, who; what is missing is said before it is begun. */
function PlanPourIsland(props: PlanProps) {
  const { bars, moulds, made } = props;
  const { wish, set, last } = useWish(props);
  const [key] = useState(makeKey);
  const [begun, setBegun] = useState<Fault[]>([]);
  const { plan, faults } = usePlan(wish);
  const doubtful = plan?.verdict && DOUBTFUL.has(plan.verdict) ? plan.verdict : null;
  const begin = async (event: FormEvent) => {
    event.preventDefault();
    const body = bodyOf(doubtful ? wish : { ...wish, despite: '' });
    const answer = await send<BatchDetail>('POST', address('batches'), body, key);
    if (answer.ok) location.assign(`/pour/${answer.body.id}`);
    else setBegun(answer.faults);
  };
  if (bars.length === 0)
    return <p className="text-soft">There is no bar yet. Make one on the range first.</p>;
  return (
    <form className="sheet" aria-label="Plan a pour" onSubmit={(event) => void begin(event)}>
      {last && <AsLastTime last={last} />}
      <PlanFields bars={bars} moulds={moulds} made={made} wish={wish} set={set} />
      <Faults faults={begun.length > 0 ? begun : faults} />
      {plan ? <Wants plan={plan} /> : faults.length === 0 && <div aria-hidden className="min-h-40" />}
      {doubtful && <Despite verdict={doubtful} wish={wish} set={set} />}
      <button
        type="submit"
        className="action action-strong mt-3"
        disabled={!plan || (doubtful !== null && wish.despite.trim() === '')}
      >
        Begin this batch
      </button>
    </form>
  );
}

export const PlanPour = guarded('Planning a pour', PlanPourIsland);
