import { useDeferredValue, useMemo } from 'react';
import type { MixPart } from '../../core/formula/mix';
import type { Market } from '../../core/formula/types';
import { storageCaution } from '../../core/scent/storage';
import type { Scent, ScentDeskData, TryBar } from '../../core/records/scent';
import { CONCERN_WORDS, percent } from '../../ui/words';
import { inWords, subjectName } from '../worktable/view';
import { broughtBy, reachOf, type Bench, type Reach, type Tried } from './reckoning';

interface Props {
  data: ScentDeskData;
  scents: readonly Scent[];
  bench: Bench;
  bar: TryBar;
  parts: readonly MixPart[];
  totalPct: number;
  tried: Tried | null;
  nameOf: (id: string) => string;
}

const MOST_ROWS = 14;

/** Markets in which the same limit stops the blend at the same load, told as one. */
function together(reach: readonly Reach[]) {
  const groups = new Map<string, Omit<Reach, 'market'> & { markets: Market[] }>();
  for (const { market, mostPctFats, boundBy } of reach) {
    const key = `${mostPctFats?.toFixed(6)} ${boundBy?.id}`;
    const known = groups.get(key);
    if (known) known.markets.push(market);
    else groups.set(key, { markets: [market], mostPctFats, boundBy });
  }
  return [...groups.values()];
}

/** How far the whole can go in its proportions, market by market. */
function ReachTable({ bench, bar, parts, totalPct, nameOf }: Props) {
  const settled = useDeferredValue(parts);
  const reach = useMemo(() => reachOf(bench, bar, settled, totalPct), [bench, bar, settled, totalPct]);
  return (
    <section aria-label="How far it can go" className="sheet mt-3">
      <h2 className="text-lg">How far the whole can go</h2>
      <table className="plain-table">
        <tbody>
          {together(reach).map(({ markets, mostPctFats, boundBy }) => (
            <tr key={markets.join()}>
              <th scope="row" className="whitespace-nowrap">
                {markets.join(', ')}
              </th>
              <td className="whitespace-nowrap tabular-nums">
                {mostPctFats === null ? 'nothing binds' : `${percent(mostPctFats)} of the fats`}
              </td>
              <td className="font-narrow text-soft">
                {boundBy &&
                  `${subjectName(boundBy, nameOf)}, at most ${percent(boundBy.maxPct)}: ${boundBy.source ?? ''}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function BroughtTable({ bench, tried, nameOf }: Props) {
  const rows = useMemo(() => (tried ? broughtBy(tried, bench, inWords) : []), [tried, bench]);
  if (!tried || rows.length === 0) return null;
  const materials = tried.oils.map(({ line }) => nameOf(line.replace(/^oil /, '')));
  return (
    <section aria-label="What each brings" className="sheet mt-3 overflow-x-auto">
      <h2 className="text-lg">What each brings, percent of the cured bar</h2>
      <table className="plain-table font-narrow">
        <thead>
          <tr>
            <th scope="col">Constituent</th>
            {materials.map((name) => (
              <th key={name} scope="col" className="text-right">
                {name}
              </th>
            ))}
            <th scope="col" className="text-right">
              At most
            </th>
            <th scope="col" className="text-right">
              Limit
            </th>
            <th scope="col">Named in</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST_ROWS).map(({ id, name, byOil, limit, highPct, declaredIn }) => (
            <tr key={id}>
              <th scope="row">{name}</th>
              {byOil.map((share, index) => (
                <td key={materials[index]} className="text-right tabular-nums">
                  {share > 0 ? percent(share) : ''}
                </td>
              ))}
              <td className="text-right tabular-nums">{percent(highPct)}</td>
              <td className="text-right tabular-nums">{limit ? percent(limit.maxPct) : ''}</td>
              <td>{declaredIn.join(', ')}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Sun, cooling, pregnancy and child cautions, and what age has done to the bottles. */
function Cautions({ data, scents, parts }: Props) {
  const used = parts
    .filter((part) => part.parts > 0)
    .flatMap((part) => scents.find(({ material }) => material.id === part.material) ?? []);
  const byConcern = new Map<string, string[]>();
  for (const { material } of used) {
    for (const concern of material.concerns ?? [])
      byConcern.set(concern, [...(byConcern.get(concern) ?? []), material.name]);
  }
  const aged = used.flatMap(({ material, lots }) =>
    lots
      .filter(({ leftG }) => leftG > 0)
      .flatMap((lot) => {
        const caution = storageCaution(material, lot, data.onDate, data.peroxides);
        return caution ? [`${material.name}, lot ${lot.code}: ${caution}`] : [];
      }),
  );
  const own = used.flatMap(({ material }) =>
    (material.cautions ?? []).map((said) => `${material.name}: ${said}`),
  );
  const said = [
    ...[...byConcern].map(
      ([concern, names]) => `${CONCERN_WORDS[concern as keyof typeof CONCERN_WORDS]} (${names.join(', ')})`,
    ),
    ...aged,
    ...own,
  ];
  if (said.length === 0) return null;
  return (
    <section aria-label="Cautions" className="sheet mt-3">
      <h2 className="text-lg">Cautions</h2>
      <ul className="list-disc pl-5">
        {said.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
      <p className="eyebrow mt-1">
        Follow the rules where you sell; where a qualified assessor is asked for, this does not replace one.
      </p>
    </section>
  );
}

/** What the blend leads to in the bar it is tried in. */
export function BlendOutcome(props: Props) {
  return (
    <>
      <ReachTable {...props} />
      <BroughtTable {...props} />
      <Cautions {...props} />
    </>
  );
}
