import type { RangeEntry, RangePage } from '../../core/records/product';
import { binds } from '../../core/loads/limits';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { VERDICT_WORDS } from '../../ui/words';
import { againstLimit, asMultiples, inWords, sourceOf, subjectName } from '../worktable/view';
import { Pages } from './Pages';

/** The limit that makes the verdict, or has the least room; where a scent is unproven there is nothing to draw it against. */
function Closest({ verdict, closest, margin }: RangeEntry) {
  const nothing = verdict === 'unproven' ? 'A scent without a certificate' : 'No limit on file';
  const words = closest
    ? `${subjectName(closest, inWords)}: ${againstLimit(closest)}. ${sourceOf(closest)}`
    : nothing;
  return (
    <>
      <Straightedge
        load={closest ? asMultiples(closest) : undefined}
        margin={margin}
        isAdvice={closest !== null && !binds(closest.force)}
        label={words}
      />
      <p className="self-center font-narrow text-[0.93rem] leading-tight text-soft">{words}</p>
    </>
  );
}

function Row(entry: RangeEntry) {
  const { product, verdict, fault } = entry;
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
      {verdict ? (
        <>
          <p className="flex items-center gap-2 self-center">
            <VerdictMark verdict={verdict} />
            <span className="font-display text-lg">{VERDICT_WORDS[verdict]}</span>
          </p>
          <Closest {...entry} />
        </>
      ) : (
        <p className="self-center text-madder">{fault}</p>
      )}
    </li>
  );
}

function Nothing({ find, putAway }: RangePage) {
  if (find) return <p className="mt-4">No bar by that name here.</p>;
  if (putAway) return <p className="mt-4">Nothing is put away.</p>;
  return (
    <p className="mt-4">
      No bars yet. Give the first one a name above and start it; it comes with a plain formula to change.
    </p>
  );
}

/** Bars with the load that stands closest to its limit, a page of them. */
export function RangeTable({ page }: { page: RangePage }) {
  return (
    <>
      <Pages page={page} path="/" />
      {page.entries.length === 0 ? (
        <Nothing {...page} />
      ) : (
        <ul className="sheet">
          {page.entries.map((entry) => (
            <Row key={entry.product.id} {...entry} />
          ))}
        </ul>
      )}
    </>
  );
}
