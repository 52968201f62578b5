import { useMemo, useState } from 'react';
import type { Kind } from '../../core/formula/types';
import type { StockResult } from '../../core/records/import';
import type { SheetUnit } from '../../core/sheets/amounts';
import type { DayOrder } from '../../core/paperwork/dates';
import { unreadHeads } from '../../core/sheets/layout';
import { readStock, type StockItem } from '../../core/sheets/stock';
import { guessStock, PRICE_OF, type StockColumn, type StockLayout } from '../../core/sheets/stock-layout';
import {
  isDoubtful,
  materialOf,
  takeStock,
  type KnownMaterial,
  type StockRow,
  type StockTaking,
} from '../../core/sheets/stock-take';
import { address } from '../../ui/api';
import { Names, useMatches } from '../../ui/MaterialNames';
import { Select } from '../../ui/Select';
import { dayInWords, ONE_OF_KIND_WORDS, grams } from '../../ui/words';
import { Columns, FirstRows, Outcome, TakeIn, Unread, useLeft, useSending, type Sheet } from './import-parts';

const COLUMN_WORDS: Record<StockColumn, string> = {
  what: 'Material',
  kind: 'Kind',
  inci: 'INCI name',
  sap: 'SAP value',
  supplier: 'Supplier',
  code: 'Lot',
  bought: 'Bought',
  count: 'How many packs',
  unit: 'Unit',
  left: 'Left',
  price: 'Price',
  received: 'Came on',
  opened: 'Opened on',
  bestBefore: 'Best before',
};
const UNIT_CHOICES: readonly (readonly [SheetUnit | '', string])[] = [
  ['', 'each cell says it'],
  ['g', 'grams'],
  ['kg', 'kilograms'],
  ['oz', 'ounces'],
  ['lb', 'pounds'],
  ['mL', 'millilitres'],
  ['L', 'litres'],
];
const PRICE_WORDS = {
  all: 'all that was bought',
  kg: 'a kilogram',
  '100 g': '100 g',
  lb: 'a pound',
  oz: 'an ounce',
};
const DAY_CHOICES: readonly (readonly [DayOrder, string])[] = [
  ['dayFirst', 'day, month, year'],
  ['monthFirst', 'month, day, year'],
];
const WHAT_WORDS = { there: 'in the cupboard', library: 'from the library', new: 'new' } as const;

function LayoutForm({
  sheet,
  layout,
  onChange,
}: {
  sheet: Sheet;
  layout: StockLayout;
  onChange: (layout: StockLayout) => void;
}) {
  const heads = sheet.rows[Math.max(0, layout.head)] ?? [];
  return (
    <div className="flex flex-wrap items-end gap-4">
      <Columns
        heads={heads}
        words={COLUMN_WORDS}
        columns={layout.columns}
        onChange={(columns) => onChange({ ...layout, columns })}
      />
      <Select
        label="Bare numbers are in"
        value={layout.unit ?? ''}
        options={UNIT_CHOICES}
        onChange={(unit) => onChange({ ...layout, unit: unit === '' ? null : unit })}
      />
      <Select
        label="The price is of"
        value={layout.priceOf}
        options={PRICE_OF.map((of) => [of, PRICE_WORDS[of]] as const)}
        onChange={(priceOf) => onChange({ ...layout, priceOf })}
      />
      <Select
        label={layout.days === null ? 'Days are written (nothing tells)' : 'Days are written'}
        value={layout.days ?? 'dayFirst'}
        options={DAY_CHOICES}
        onChange={(days) => onChange({ ...layout, days })}
      />
    </div>
  );
}

function lotWords({ lot }: StockRow): string {
  if (!lot) return 'no lot';
  const { code, quantityG, leftG, receivedOn, bestBefore } = lot;
  return [
    `lot ${code}`,
    leftG === quantityG ? grams(quantityG) : `${grams(leftG)} of ${grams(quantityG)}`,
    `came ${dayInWords(receivedOn)}`,
    bestBefore && `best before ${dayInWords(bestBefore)}`,
  ]
    .filter(Boolean)
    .join(', ');
}

function lookedWords(result: StockResult | null, wanted: number) {
  const looked = result?.rows.find(({ row }) => row === wanted);
  if (!looked) return null;
  const { fault, title, what } = looked;
  return { words: fault ?? `${title}, ${WHAT_WORDS[what]}`, isFault: fault !== null };
}

type Chosen = Readonly<Record<string, KnownMaterial & { title: string }>>;
type NewKinds = Readonly<Record<string, Kind>>;

/** What the maker said of names that are not sure: another material, or a new one of a kind. */
function useSaid() {
  const [chosen, setChosen] = useState<Chosen>({});
  const [kinds, setKinds] = useState<NewKinds>({});
  const choose = (name: string, one: Chosen[string]) => {
    setChosen({ ...chosen, [name]: one });
    setKinds(Object.fromEntries(Object.entries(kinds).filter(([other]) => other !== name)));
  };
  const makeNew = (name: string, kind: Kind | '') =>
    setKinds(
      Object.fromEntries(
        Object.entries({ ...kinds, [name]: kind }).filter(([, one]) => one !== ''),
      ) as NewKinds,
    );
  return { chosen, kinds, choose, makeNew };
}

/** What a name is taken for, in words; null where that is still to be said. */
function takenWords(
  items: readonly StockItem[],
  wanted: string,
  taking: StockTaking,
  title: string | undefined,
): string | null {
  const item = items.find(({ name }) => name === wanted);
  const what = item && materialOf(item, taking);
  if (!what || 'fault' in what) return null;
  return what.own
    ? `a new material: ${ONE_OF_KIND_WORDS[what.own.kind].toLowerCase()}`
    : `taken for ${title}`;
}

/** Whether a name is to be looked at. */
const doubtfulIn = (items: readonly StockItem[], matches: ReadonlyMap<string, KnownMaterial | null>) => {
  const names = new Set(
    items.flatMap(({ name, kind }) => (isDoubtful(kind, matches.get(name) ?? null) ? [name] : [])),
  );
  return (name: string) => names.has(name);
};

interface Props {
  sheet: Sheet;
  today: string;
  /** What follows once its rows are taken. */
  onTaken: () => void;
}

/** Materials and lots as they stand in a maker's list. */
export function ImportStock({ sheet, today, onTaken }: Props) {
  const [layout, setLayout] = useState(() => guessStock(sheet.rows));
  const read = useMemo(() => readStock(sheet.rows, layout), [sheet, layout]);
  const names = useMemo(() => [...new Set(read.items.map(({ name }) => name))], [read]);
  const { matches, isMatching } = useMatches(names);
  const { chosen, kinds, choose, makeNew } = useSaid();
  const taking = useMemo(
    (): StockTaking => ({
      find: (name) => chosen[name] ?? matches.get(name) ?? null,
      newKind: (name) => kinds[name] ?? null,
      today,
    }),
    [chosen, kinds, matches, today],
  );
  const made = useMemo(() => takeStock(read.items, taking), [read, taking]);
  const faults = [...read.faults, ...made.faults].sort((a, b) => a.row - b.row);
  const sending = useSending<StockResult>(address('import', 'stock'), onTaken);
  const { left, leave } = useLeft<string>();
  const rows = made.rows.filter(({ row }) => !left.has(String(row)));
  return (
    <>
      <FirstRows rows={sheet.rows} />
      <LayoutForm sheet={sheet} layout={layout} onChange={setLayout} />
      <Unread heads={unreadHeads(sheet.rows, layout)} />
      <Names
        names={names}
        matches={matches}
        taken={(name) =>
          takenWords(read.items, name, taking, chosen[name]?.title ?? matches.get(name)?.title)
        }
        isOpen={doubtfulIn(read.items, matches)}
        onFound={(name, { id, name: title, kind, density, bulkDensity }) =>
          choose(name, {
            id,
            title,
            kind,
            isSure: true,
            isChosen: true,
            gPerMl: density ?? bulkDensity ?? null,
          })
        }
      >
        {(name) => (
          <Select<Kind | ''>
            label="or a new material"
            value={kinds[name] ?? ''}
            options={[['', 'no'], ...(Object.entries(ONE_OF_KIND_WORDS) as [Kind, string][])]}
            onChange={(kind) => makeNew(name, kind)}
          />
        )}
      </Names>
      <Outcome
        what="row"
        all={made.rows.map((one) => ({
          ...{ key: String(one.row), name: one.name, words: lotWords(one), notes: one.notes },
          looked: lookedWords(sending.result, one.row),
        }))}
        faults={faults}
        left={left}
        isMatching={isMatching}
        onLeave={leave}
      />
      <TakeIn
        look="Look at them first"
        what="row"
        count={rows.length}
        busy={sending.busy}
        isHeld={isMatching || faults.length > 0}
        faults={sending.faults}
        onGo={(preview) => void sending.go(preview, { rows: rows.map(({ notes: _, ...row }) => row) })}
      >
        A new material has no papers: scents stay unproven until theirs are filed.
      </TakeIn>
    </>
  );
}
