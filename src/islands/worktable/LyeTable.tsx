/** The lye fat by fat, beside the one that is weighed: a second way to the same figure. */
import { lyeTable, type LyeRow } from '../../core/loads/lye';
import { grams, percent } from '../../ui/words';
import { useTable } from './context';

const WHAT_WORDS: Record<LyeRow['what'], string> = {
  fat: '',
  acid: 'acid, takes lye besides',
  milkFat: 'fat of the milk, gets none of its own',
  afterCook: 'after the cook, finds none left',
};
/** Two ways to one figure may part by the rounding of what is shown, grams. */
const SAME_G = 0.05;

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
    </details>
  );
}
