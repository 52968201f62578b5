/** What to pour tonight, with its reasons; the next best; and what would be better, were it bought. */
import { dayAfter, daysBetween } from '../../core/quantities/day';
import type { NextBar, NextData } from '../../core/records/next';
import { FRESH_DAYS, tonight } from '../../core/stock/tonight';
import { dayInWords, grams, many } from '../../ui/words';

const bars = (count: number) => many(count, 'bar');
const days = (count: number) => many(count, 'day');

/** When a pour of tonight is ready beside when the bar runs out, and what it saves. */
function reasonsOf({ next, worth, pace }: NextBar, { today, cureDays }: NextData): string {
  const readyOn = dayAfter(today, cureDays);
  const ready = `A pour of tonight is ready on ${dayInWords(readyOn)}`;
  const when =
    next.endsOn === null
      ? `${ready}.`
      : next.endsOn < readyOn
        ? `It likely runs out on ${dayInWords(next.endsOn)}; ${ready.charAt(0).toLowerCase()}${ready.slice(1)}, ${days(daysBetween(next.endsOn, readyOn))} later.`
        : `${ready}, ${days(daysBetween(readyOn, next.endsOn))} before it likely runs out.`;
  const [low, high] = pace.perWeek ? [pace.perWeek.low, pace.perWeek.high] : [0, 0];
  const saved = `At ${low.toFixed(1)} to ${high.toFixed(1)} bars a week it saves about ${bars(Math.round(worth!.saved))} of sales that another evening would lose`;
  const stale =
    worth!.stale >= 1
      ? `; about ${Math.round(worth!.stale)} of it would lie longer than ${Math.round(FRESH_DAYS / 30)} months`
      : '';
  return `${when} ${saved}${stale}.`;
}

function One({ bar, data, isFirst }: { bar: NextBar; data: NextData; isFirst: boolean }) {
  return (
    <li className={isFirst ? '' : 'text-soft'}>
      <a className="font-medium text-ultra underline" href={`/pour?product=${encodeURIComponent(bar.id)}`}>
        {bar.name}
      </a>
      , {bars(bar.barsAPour ?? 0)}. {reasonsOf(bar, data)}
    </li>
  );
}

export function Tonight({ data }: { data: NextData }) {
  const { best, better } = tonight(data.bars);
  return (
    <section aria-label="Tonight" className="border-l-4 border-ultra bg-sheet px-3 py-2">
      <h2 className="text-lg">Tonight</h2>
      {best.length === 0 ? (
        <p className="text-soft">
          Nothing that all is there for would save sales that another evening would not save as well.
        </p>
      ) : (
        <ol className="grid gap-1">
          {best.map((bar, at) => (
            <One key={bar.id} bar={bar} data={data} isFirst={at === 0} />
          ))}
        </ol>
      )}
      {better && (
        <p className="mt-1">
          Better would be <span className="font-medium">{better.name}</span>, about{' '}
          {bars(Math.round(better.worth!.saved))} of sales: buy{' '}
          {better.missing
            .map(({ name, neededG, freeG }) => `${name} ${grams(Math.max(0, neededG - freeG))}`)
            .join(', ')}
          .
        </p>
      )}
    </section>
  );
}
