import { useState } from 'react';
import type { Becomes, Rescue } from '../../core/batch/rescue';
import { RESCUED_CHECK, type Batch } from '../../core/batch/types';
import { ALKALI_LINE } from '../../core/making/run-sheet-types';
import { address, send } from '../../ui/api';
import benchStyles from '../../ui/bench.module.css';
import { gramsAt, percent, VERDICT_WORDS } from '../../ui/words';
import type { Writing } from '../../ui/writing';

type Answer = Rescue & { names: Record<string, string> };

const becomesWords = ({ superfatPct, lyePct, verdict, volumeMl }: Becomes) =>
  `superfat ${superfatPct === null ? 'not known' : percent(superfatPct)}, lye of ${percent(lyePct)}, ${Math.round(volumeMl)} ml in all, ${VERDICT_WORDS[verdict].toLowerCase()}`;

const isLyeBegun = ({ lines }: Batch) =>
  lines.some(({ line, weighings }) => line === ALKALI_LINE && weighings.length > 0);

function Found({
  answer,
  writing,
  onDone,
}: {
  answer: Answer;
  writing: Writing;
  onDone: (words: string) => void;
}) {
  if (answer.outcome === 'fine')
    return <p>Nothing is out of bounds as it stands: {becomesWords(answer.becomes)}.</p>;
  if (answer.outcome === 'nothing')
    return (
      <p>
        <strong>No way back with what can still be added.</strong> Left at that it becomes a bar of{' '}
        {becomesWords(answer.becomes)}.
        {answer.roomMl !== null &&
          answer.roomMl > 0 &&
          ` With ${Math.ceil(answer.roomMl / 10) * 10} ml more of moulds there is one: stand another mould ready, and choose it at the pour.`}
      </p>
    );
  const { additions, totalsG, names, becomes } = answer;
  const name = (material: string) => names[material] ?? material;
  const said = additions.map(({ material, massG }) => `${gramsAt(massG, 0.1)} ${name(material)}`);
  const isDissolved = additions.some(({ line }) => line === ALKALI_LINE) && isLyeBegun(writing.batch);
  const settle = () => {
    writing.write('checked', {
      ...{ check: RESCUED_CHECK, outcome: 'good' as const },
      value: JSON.stringify(totalsG, (_key, g: unknown) =>
        typeof g === 'number' ? Number(g.toFixed(2)) : g,
      ),
    });
    writing.write('noted', { text: `Put right by adding ${said.join(', ')}.`, for: 'record' });
    onDone(`The steps ask for it now: ${said.join(', ')}.`);
  };
  return (
    <>
      <p>More than planned, it wants:</p>
      <ul className="text-2xl font-semibold">
        {said.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      {isDissolved && (
        <p className={benchStyles.benchCaution}>
          Dissolve the hydroxide by itself in the added water, hydroxide into water, and stir that into the
          lye. Goggles and gloves.
        </p>
      )}
      <p>Then it is a bar of {becomesWords(becomes)}.</p>
      <button type="button" className={benchStyles.benchAction} onClick={settle}>
        Do so: let the steps ask for it
      </button>
    </>
  );
}

/** What would bring the pot back, asked of the house: it reckons with every limit. */
export function RescuePanel({ id, writing }: { id: string; writing: Writing }) {
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [says, setSays] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const ask = async () => {
    setBusy(true);
    setAnswer(null);
    const found = await send<Answer>('GET', address('batches', id, 'rescue'));
    setBusy(false);
    if (found.ok) setAnswer(found.body);
    setSays(found.ok ? null : found.faults[0]!.message);
  };
  if (writing.batch.state !== 'pouring') return null;
  const waits = writing.queue.waiting.length > 0;
  return (
    <details className="sm:open:col-span-2">
      <summary className={benchStyles.benchAction}>What puts it right?</summary>
      <div className="mt-2 grid gap-2" role="group" aria-label="What puts it right?">
        <p className="text-soft">
          For an oil that ran over, a wrong oil or a liquid that fell short: the least to add for superfat,
          lye and every limit to be within their bounds again, in what the moulds hold.
        </p>
        <button
          type="button"
          className={benchStyles.benchAction}
          disabled={isBusy || waits}
          onClick={() => void ask()}
        >
          {isBusy ? 'Reckoning …' : 'Reckon it'}
        </button>
        {waits && <p role="status">What was written here is not on file yet; it is reckoned once it is.</p>}
        {says !== null && (
          <p role="status" className={benchStyles.benchNote}>
            {says}
          </p>
        )}
        {answer && (
          <div role="status" className={`${benchStyles.benchNote} grid gap-2`}>
            <Found
              answer={answer}
              writing={writing}
              onDone={(words) => {
                setAnswer(null);
                setSays(words);
              }}
            />
          </div>
        )}
      </div>
    </details>
  );
}
