import { useMemo } from 'react';
import { outlookOn } from '../../core/outlook';
import { GRADE_WORDS, JUDGEMENT_WORDS, LEANS_WORDS } from '../../ui/words';
import { useTable } from './context';

function useOutlook() {
  const { formula, assessment, material } = useTable();
  return useMemo(() => outlookOn(formula, assessment, (id) => material(id)), [formula, assessment, material]);
}

/** How much is to be expected, beside the tab's name. */
export function OutlookCount() {
  const grave = useOutlook().filter(({ grade }) => grade === 'marked').length;
  if (grave === 0) return null;
  return (
    <span className="ml-1 font-semibold text-madder" title={`${grave} to expect`}>
      {grave}
      <span className="sr-only"> to expect</span>
    </span>
  );
}

/** What heat is to be expected, where the size is chosen; nothing where there is none to mind. */
export function HeatWord() {
  const heat = useOutlook().find(({ id }) => id === 'heat');
  if (!heat || heat.grade === 'calm') return null;
  return (
    <p className="border-l-4 border-madder pl-3">
      {heat.says} <span className="text-soft">({heat.reasons.join(', ')})</span>
    </p>
  );
}

/** What makers judge by experience, what wants minding first; each with its reasons. Advice, never a verdict. */
export function OutlookPanel() {
  const judgements = useOutlook();
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
