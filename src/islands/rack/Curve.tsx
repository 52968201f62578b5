import { inHouse } from '../../ui/masses';
import { lazy, Suspense, useState } from 'react';
import type { CureDoubt } from '../../core/curing/cure-types';
import { daysSince } from '../../core/curing/batch-cure';
import type { CureData } from '../../core/records/rack';
import { grams, percent } from '../../ui/words';
import type { Writing } from '../../ui/writing';
import { TextField } from '../../ui/TextField';

const CureChart = lazy(() => import('./CureChart'));

/** A weighing that fits no cure: corrected, left out with a reason, or left as it is. */
function Doubt({ doubt, writing: { batch, write } }: { doubt: CureDoubt; writing: Writing }) {
  const [reason, setReason] = useState('');
  const counted = batch.barWeighings.filter(({ leftOut }) => leftOut === null);
  const event = counted[doubt.weighing]?.event;
  if (!event) return null;
  const { massG } = counted[doubt.weighing]!;
  const leaveOut = () => write('corrected', { event, massG: 0, reason: reason.trim() });
  const confirm = () => write('corrected', { event, massG, reason: reason.trim() });
  return (
    <li className="border-l-4 border-madder bg-wash px-3 py-1">
      {inHouse(doubt.message)}
      <div className="flex items-end gap-2">
        <TextField label="Why it is left out, or right" value={reason} onChange={setReason} />
        <button type="button" className="action py-0" disabled={reason.trim() === ''} onClick={leaveOut}>
          Leave it out
        </button>
        <button type="button" className="action py-0" disabled={reason.trim() === ''} onClick={confirm}>
          It is right
        </button>
      </div>
    </li>
  );
}

function Figures({ data }: { data: CureData }) {
  const { cure } = data;
  const { lossPerDayPct: loss, readyOnDay: ready, massRatio: ratio, settledG } = cure;
  if (!loss || !ready || !ratio || !settledG) return null;
  const row = (name: string, likely: string, low: string, high: string) => (
    <tr>
      <th scope="row">{name}</th>
      <td className="text-right tabular-nums">{likely}</td>
      <td className="text-right tabular-nums">
        {low} to {high}
      </td>
    </tr>
  );
  const day = (value: number) => String(Math.round(value));
  return (
    <table className="plain-table" aria-label="What the weighings say">
      <thead>
        <tr>
          <th scope="col">What the weighings say</th>
          <th scope="col" className="text-right">
            Likely
          </th>
          <th scope="col" className="text-right">
            80 of 100 times
          </th>
        </tr>
      </thead>
      <tbody>
        {row('Loss a day now, of its mass', percent(loss.likely), percent(loss.low), percent(loss.high))}
        {row('Ready on day', day(ready.likely), day(ready.low), day(ready.high))}
        {row('All bars, settled', grams(settledG.likely), grams(settledG.low), grams(settledG.high))}
        {row(
          'Settled over poured',
          percent(100 * ratio.typical),
          percent(100 * ratio.low),
          percent(100 * ratio.high),
        )}
      </tbody>
    </table>
  );
}

/** A cure is known as of its last weighing; from so many days on, that is said. */
const OLD_DAYS = 7;

function standing({ cure, ageDays, detail: { batch } }: CureData): string {
  const from = batch.poured?.at ?? batch.startedAt;
  const days = batch.barWeighings.map(({ at }) => daysSince(from, at));
  const ago = days.length > 0 ? Math.floor(ageDays - Math.max(...days)) : 0;
  const when = ago >= OLD_DAYS ? ` when last weighed, ${ago} days ago` : '';
  return `${cure.settled ? 'Settled' : 'Not settled'}${when}.`;
}

/** The curve of weight with what it says, what is still wanted, and the weighings that fit no cure. */
export function Curve({ data, writing }: { data: CureData; writing: Writing }) {
  const { cure } = data;
  if (!writing.batch.cut) return null;
  return (
    <section aria-label="Cure" className="grid gap-2">
      <p className="text-lg">
        <strong>{standing(data)}</strong>{' '}
        {cure.settled
          ? 'Three weighings and more over seven days and more, with the upper end of its loss under 0.05 % a day, and the least days gone by.'
          : cure.needs.join(' ')}
      </p>
      {cure.curve.length > 0 && (
        <div role="img" aria-label="Weight over the days, with its band" className="min-h-[315px]">
          <Suspense fallback={<p className="text-soft">The curve is being drawn…</p>}>
            <CureChart data={data} minDays={data.days.least} />
          </Suspense>
        </div>
      )}
      <Figures data={data} />
      {cure.isWide && cure.curve.length > 0 && (
        <p className="text-soft">Few weighings: the ranges are wide and stay so until a fourth.</p>
      )}
      {cure.doubts.length > 0 && (
        <ul className="grid gap-1">
          {cure.doubts.map((doubt) => (
            <Doubt key={doubt.weighing} doubt={doubt} writing={writing} />
          ))}
        </ul>
      )}
    </section>
  );
}
