import { useMemo } from 'react';
import { outlookOn } from '../../core/outlook';
import { GRADE_WORDS, JUDGEMENT_WORDS, LEANS_WORDS } from '../../ui/words';
import { useTable } from './context';

/** What makers judge by experience, what wants minding first; each with its reasons. Advice, never a verdict. */
export function OutlookPanel() {
  const { formula, assessment, material } = useTable();
  const judgements = useMemo(
    () => outlookOn(formula, assessment, (id) => material(id)),
    [formula, assessment, material],
  );
  const minded = judgements.filter(({ grade }) => grade !== 'calm');
  const calm = judgements.filter(({ grade }) => grade === 'calm');
  return (
    <section aria-label="Outlook" className="py-2">
      <dl className="outlook">
        {minded.map(({ id, grade, says, reasons, leansOn }) => (
          <div key={id}>
            <dt className={grade === 'marked' ? 'font-semibold' : 'font-medium'}>{JUDGEMENT_WORDS[id]}</dt>
            <dd>
              {says}{' '}
              <span className="font-narrow text-soft">
                {reasons.join(', ')} · {GRADE_WORDS[grade]}, {LEANS_WORDS[leansOn]}
              </span>
            </dd>
          </div>
        ))}
      </dl>
      {calm.length > 0 && (
        <p className="eyebrow mt-1">
          Nothing to mind: {calm.map(({ id }) => JUDGEMENT_WORDS[id].toLowerCase()).join(', ')}.
        </p>
      )}
    </section>
  );
}
