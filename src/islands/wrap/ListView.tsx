import { useMemo } from 'react';
import { readList } from '../../core/ingredients/reading';
import { marketRules } from '../../rulebook/markets';
import { percent } from '../../ui/words';
import { useDesk } from './context';

/** The ingredient list, entry by entry: why it is there and why at its place. */
export function ListView() {
  const { data, wrap, market } = useDesk();
  const rules = marketRules(market);
  const school = wrap.markets[market]?.school ?? rules.usualSchool;
  const list = data.assessment.ingredients.find((one) => one.market === market && one.school === school);
  const entries = useMemo(() => (list ? readList(list, data.assessment, data.materials) : []), [list, data]);
  return (
    <section aria-label="The list" className="py-2">
      <p className="leading-snug" data-testid="wrap-list">
        {list?.text}
      </p>
      <p className="eyebrow">
        {school === 'added' ? 'As added' : 'As formed'}. {rules.schoolNote}
      </p>
      <table className="plain-table mt-1 font-narrow">
        <thead>
          <tr>
            {['Entry', 'Share', 'Why it is there', 'Why here'].map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {entries.map(({ name, pct, why, place }, index) => (
            <tr key={name + index}>
              <th scope="row">{name}</th>
              <td className="tabular-nums">{percent(pct)}</td>
              <td>{why}</td>
              <td>{place}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
