import { useEffect, useState } from 'react';
import type { FactId } from '../../core/claims/types';
import type { RankedSubstitute } from '../../core/records/watch';
import { address, send } from '../../ui/api';
import { RecordTable, type Column } from '../../ui/RecordTable';
import { VerdictMark } from '../../ui/VerdictMark';
import { FACT_WORDS, VERDICT_WORDS } from '../../ui/words';

const price = ({ priceRatio }: RankedSubstitute) =>
  priceRatio === null ? '' : `${priceRatio >= 1 ? '+' : '−'}${Math.round(Math.abs(priceRatio - 1) * 100)} %`;

/** What bars claim and would no longer be: "Vegan, Palm free in 2 bars". */
const brokenClaims = ({ misclaimed }: RankedSubstitute) =>
  (Object.entries(misclaimed) as [FactId, number][])
    .map(([fact, bars]) => (bars === 1 ? FACT_WORDS[fact] : `${FACT_WORDS[fact]} in ${bars} bars`))
    .join(', ');

function columns(hasAcids: boolean): Column<RankedSubstitute>[] {
  return [
    {
      id: 'name',
      header: 'Instead',
      cell: (one) => (
        <>
          {one.name} {one.isOwn && <span className="text-soft">in the cupboard</span>}
          {Object.keys(one.misclaimed).length > 0 && (
            <span className="block font-narrow text-madder">no longer {brokenClaims(one)}</span>
          )}
        </>
      ),
    },
    {
      id: 'worst',
      header: 'At worst',
      cell: ({ worst }) =>
        worst === null ? (
          'does not reckon'
        ) : (
          <span className="flex items-center gap-1.5">
            <VerdictMark verdict={worst} size={16} />
            {VERDICT_WORDS[worst]}
          </span>
        ),
    },
    { id: 'worse', header: 'Bars worse', cell: ({ worse }) => worse, isNumber: true },
    { id: 'relisted', header: 'Lists change', cell: ({ relisted }) => relisted, isNumber: true },
    ...(hasAcids
      ? [
          {
            id: 'acids',
            header: 'Other acids',
            cell: ({ otherAcidsPct }: RankedSubstitute) =>
              otherAcidsPct === null ? '' : `${Math.round(otherAcidsPct)} %`,
            isNumber: true,
          },
        ]
      : []),
    {
      id: 'price',
      header: 'Price',
      cell: (one) => <span className="whitespace-nowrap">{price(one)}</span>,
      isNumber: true,
    },
  ];
}

interface Found {
  of: string;
  bars: number;
  substitutes: RankedSubstitute[];
}

/** What could take a material's place, the best first; one is chosen by its row. */
export function Substitutes({
  of,
  chosen,
  onChoose,
}: {
  of: string;
  chosen: string | null;
  onChoose: (one: RankedSubstitute) => void;
}) {
  const [found, setFound] = useState<Found | null>(null);
  useEffect(() => {
    let isOld = false;
    void send<Omit<Found, 'of'>>('GET', address('materials', of, 'substitutes')).then((answer) => {
      if (!isOld && answer.ok) setFound({ of, ...answer.body });
    });
    return () => {
      isOld = true;
    };
  }, [of]);
  if (found?.of !== of) return <p role="status">Trying what could take its place…</p>;
  if (found.substitutes.length === 0) return <p>Nothing of its kind is on file.</p>;
  return (
    <>
      <p className="text-soft">
        Gram for gram in {found.bars === 1 ? 'the one bar that holds' : `the ${found.bars} bars that hold`}{' '}
        it; the best first.
      </p>
      <RecordTable
        label="What could take its place"
        rows={found.substitutes}
        columns={columns(found.substitutes.some(({ otherAcidsPct }) => otherAcidsPct !== null))}
        keyOf={({ id }) => id}
        window="max-h-72 overflow-y-auto"
        chosen={chosen}
        onChoose={onChoose}
      />
    </>
  );
}
