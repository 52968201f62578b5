import { useMemo } from 'react';
import type { Assessment } from '../../core/formula/answer';
import type { TraitMaterial } from '../../core/formula/traits';
import type { Formula, Material } from '../../core/formula/types';
import { outlookOn } from '../../core/outlook';
import { GRADE_WORDS, JUDGEMENT_WORDS, LEANS_WORDS } from '../../ui/words';

interface Props {
  formula: Formula;
  assessment: Assessment;
  materials: readonly Material[];
}

/** What makers judge by experience, what wants minding first; each with its reasons. Advice, never a verdict. */
export function OutlookPanel({ formula, assessment, materials }: Props) {
  const judgements = useMemo(() => {
    const byId = new Map(materials.map((material) => [material.id, material as TraitMaterial]));
    return outlookOn(formula, assessment, (id) => byId.get(id));
  }, [formula, assessment, materials]);
  const minded = judgements.filter(({ grade }) => grade !== 'calm');
  const calm = judgements.filter(({ grade }) => grade === 'calm');
  return (
    <section aria-label="Outlook" className="sheet mt-3">
      <h2 className="text-lg">Outlook</h2>
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
