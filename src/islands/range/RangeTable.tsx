import type { Assessment } from '../../core/formula/answer';
import type { RangeEntry } from '../../server/services/products';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { VERDICT_WORDS } from '../../ui/words';
import { effectOnProduct } from '../../core/loads/limits';
import { againstLimit, asMultiples, inWords, sourceOf, subjectName } from '../worktable/view';

/** The margin drawn where products set their own; only the worktable knows each. */
const DRAWN_MARGIN = 0.1;

/** The limit that makes the verdict, or has the least room; where a scent is unproven there is nothing to draw it against. */
function Closest({ assessment }: { assessment: Assessment }) {
  const { verdict, limits } = assessment;
  const telling = limits.find((row) => effectOnProduct(row.force, row.verdict) === verdict) ?? limits[0];
  const limit = verdict === 'unproven' ? undefined : telling;
  const nothing = verdict === 'unproven' ? 'A scent without a certificate' : 'No limit on file';
  const words = limit
    ? `${subjectName(limit, inWords)}: ${againstLimit(limit)}. ${sourceOf(limit)}`
    : nothing;
  return (
    <>
      <Straightedge load={limit ? asMultiples(limit) : undefined} margin={DRAWN_MARGIN} label={words} />
      <p className="self-center font-narrow text-[0.93rem] leading-tight text-soft">{words}</p>
    </>
  );
}

function Row({ product, result }: RangeEntry) {
  return (
    <li className="range-row">
      <div className="py-1.5">
        <a
          className="font-display text-lg font-semibold underline-offset-4 hover:underline"
          href={`/bars/${product.id}`}
        >
          {product.name}
        </a>
        <p className="text-[0.93rem] leading-tight text-soft">{product.note}</p>
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
  );
}

/** Every product with the load that stands closest to its limit. */
export function RangeTable({ entries }: { entries: readonly RangeEntry[] }) {
  if (entries.length === 0) {
    return (
      <p className="mt-4">
        No bars yet. Give the first one a name above and start it; it comes with a plain formula to change.
      </p>
    );
  }
  return (
    <ul className="sheet mt-3">
      {entries.map((entry) => (
        <Row key={entry.product.id} {...entry} />
      ))}
    </ul>
  );
}
