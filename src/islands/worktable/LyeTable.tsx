/** The lye fat by fat, beside the one that is weighed: a second way to the same figure. */
import { lyeTable, type LyeRow } from '../../core/loads/lye';
import { useState } from 'react';
import { checkStanding, type CheckStanding } from '../../core/loads/lye-check';
import type { Product } from '../../core/records/product';
import { address, send } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { useKeeping } from '../../ui/keeping';
import { massUnit, typedGramsOrNull } from '../../ui/masses';
import { dayInWords, grams, gramsAt, percent } from '../../ui/words';
import { useTable } from './context';

const WHAT_WORDS: Record<LyeRow['what'], string> = {
  fat: '',
  acid: 'acid, takes lye besides',
  milkFat: 'fat of the milk, gets none of its own',
  afterCook: 'after the cook, finds none left',
};
/** Two ways to one figure may part by the rounding of what is shown, grams. */
const SAME_G = 0.05;

const STANDING_WORDS: Record<CheckStanding, string> = {
  none: 'Not checked by a second way yet.',
  agrees: 'Checked by a second way',
  parts: 'The second way came to another figure. Do not pour before it is known which is right',
  changed: 'The lye has changed since it was checked',
};

/** A tick with the figure of the second way: by hand, from another source of values, on paper. */
function Check() {
  const { data, assessment, flush } = useTable();
  const { product } = data;
  const [check, setCheck] = useState(product.lyeCheck);
  const [text, setText] = useState('');
  const { busy, faults, keep } = useKeeping();
  const { alkaliG } = assessment.masses;
  const standing = checkStanding(check, alkaliG);
  const secondG = typedGramsOrNull(text);
  const done = async () => {
    if (secondG === null || (await flush()) === null) return;
    const body = { alkaliG, secondG, by: localStorage.getItem('proportia.by') };
    const kept = await keep(() =>
      send<{ product: Product }>('PUT', address('products', product.id, 'lye-check'), body),
    );
    if (kept) setCheck(kept.product.lyeCheck);
    if (kept) setText('');
  };
  return (
    <div className="mt-1 grid gap-1">
      <p className={standing === 'parts' || standing === 'changed' ? 'text-madder' : ''}>
        {STANDING_WORDS[standing]}
        {check &&
          `: ${gramsAt(check.secondG, 0.1)} on ${dayInWords(check.on)}${check.by ? ` by ${check.by}` : ''}, against ${gramsAt(check.alkaliG, 0.1)}.`}
      </p>
      {standing !== 'agrees' && (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void done();
          }}
        >
          <label>
            <span className="eyebrow block">The second way comes to, {massUnit()}</span>
            <input
              className="field w-28"
              inputMode="decimal"
              value={text}
              onChange={(event) => setText(event.target.value)}
            />
          </label>
          <button type="submit" className="action" disabled={busy || !(secondG !== null && secondG > 0)}>
            Checked
          </button>
          <Faults faults={faults} />
        </form>
      )}
    </div>
  );
}

export function LyeTable() {
  const { formula, assessment, material } = useTable();
  const masses = new Map(assessment.lines.map(({ id, massG }) => [id, massG]));
  const table = lyeTable(formula, material, (line) => masses.get(line) ?? 0);
  const { rows, fatsG, leftOffG, acidsG, weighedG, purityPct, reachedPct, why } = table;
  const isSame = Math.abs(weighedG - assessment.masses.alkaliG) < SAME_G;
  return (
    <details>
      <summary className="cursor-pointer text-ultra">The lye, fat by fat</summary>
      <table className="w-full text-[0.93rem] tabular-nums">
        <thead>
          <tr className="eyebrow text-left">
            <th scope="col">Takes up lye</th>
            <th scope="col" className="text-right">
              Weighs
            </th>
            <th scope="col" className="text-right">
              NaOH for a gram
            </th>
            <th scope="col" className="text-right">
              Lye
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ line, name, what, massG, naohPerGram, naohG }) => (
            <tr key={line} className="border-b border-hair">
              <th scope="row" className="text-left font-normal">
                {name} {WHAT_WORDS[what] && <span className="text-soft">({WHAT_WORDS[what]})</span>}
              </th>
              <td className="text-right">{grams(massG)}</td>
              <td className="text-right">{naohPerGram}</td>
              <td className="text-right">{what === 'fat' || what === 'acid' ? grams(naohG) : 'none'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="tabular-nums">
        The fats take up {grams(fatsG)}
        {leftOffG !== null &&
          `, less ${grams(leftOffG)} for a superfat of ${percent(formula.alkali.superfatPct ?? 0)}`}
        {acidsG > 0 && `, and ${grams(acidsG)} for the acids`}
        {purityPct < 100 && `, at a purity of ${percent(purityPct)}`}: {grams(weighedG)} to be weighed.
        {why.length > 0 && ` It reads ${percent(reachedPct!)} superfat, since ${why.join(', and ')}.`}
      </p>
      {!isSame && (
        <p role="alert" className="text-madder">
          The other way comes to {grams(assessment.masses.alkaliG)}. Do not pour before it is known which is
          right.
        </p>
      )}
      <Check />
    </details>
  );
}
