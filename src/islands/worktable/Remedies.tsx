import { useState } from 'react';
import type { Remedy } from '../../core/loads/remedies';
import { writeAmount } from '../../core/quantities/amount';
import { VERDICT_WORDS } from '../../ui/words';
import { newStep } from '../../ui/step';
import { useTable } from './context';

const FIRST_SHOWN = 3;

function sentence(remedy: Remedy, nameOf: (lineId: string) => string): string {
  const names = remedy.lines.map(nameOf).join(' and ');
  switch (remedy.kind) {
    case 'less':
      return `${names} down from ${writeAmount(remedy.from)} to ${writeAmount(remedy.to)}`;
    case 'proportion':
      return `${names} in proportion, each to ${Number((remedy.factor * 100).toFixed(1))} % of what it is`;
    case 'weigh':
      return `Weigh ${names} instead of measuring by spoon or eye`;
    case 'lessDry':
      return `Sell the bar less dry, with ${remedy.toPct} % water left instead of ${remedy.fromPct} %`;
    case 'swap':
      return `${remedy.name} in place of ${names}`;
    case 'askCertificate':
      return `Ask the supplier of ${names} for a certificate for bar soap`;
  }
}

/** The smallest changes that clear a bar, each applied with one click and undone with one. */
export function RemediesPanel() {
  const { formula, remedies, materialName, change } = useTable();
  const [isWhole, setWhole] = useState(false);
  if (remedies?.length === 0) return null;
  const nameOf = (lineId: string) =>
    materialName(formula.lines.find(({ id }) => id === lineId)?.material ?? lineId);
  // While they are looked for as high as they mostly become: nothing below moves away from the hand.
  return (
    <section aria-label="Make it fit" className={`border-b border-line py-2 ${remedies ? '' : 'min-h-56'}`}>
      <h2 className="text-lg">Make it fit</h2>
      {remedies === null && <p className="text-soft">Looking for the least that would…</p>}
      <ul>
        {(isWhole ? remedies : remedies?.slice(0, FIRST_SHOWN))?.map((remedy) => {
          const said = sentence(remedy, nameOf);
          return (
            <li
              key={said}
              className="flex items-baseline justify-between gap-3 border-b border-hair py-1 leading-snug last:border-0"
            >
              <span>
                {said}
                {remedy.formula && (
                  <span className="text-soft"> · then {VERDICT_WORDS[remedy.verdict].toLowerCase()}</span>
                )}
              </span>
              {remedy.formula && (
                <button
                  type="button"
                  className="action shrink-0 py-0"
                  aria-label={`Do it: ${said}`}
                  onClick={() => change(remedy.formula!, newStep('remedy'))}
                >
                  Do it
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {remedies && remedies.length > FIRST_SHOWN && (
        <button
          type="button"
          className="cursor-pointer text-ultra underline"
          aria-expanded={isWhole}
          onClick={() => setWhole((was) => !was)}
        >
          {isWhole ? 'Fewer ways' : `${remedies.length - FIRST_SHOWN} more ways`}
        </button>
      )}
    </section>
  );
}
