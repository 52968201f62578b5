import type { CupboardEntry } from '../../core/records/cupboard';
import { BarsUsing } from '../../ui/BarsUsing';

/** What counts of a material once its paper is filed, and the way on. */
export function Filed({ entry, onNext }: { entry: CupboardEntry; onNext: () => void }) {
  return (
    <section role="status" aria-label="Filed" className="sheet">
      <h2 className="text-xl">Filed for {entry.material.name}</h2>
      <p>
        {entry.papers.certificate &&
          `Certificate ${entry.papers.certificate.paper.number} counts: ${entry.papers.certificate.reasons.join('; ')}. `}
        {entry.papers.allergens &&
          `Declaration ${entry.papers.allergens.paper.number} counts: ${entry.papers.allergens.reasons.join('; ')}.`}
      </p>
      <div className="mt-1">
        {entry.usedIn === 0 ? 'No bar uses it yet.' : 'Bars that use it:'}
        {entry.usedIn > 0 && <BarsUsing id={entry.material.id} />}
      </div>
      <p className="mt-2 flex gap-3">
        <a className="action" href={`/cupboard?material=${encodeURIComponent(entry.material.id)}`}>
          See it in the cupboard
        </a>
        <button type="button" className="action" onClick={onNext}>
          Next paper
        </button>
      </p>
    </section>
  );
}
