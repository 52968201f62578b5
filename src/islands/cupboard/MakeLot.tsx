import { useEffect, useState } from 'react';
import { ALKALI_MATERIAL, LYE_STOCK_MATERIAL, nextLot, type Lot } from '../../core/making/cost';
import { readLyeStock } from '../../core/making/lye-stock';
import { CAUTION } from '../../core/making/day-words';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { useKeeping } from '../../ui/keeping';
import { massUnit, typedGrams, toType } from '../../ui/masses';
import { Select } from '../../ui/Select';
import { TextField } from '../../ui/TextField';
import { grams, stock } from '../../ui/words';

const WATER_MATERIAL = 'water';

/** What is made of it: a mix of itself; of sodium hydroxide, as of lye stock, a lye stock. */
export function madeOf({ material, mix }: CupboardEntry): string | null {
  if (mix) return material.id;
  return material.id === ALKALI_MATERIAL || material.id === LYE_STOCK_MATERIAL ? LYE_STOCK_MATERIAL : null;
}

interface Part {
  material: string;
  share: number;
}

/** The parts with their shares of the whole; null where the strength is not said yet. */
function partsOf({ mix }: CupboardEntry, strength: string): Part[] | null {
  if (mix) {
    const all = mix.reduce((sum, { parts }) => sum + parts, 0);
    return mix
      .filter(({ parts }) => parts > 0)
      .map(({ material, parts }) => ({ material, share: parts / all }));
  }
  const pct = readLyeStock(strength);
  if (pct === null || !(pct > 0)) return null;
  return [
    { material: WATER_MATERIAL, share: 1 - pct / 100 },
    { material: ALKALI_MATERIAL, share: pct / 100 },
  ];
}

type Known = ReadonlyMap<string, { name: string; lots: readonly Lot[] }>;

/** Names and lots of the parts, asked for once the form is open. */
function useParts(ids: readonly string[]): Known {
  const [known, setKnown] = useState<Known>(new Map());
  const wanted = ids.join('\n');
  useEffect(() => {
    let isHere = true;
    for (const id of wanted.split('\n').filter(Boolean))
      void send<CupboardEntry>('GET', address('materials', id)).then((answer) => {
        if (!isHere || !answer.ok) return;
        const { material, lots } = answer.body;
        setKnown((all) => new Map(all).set(id, { name: material.name, lots }));
      });
    return () => {
      isHere = false;
    };
  }, [wanted]);
  return known;
}

interface RowState {
  lot: string | null;
  weighed: string;
}

interface RowProps {
  name: string;
  wantedG: number;
  lots: readonly Lot[];
  row: RowState;
  set: (change: Partial<RowState>) => void;
}

function PartRow({ name, wantedG, lots, row, set }: RowProps) {
  const free = lots.filter(({ leftG }) => leftG > 0);
  const words = ({ code, leftG, quarantine }: Lot) =>
    `${code}, ${quarantine === null ? `${stock(leftG)} left` : 'in quarantine'}`;
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_8rem] items-end gap-x-3 border-b border-hair py-1">
      <span className="col-span-2">
        {name}
        {wantedG > 0 && <span className="text-soft">, {grams(wantedG)} wanted</span>}
      </span>
      <Select
        label={`Lot of ${name}`}
        value={row.lot ?? ''}
        options={[['', 'of no lot on file'] as const, ...free.map((lot) => [lot.id, words(lot)] as const)]}
        onChange={(id) => set({ lot: id || null })}
      />
      <TextField
        label={`Weighed, ${massUnit()}`}
        value={row.weighed}
        isNumber
        onChange={(weighed) => set({ weighed })}
      />
    </li>
  );
}

const LYE_ORDER = [
  'Water first, in a jug of thick plastic or steel that takes heat, in a bowl of cold water.',
  'The alkali into the water, a little at a time, stirring. It gets very hot.',
  'Cooled, it goes into a bottle that holds lye, filled to the neck and closed, labelled with its code, strength and day.',
];

/** How a stock is made, with its cautions. */
function LyeSteps() {
  return (
    <>
      <ol className="list-decimal pl-5">
        {LYE_ORDER.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ol>
      <ul className="border-l-4 border-madder pl-3">
        {[CAUTION.never, CAUTION.alkali, CAUTION.fumes, CAUTION.aluminium].map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ul>
    </>
  );
}

interface Props {
  entry: CupboardEntry;
  onDone: (entry: CupboardEntry) => void;
  onClose: () => void;
}

/** Makes a lot of a mix or of lye stock: each part weighed from its own lot. */
export function MakeLot({ entry, onDone, onClose }: Props) {
  const isLye = entry.mix === null;
  const [strength, setStrength] = useState('1 to 1');
  const [total, setTotal] = useState(() => toType(1000));
  const [code, setCode] = useState('');
  const [despite, setDespite] = useState('');
  const [rows, setRows] = useState<Record<string, RowState>>({});
  const { busy, faults, setFaults, keep } = useKeeping();
  const parts = partsOf(entry, strength);
  const known = useParts((parts ?? []).map(({ material }) => material));
  const totalG = typedGrams(total);
  const lotsOf = (material: string) => known.get(material)?.lots ?? [];
  const rowOf = (material: string): RowState =>
    rows[material] ?? { lot: nextLot(lotsOf(material))?.id ?? null, weighed: '' };
  const nameOf = (material: string) => known.get(material)?.name ?? material;
  const make = async () => {
    const of = (parts ?? []).map(({ material }) => {
      const { lot, weighed } = rowOf(material);
      return {
        material,
        lot,
        massG: typedGrams(weighed),
        ...(despite.trim() ? { despite: despite.trim() } : {}),
      };
    });
    const open = of.find(({ massG }) => !(massG > 0));
    if (of.length === 0) return setFaults([{ path: '', message: 'Say how strong it is: 1 to 1, or 50 %.' }]);
    if (open)
      return setFaults([
        { path: '', message: `Weigh ${nameOf(open.material)} and write down what the scale showed.` },
      ]);
    const body = { code: code.trim() || null, of, bestBefore: null };
    const made = await keep((key) =>
      send<CupboardEntry>('POST', address('materials', madeOf(entry)!, 'made'), body, key),
    );
    if (made) onDone(made);
  };
  return (
    <section aria-label="Making a lot" className="grid gap-2 border-l-4 border-line px-3 py-2">
      {isLye && <LyeSteps />}
      <div className="grid grid-cols-3 gap-3">
        {isLye && <TextField label="How strong: 1 to 1, or %" value={strength} onChange={setStrength} />}
        <TextField label={`In all, ${massUnit()}`} value={total} isNumber onChange={setTotal} />
        <TextField label="Code (empty: the next)" value={code} onChange={setCode} />
      </div>
      <ul>
        {(parts ?? []).map(({ material, share }) => (
          <PartRow
            key={material}
            name={nameOf(material)}
            wantedG={totalG > 0 ? totalG * share : 0}
            lots={lotsOf(material)}
            row={rowOf(material)}
            set={(change) => setRows((all) => ({ ...all, [material]: { ...rowOf(material), ...change } }))}
          />
        ))}
      </ul>
      <TextField
        label="Where something speaks against a lot: why it is taken all the same"
        value={despite}
        onChange={setDespite}
      />
      <Faults faults={faults} />
      <div className="flex gap-3">
        <button type="button" className="action action-strong" disabled={busy} onClick={() => void make()}>
          Write the lot down
        </button>
        <button type="button" className="action" onClick={onClose}>
          Close, make nothing
        </button>
      </div>
    </section>
  );
}
