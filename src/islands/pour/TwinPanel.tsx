import { useEffect, useState } from 'react';
import { besideTwin, matchNote, minutesSinceJoin, twinCode, type PourStory } from '../../core/batch/twin';
import { address, send } from '../../ui/api';
import { REST_WORDS, TEMPERATURE_WORDS } from '../../ui/batch-words';
import benchStyles from '../../ui/bench.module.css';
import { degreesWords, habits } from '../../ui/habits';
import { momentHere, type Writing } from '../../ui/writing';

interface Answer {
  twin: (PourStory & { id: string; photos: { id: string; note: string }[] }) | null;
  others: string[];
}

/** A difference of warmth, in the house's degrees: "3 degrees cooler". */
function warmerWords(warmerC: number | null): string {
  if (warmerC === null) return 'not measured yet';
  const degrees = Math.round(Math.abs(warmerC) * (habits().degrees === 'F' ? 1.8 : 1));
  if (degrees === 0) return 'the same';
  return `${degrees} ${degrees === 1 ? 'degree' : 'degrees'} ${warmerC > 0 ? 'warmer' : 'cooler'}`;
}

function Beside({ twin, writing: { batch } }: { twin: NonNullable<Answer['twin']>; writing: Writing }) {
  const since = batch.poured === null ? minutesSinceJoin(batch, momentHere()) : null;
  return (
    <>
      {twin.temperatures.length > 0 && (
        <table className="plain-table">
          <thead>
            <tr>
              <th scope="col">Warmth</th>
              <th scope="col">Then</th>
              <th scope="col">Now</th>
            </tr>
          </thead>
          <tbody>
            {besideTwin(batch, twin).map(({ of, thenC, nowC, warmerC }) => (
              <tr key={of}>
                <th scope="row">{TEMPERATURE_WORDS[of]}</th>
                <td>{degreesWords(thenC)}</td>
                <td>
                  {nowC !== null && `${degreesWords(nowC)}, `}
                  {warmerWords(warmerC)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {twin.minutes !== null && (
        <p>
          From the lye in the fats to the pour it took {Math.round(twin.minutes)} min
          {since !== null && `; now ${Math.round(since)} min have gone by`}.
        </p>
      )}
      {twin.rested && <p>It rested: {REST_WORDS[twin.rested].toLowerCase()}.</p>}
      {twin.told.length > 0 && (
        <ul>
          {twin.told.map((text, at) => (
            <li key={at}>{text}</li>
          ))}
        </ul>
      )}
      {twin.photos.length > 0 && (
        <ul className="flex flex-wrap gap-2">
          {twin.photos.map(({ id, note }) => (
            <li key={id}>
              <img
                className="h-28 w-auto"
                src={address('batches', twin.id, 'photos', id)}
                alt={note || `Photograph of ${twin.code}`}
              />
            </li>
          ))}
        </ul>
      )}
    </>
  );
}

/** The batch that this one should match, beside it: warmths, minutes, what was told, photographs. */
export function TwinPanel({ id, writing }: { id: string; writing: Writing }) {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [isOpen, setOpen] = useState(false);
  const named = twinCode(writing.batch);
  const onFile = writing.queue.waiting.length === 0;
  useEffect(() => {
    if (!isOpen || !onFile) return;
    let isStale = false;
    void send<Answer>('GET', address('batches', id, 'twin')).then((found) => {
      if (!isStale && found.ok) setAnswer(found.body);
    });
    return () => {
      isStale = true;
    };
  }, [id, isOpen, named, onFile]);
  const twin = answer?.twin ?? null;
  return (
    <details className="sm:open:col-span-2" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className={benchStyles.benchAction}>
        {named ? `As ${named} was` : 'As it was the last time'}
      </summary>
      <div className="mt-2 grid gap-2" role="group" aria-label="As it was">
        {answer && !twin && <p>This bar was not poured before.</p>}
        {twin && <p className="font-semibold">{twin.code}</p>}
        {twin && <Beside twin={twin} writing={writing} />}
        {answer && answer.others.length > 1 && (
          <label>
            <span className="eyebrow block text-base">It should match</span>
            <select
              className={benchStyles.benchField}
              value={twin?.code ?? ''}
              onChange={(event) =>
                writing.write('noted', { text: matchNote(event.target.value), for: 'record' })
              }
            >
              {answer.others.map((code) => (
                <option key={code}>{code}</option>
              ))}
            </select>
          </label>
        )}
      </div>
    </details>
  );
}
