import type { Assessment } from '../../core/formula/answer';
import type { RangeEntry } from '../../server/services/products';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { percent, VERDICT_WORDS } from '../../ui/words';
import { asMultiples } from '../worktable/view';

/** The margin drawn where products set their own; only the worktable knows each. */
const DRAWN_MARGIN = 0.1;

function Closest({ assessment }: { assessment: Assessment }) {
  const limit = assessment.limits.find(({ force }) => force !== 'craft');
  const words = limit
    ? `${percent(limit.nominalPct)} against ${percent(limit.maxPct)}, ${limit.source ?? limit.id}`
    : 'No binding limit on file';
  return (
    <>
      <Straightedge load={limit ? asMultiples(limit) : undefined} margin={DRAWN_MARGIN} label={words} />
      <p className="self-center font-narrow text-[0.93rem] text-soft">{words}</p>
    </>
  );
}

/** Every product with the load that stands closest to its limit. */
export function RangeTable({ entries }: { entries: readonly RangeEntry[] }) {
  if (entries.length === 0) {
    return (
      <p className="p-6">
        Nothing here yet. Start the demo data with <code>npm run demo</code>.
      </p>
    );
  }
  return (
    <div className="px-6 py-4">
      <h1 className="text-2xl">Range</h1>
      <p className="text-soft">Each bar by the load that stands closest to its limit.</p>
      <ul className="sheet mt-3">
        {entries.map(({ product, result }) => (
          <li key={product.id} className="range-row">
            <div className="py-3">
              <a
                className="font-display text-lg font-semibold underline-offset-4 hover:underline"
                href={`/bars/${product.id}`}
              >
                {product.name}
              </a>
              <p className="text-soft">{product.note}</p>
            </div>
            {result.ok ? (
              <>
                <p className="flex items-center gap-2 self-center">
                  <VerdictMark verdict={result.assessment.verdict} />
                  <span className="font-display text-lg">{VERDICT_WORDS[result.assessment.verdict]}</span>
                </p>
                <Closest assessment={result.assessment} />
              </>
            ) : (
              <p className="self-center text-madder">{result.errors[0]?.message}</p>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
