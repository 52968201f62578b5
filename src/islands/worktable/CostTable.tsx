import { useMemo } from 'react';
import { costOf } from '../../core/making/cost';
import { grams, money } from '../../ui/words';
import { useTable } from './context';
import { PricePanel } from './PricePanel';

function useCost() {
  const { data, formula, assessment, material } = useTable();
  return useMemo(
    () =>
      costOf(
        formula,
        assessment,
        (id) => data.prices[id] ?? null,
        (id) => material(id)?.madeOf ?? [],
      ),
    [formula, assessment, data.prices, material],
  );
}

/** What a batch costs, and a bar of it, dearest first. */
export function CostTable() {
  const { data, formula, materialName } = useTable();
  const cost = useCost();
  const name = (id: string) => (id === 'sodium-hydroxide' ? 'Sodium hydroxide' : materialName(id));
  const dear = cost.lines
    .filter((line) => line.cost !== null && line.cost > 0)
    .sort((a, b) => b.cost! - a.cost!);
  return (
    <section aria-label="Cost" className="mt-3">
      <h3 className="text-lg">
        {money(cost.total, data.currency)} a batch
        {cost.perBar !== null && (
          <>
            {' '}
            · {money(cost.perBar, data.currency)} a bar of {formula.bars}
          </>
        )}
      </h3>
      <table className="plain-table">
        <tbody>
          {dear.map((line) => (
            <tr key={line.line ?? 'alkali'}>
              <th scope="row">{name(line.material)}</th>
              <td className="text-right tabular-nums">{grams(line.massG)}</td>
              <td className="text-right tabular-nums">{money(line.cost!, data.currency)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {cost.unpriced.length > 0 && (
        <p className="eyebrow">
          No price on file, so not counted: {cost.unpriced.map(name).join(', ')}. Add a lot in the cupboard.
        </p>
      )}
      <PricePanel cost={cost} />
    </section>
  );
}
