import { useEffect, useState } from 'react';
import { onLine } from '../../core/change/in-bar';
import type { Line } from '../../core/formula/types';
import type { FoundMaterial } from '../../core/records/cupboard';
import type { LineSubstitutes, RankedInBar } from '../../core/records/watch';
import { address, send, type Fault } from '../../ui/api';
import { lookAtChange } from '../../ui/look-at-change';
import { Faults } from '../../ui/Faults';
import { newStep } from '../../ui/step';
import { VerdictMark } from '../../ui/VerdictMark';
import { FACT_WORDS, gramsAt, money, stock, VERDICT_WORDS } from '../../ui/words';
import { HELD, useTable } from './context';

const signed = (value: number, words: string) => `${value < 0 ? '−' : '+'}${words}`;

function Stands({ verdict }: RankedInBar) {
  if (verdict === null) return <>does not reckon</>;
  return (
    <span className="flex items-center gap-1.5 whitespace-nowrap">
      <VerdictMark verdict={verdict} size={16} />
      {VERDICT_WORDS[verdict]}
    </span>
  );
}

/** What differs from how it is now, in one line of figures. */
function figures(one: RankedInBar, { now, currency }: LineSubstitutes): string[] {
  const { alkaliG, otherAcidsPct, costMore, freeG, isOwn } = one;
  const parts: string[] = [];
  if (alkaliG !== null && now.alkaliG !== null) {
    const more = alkaliG - now.alkaliG;
    parts.push(
      Math.abs(more) < 0.05
        ? 'the same lye'
        : `lye ${signed(more, gramsAt(Math.abs(more), 0.1))} = ${gramsAt(alkaliG, 0.1)}`,
    );
  }
  if (otherAcidsPct !== null) parts.push(`${Math.round(otherAcidsPct)} % other acids`);
  if (costMore !== null) parts.push(`a pour ${signed(costMore, money(Math.abs(costMore), currency))}`);
  if (freeG > 0) parts.push(`${stock(freeG)} in the cupboard`);
  else if (isOwn) parts.push('none left in the cupboard');
  return parts;
}

function Candidate({ one, found, onTake }: { one: RankedInBar; found: LineSubstitutes; onTake: () => void }) {
  const { name, comes, goes, misclaimed } = one;
  return (
    <li className="border-b border-hair">
      <button
        type="button"
        className="block w-full cursor-pointer py-1 text-left hover:bg-sheet"
        onClick={onTake}
      >
        <span className="flex items-baseline justify-between gap-3">
          <span className="font-medium text-ultra">{name}</span>
          <Stands {...one} />
        </span>
        <span className="block font-narrow leading-tight">{figures(one, found).join(' · ')}</span>
        {(comes.length > 0 || goes.length > 0) && (
          <span className="block font-narrow leading-tight text-soft">
            list: {[...comes.map((name) => `+ ${name}`), ...goes.map((name) => `− ${name}`)].join(', ')}
          </span>
        )}
        {misclaimed.length > 0 && (
          <span className="block font-narrow text-madder">
            no longer {misclaimed.map((fact) => FACT_WORDS[fact]).join(', ')}
          </span>
        )}
      </button>
    </li>
  );
}

/** How it is now, at the head of what it is held against. */
function AsNow({ now }: Pick<LineSubstitutes, 'now'>) {
  return (
    <p className="flex items-baseline justify-between gap-3 border-b border-line py-1">
      <span>
        Now: <span className="font-medium">{now.name}</span>
        {now.alkaliG !== null && `, lye ${gramsAt(now.alkaliG, 0.1)}`}
        {now.freeG > 0 && `, ${stock(now.freeG)} in the cupboard`}
      </span>
      <Stands {...now} />
    </p>
  );
}

/** Asked for once the formula is on file as it lies on the table. */
function useSubstitutes(line: string) {
  const { data, flush } = useTable();
  const { id } = data.product;
  const [found, setFound] = useState<LineSubstitutes | null>(null);
  const [faults, setFaults] = useState<Fault[]>([]);
  useEffect(() => {
    let isOld = false;
    const ask = async () => {
      if ((await flush()) === null) return setFaults([HELD]);
      const url = `${address('products', id, 'substitutes')}?line=${encodeURIComponent(line)}`;
      const answer = await send<LineSubstitutes>('GET', url);
      if (isOld) return;
      setFaults(answer.ok ? [] : answer.faults);
      if (answer.ok) setFound(answer.body);
    };
    void ask();
    return () => {
      isOld = true;
    };
    // Once, as it opens: what is chosen then changes the table itself.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [id, line]);
  return { found, faults, setFaults };
}

/** In every bar that holds it: looked at first, decided there. */
const inAllBars = (from: string, to: string) => lookAtChange({ kind: 'swap', from, to, by: 'mass' });

/** What could stand on the line instead, the best first, beside what stands there; one is taken by its row. */
export function SwapLine({ line, onClose }: { line: Line; onClose: () => void }) {
  const { assessment, bring, change, materialName } = useTable();
  const { found, faults, setFaults } = useSubstitutes(line.id);
  const [taken, setTaken] = useState<{ from: string; to: RankedInBar } | null>(null);
  const massG = assessment.lines.find(({ id }) => id === line.id)?.massG ?? null;
  const take = async (to: RankedInBar) => {
    const answer = await send<{ materials: FoundMaterial[] }>(
      'GET',
      `/api/v1/materials?ids=${encodeURIComponent(to.id)}`,
    );
    if (!answer.ok) return setFaults(answer.faults);
    bring(answer.body.materials.map(({ material }) => material));
    change((now) => onLine(now, line.id, to.id, massG), newStep('swap'));
    setTaken({ from: line.material, to });
  };
  const close = (
    <button type="button" className="action py-0 whitespace-nowrap" onClick={onClose}>
      Close
    </button>
  );
  if (taken)
    return (
      <p role="status" className="col-span-full flex flex-wrap items-baseline gap-3 py-1">
        {taken.to.name} stands in the place of {materialName(taken.from)} in this bar; the amount stayed.
        <button
          type="button"
          className="action py-0"
          onClick={() => void inAllBars(taken.from, taken.to.id).then(setFaults)}
        >
          In all bars: what would it touch?
        </button>
        {close}
        <Faults faults={faults} />
      </p>
    );
  return (
    <section
      className="col-span-full border-l-4 border-line bg-tint px-3 py-2"
      aria-label={`Instead of ${materialName(line.material)}`}
    >
      <p className="flex items-baseline justify-between gap-3">
        <span>Amount, stage and portion stay. The best first; a row takes it.</span>
        {close}
      </p>
      <Faults faults={faults} />
      {!found && faults.length === 0 && <p role="status">Trying what could stand here…</p>}
      {found && (
        <>
          <AsNow now={found.now} />
          <ul className="max-h-80 overflow-y-auto" aria-label="What could stand here">
            {found.candidates.map((one) => (
              <Candidate key={one.id} one={one} found={found} onTake={() => void take(one)} />
            ))}
          </ul>
          {found.candidates.length === 0 && <p>Nothing of its kind is on file.</p>}
        </>
      )}
    </section>
  );
}
