import type { Line } from '../../core/formula/types';
import { isAlwaysCommon } from '../../core/loads/plan';
import { grams, percent } from '../../ui/words';
import { useTable } from './context';
import { changeLine } from './edits';
import { LOAD_STAGES } from './Lines';

/** What each portion of a split batter holds, and moving an add-in from one to the other. */
export function PortionsPanel() {
  const { formula, assessment, change, material, materialName } = useTable();
  const portions = assessment.portions;
  if (portions.length === 0) return null;
  const movable = formula.lines.filter((line) => {
    const found = material(line.material);
    return LOAD_STAGES.includes(line.stage) && found && !isAlwaysCommon(found);
  });
  const held = (index: number, line: Line) => portions[index]?.loads.find((load) => load.line === line.id);
  const choices = [['', 'all'] as const, ...portions.map(({ id }) => [id, id] as const)];
  return (
    <section aria-label="Portions" className="sheet mt-3">
      <h2 className="text-lg">Portions</h2>
      <table className="plain-table">
        <thead>
          <tr>
            <th scope="col">Add-in</th>
            <th scope="col">Stirred into</th>
            {portions.map(({ id, share, pourG }) => (
              <th scope="col" key={id} className="text-right">
                {id}, {Number((share * 100).toFixed(1))} % of the batter, {grams(pourG)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {movable.map((line) => (
            <tr key={line.id}>
              <th scope="row">{materialName(line.material)}</th>
              <td>
                <fieldset className="flex gap-3">
                  <legend className="sr-only">{materialName(line.material)} goes into</legend>
                  {choices.map(([id, words]) => (
                    <label key={id} className="flex cursor-pointer items-center gap-1">
                      <input
                        type="radio"
                        className="accent-ultra"
                        name={`portion ${line.id}`}
                        checked={(line.portion ?? '') === id}
                        onChange={() =>
                          change(
                            (now) => changeLine(now, line.id, { portion: id || null }),
                            `portion ${line.id}`,
                          )
                        }
                      />
                      {words}
                    </label>
                  ))}
                </fieldset>
              </td>
              {portions.map(({ id }, index) => {
                const load = held(index, line);
                return (
                  <td key={id} className="text-right tabular-nums">
                    {load && load.massG > 0 ? (
                      <>
                        {grams(load.massG)} · {percent(load.pctCured)} cured
                      </>
                    ) : (
                      <span className="text-soft">none</span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
