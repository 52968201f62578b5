import { useState } from 'react';
import type { Line } from '../../core/formula/types';
import { isAlwaysCommon } from '../../core/loads/plan';
import { grams, percent } from '../../ui/words';
import { NumberField } from '../../ui/ReadField';
import { newStep } from '../../ui/step';
import { useTable } from './context';
import { addPortion, changeLine, removePortion, renamePortion, sharePortion } from './edits';
import { LOAD_STAGES } from './Lines';

/** A portion's name, taken when it is left or Enter is pressed; one that another bears is told. */
function PortionName({ id }: { id: string }) {
  const { formula, change } = useTable();
  const [text, setText] = useState(id);
  const [fault, setFault] = useState<string | null>(null);
  const take = () => {
    const name = text.trim();
    const isTaken = name !== id && (formula.portions ?? []).some((one) => one.id === name);
    setFault(name === '' ? 'A name.' : isTaken ? 'Another portion is called so.' : null);
    if (name !== '' && !isTaken && name !== id)
      change((now) => renamePortion(now, id, name), newStep('portions'));
  };
  return (
    <label>
      <span className="eyebrow block">Portion</span>
      <input
        className="field w-28"
        value={text}
        maxLength={60}
        aria-label={`Name of portion ${id}`}
        aria-invalid={fault ? true : undefined}
        onChange={(event) => setText(event.target.value)}
        onBlur={take}
        onKeyDown={(event) => event.key === 'Enter' && take()}
      />
      {fault && (
        <span role="alert" className="block text-madder">
          {fault}
        </span>
      )}
    </label>
  );
}

/** The portions by name with their shares; one more, or one away. */
function Shares() {
  const { assessment, change, setUnread } = useTable();
  const { portions } = assessment;
  return (
    <ul className="mb-2 flex flex-wrap items-end gap-x-6 gap-y-2">
      {portions.map(({ id, share }, index) => (
        <li key={index} className="flex items-end gap-2">
          <PortionName key={id} id={id} />
          <NumberField
            label={`Share of ${id}`}
            unit="%"
            value={Number((share * 100).toFixed(2))}
            least={1}
            most={99}
            onChange={(value) =>
              change((now) => sharePortion(now, id, value / 100), `portion share ${index}`)
            }
            onFault={(message) => setUnread(`portion share ${index}`, message)}
          />
          <button
            type="button"
            className="action py-0"
            aria-label={`Take portion ${id} away`}
            onClick={() => change((now) => removePortion(now, id), newStep('portions'))}
          >
            Take away
          </button>
        </li>
      ))}
      <li>
        <button type="button" className="action py-0" onClick={() => change(addPortion, newStep('portions'))}>
          One portion more
        </button>
      </li>
    </ul>
  );
}

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
      <Shares />
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
