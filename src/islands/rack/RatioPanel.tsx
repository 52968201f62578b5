import { useState } from 'react';
import type { Assessment } from '../../core/formula/answer';
import { REQUEST_FORMAT, type Formula } from '../../core/formula/types';
import type { CureData } from '../../core/records/rack';
import type { WorktableData } from '../../core/records/product';
import { address, send } from '../../ui/api';
import { percent, VERDICT_WORDS } from '../../ui/words';
import { inWords } from '../worktable/view';

interface Trial {
  revision: number;
  formula: Formula;
  before: Assessment;
  after: Assessment;
}

/** The formula as it is and with the measured loss in it, both assessed. */
async function tryRatio(product: string, massRatio: number): Promise<Trial | string> {
  const found = await send<WorktableData>('GET', address('products', product));
  if (!found.ok) return found.faults[0]!.message;
  const { version, product: bar, onDate } = found.body;
  const formula: Formula = { ...version.formula, cure: { massRatio } };
  const assessed = (one: Formula) =>
    send<Assessment>('POST', address('assess'), {
      format: REQUEST_FORMAT,
      formula: one,
      markets: bar.markets,
      onDate,
      firstPlacedOn: bar.firstPlacedOn,
    });
  const [before, after] = [await assessed(version.formula), await assessed(formula)];
  if (!before.ok) return before.faults[0]!.message;
  if (!after.ok) return after.faults[0]!.message;
  return { revision: version.revision, formula, before: before.body, after: after.body };
}

function Effect({ trial: { before, after } }: { trial: Trial }) {
  const rows = after.limits.flatMap((row) => {
    const was = before.limits.find(({ id, market }) => id === row.id && market === row.market);
    return was && row.force !== 'craft' && Math.abs(was.nominalPct - row.nominalPct) > 1e-9
      ? [{ row, was }]
      : [];
  });
  return (
    <>
      <p>
        {VERDICT_WORDS[before.verdict]} becomes <strong>{VERDICT_WORDS[after.verdict]}</strong>.
      </p>
      <table className="plain-table" aria-label="What it does to every load">
        <thead>
          <tr>
            <th scope="col">Limit</th>
            <th scope="col" className="text-right">
              Was
            </th>
            <th scope="col" className="text-right">
              Would be
            </th>
            <th scope="col" className="text-right">
              Most
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ row, was }) => (
            <tr key={`${row.id} ${row.market}`}>
              <th scope="row">
                {inWords(row.subject.id)} ({row.market})
              </th>
              <td className="text-right tabular-nums">{percent(was.nominalPct)}</td>
              <td className="text-right tabular-nums">{percent(row.nominalPct)}</td>
              <td className="text-right tabular-nums">{percent(row.maxPct)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** The loss as measured, offered to the formula: a drier bar holds higher loads. Nothing changes before the maker agrees. */
export function RatioPanel({ data }: { data: CureData }) {
  const [trial, setTrial] = useState<Trial | string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const ratio = data.cure.massRatio;
  if (!ratio) return null;
  const { product } = data.detail.batch;
  const massRatio = Number(ratio.typical.toFixed(4));
  const agree = async (one: Trial) => {
    const { revision, formula } = one;
    const answer = await send('PUT', address('products', product, 'formula'), { revision, formula });
    if (!answer.ok) setSaid(answer.faults[0]!.message);
    else if (answer.status === 409) setSaid('The formula was changed meanwhile. Look again.');
    else setSaid('The formula now has the measured loss; every load is reckoned with it.');
    setTrial(null);
  };
  return (
    <section aria-label="Back to the formula" className="sheet grid gap-1">
      <h2 className="text-lg">Back to the formula</h2>
      <p>
        Measured: {percent(100 * ratio.typical)} of the poured weight stays ({percent(100 * ratio.low)} to{' '}
        {percent(100 * ratio.high)}).{' '}
        {data.predictedRatio !== null && `The formula takes ${percent(100 * data.predictedRatio)}.`}
      </p>
      <button
        type="button"
        className="action justify-self-start"
        onClick={() => void tryRatio(product, massRatio).then(setTrial)}
      >
        What would it do to every load?
      </button>
      {typeof trial === 'string' && <p role="alert">{trial}</p>}
      {trial !== null && typeof trial === 'object' && (
        <>
          <Effect trial={trial} />
          <button
            type="button"
            className="action action-strong justify-self-start"
            onClick={() => void agree(trial)}
          >
            Take it into the formula
          </button>
        </>
      )}
      {said && <p role="status">{said}</p>}
    </section>
  );
}
