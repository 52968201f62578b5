import { useState } from 'react';
import type { Market } from '../../core/formula/types';
import { address, send, type Fault } from '../../ui/api';
import { dayOrderOf, isOrderOpen, readDay, withoutTime, type DayOrder } from '../../core/sheets/days';
import { textOfBytes } from '../../ui/file-text';
import { dayInWords } from '../../ui/words';
import {
  COLUMN_WORDS,
  COLUMNS,
  dayCells,
  guessColumns,
  NEEDED,
  readSales,
  type Column,
  type Mapping,
} from '../../core/stock/sale-columns';
import { FileButton } from '../../ui/FileButton';
import { TextField } from '../../ui/TextField';

interface List {
  name: string;
  heads: string[];
  rows: string[][];
}

interface Told {
  kind: 'faults' | 'preview' | 'done';
  words: string;
  faults: { row: number | null; message: string }[];
}

/** Years of a busy stall; more is no list of sales, or wants to come in pieces. */
const LARGEST_BYTES = 5_000_000;

async function readFile(file: File): Promise<List | string> {
  if (file.size > LARGEST_BYTES) return 'This file is over 5 MB. Export a shorter span of days.';
  const { default: Papa } = await import('papaparse');
  const text = textOfBytes(new Uint8Array(await file.arrayBuffer()));
  const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' });
  const [heads, ...rows] = data;
  if (!heads || rows.length === 0) return 'There are no rows in this file. Export it with one line of heads.';
  return { name: file.name, heads, rows };
}

function Columns({
  list,
  mapping,
  onChange,
}: {
  list: List;
  mapping: Mapping;
  onChange: (mapping: Mapping) => void;
}) {
  const choose = (column: Column, at: string) =>
    onChange({ ...mapping, [column]: at === '' ? undefined : Number(at) });
  return (
    <fieldset className="grid grid-cols-2 gap-2 sm:grid-cols-4">
      <legend className="font-medium">Which column says what</legend>
      {COLUMNS.map((column) => (
        <label key={column}>
          <span className="eyebrow block">
            {COLUMN_WORDS[column]}
            {NEEDED.includes(column) && ', needed'}
          </span>
          <select
            className="field w-full"
            value={mapping[column] ?? ''}
            onChange={(event) => choose(column, event.target.value)}
          >
            <option value="">not in it</option>
            {list.heads.map((head, at) => (
              <option key={`${head} ${at}`} value={at}>
                {head || `column ${at + 1}`}
              </option>
            ))}
          </select>
        </label>
      ))}
    </fieldset>
  );
}

/** A day as it is read, in words; as it stands where it is none. */
function dayAs(cell: string, order: DayOrder): string {
  const read = readDay(withoutTime(cell), order, 'first');
  return typeof read === 'string' ? dayInWords(read) : cell;
}

interface OrderProps {
  cells: readonly string[];
  order: DayOrder | null;
  onChange: (order: DayOrder) => void;
}

/** Asked where nothing in the list tells whether the day or the month stands first. */
function WhichFirst({ cells, order, onChange }: OrderProps) {
  const example = cells.find((cell) => /^\d/.test(cell)) ?? '';
  return (
    <fieldset className="border-l-4 border-ink pl-3">
      <legend className="font-medium">What is {example}?</legend>
      {(['dayFirst', 'monthFirst'] as const).map((one) => (
        <label key={one} className="mr-4 inline-flex items-center gap-1.5">
          <input
            type="radio"
            name="day order"
            className="accent-ultra"
            checked={order === one}
            onChange={() => onChange(one)}
          />
          {dayAs(example, one)}
        </label>
      ))}
    </fieldset>
  );
}

function First({ list, mapping, order }: { list: List; mapping: Mapping; order: DayOrder }) {
  const shown = COLUMNS.filter((column) => mapping[column] !== undefined);
  return (
    <table className="plain-table" aria-label="The first rows">
      <thead>
        <tr>
          {shown.map((column) => (
            <th key={column} scope="col">
              {COLUMN_WORDS[column]}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {list.rows.slice(0, 4).map((row, at) => (
          // Rows of a file have no name but their place.
          <tr key={at}>
            {shown.map((column) => (
              <td key={column}>
                {column === 'day' ? dayAs(row[mapping[column]!] ?? '', order) : (row[mapping[column]!] ?? '')}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const rowOf = (path: string) => {
  const found = /^rows\.(\d+)/.exec(path)?.[1];
  return found === undefined ? null : Number(found);
};
const toldFaults = (faults: readonly Fault[]) =>
  faults.map(({ path, message }) => ({ row: rowOf(path), message }));

interface Wanted {
  list: List;
  mapping: Mapping;
  usual: { to: string; market: Market | null; order: DayOrder | null };
}

async function sendRows({ list, mapping, usual }: Wanted, isPreview: boolean): Promise<Told> {
  const { rows, faults } = readSales(list.rows, mapping, usual);
  const many = (count: number) => `${count} ${count === 1 ? 'row' : 'rows'}`;
  const nothing = 'Nothing was written down.';
  if (faults.length > 0)
    return { kind: 'faults', words: `${many(faults.length)} cannot be read. ${nothing}`, faults };
  const by = localStorage.getItem('proportia.by');
  const answer = await send<{ rows: number; known: number; bars: number }>('POST', address('sales'), {
    rows,
    preview: isPreview,
    by,
  });
  if (!answer.ok)
    return {
      kind: 'faults',
      words: `${many(answer.faults.length)} cannot be taken. ${nothing}`,
      faults: toldFaults(answer.faults),
    };
  const { rows: fresh, known, bars } = answer.body;
  const before = known > 0 ? ` ${many(known)} were known and change nothing.` : '';
  return isPreview
    ? { kind: 'preview', words: `${many(fresh)} would take ${bars} bars.${before}`, faults: [] }
    : { kind: 'done', words: `${many(fresh)} written down, ${bars} bars.${before}`, faults: [] };
}

function Answer({ told }: { told: Told }) {
  return (
    <div role="status">
      <p className="font-medium">{told.words}</p>
      {told.faults.length > 0 && (
        <ul
          className="max-h-60 overflow-auto border-l-4 border-madder pl-3"
          tabIndex={0}
          aria-label="Faults by row"
        >
          {told.faults.map(({ row, message }, at) => (
            <li key={`${row} ${at}`}>
              {row !== null && `Row ${row + 2}: `}
              {message}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** Whether a cell names a bar or a batch there is. */
function isNamed(names: readonly string[]): (text: string) => boolean {
  const known = new Set(names.map((name) => name.toLowerCase()));
  return (text) => known.has(text.toLowerCase()) || known.has(text.split('/')[0]!.toLowerCase());
}

/** A list that lies open, with what was said of it. */
function useTill(names: readonly string[]) {
  const [list, setList] = useState<List | null>(null);
  const [mapping, setMapping] = useState<Mapping>({});
  const [to, setTo] = useState('');
  const [market, setMarket] = useState<Market | ''>('');
  const [order, setOrder] = useState<DayOrder | null>(null);
  const [told, setTold] = useState<Told | null>(null);
  const [isBusy, setBusy] = useState(false);
  const open = async (file: File) => {
    const read = await readFile(file);
    if (typeof read === 'string') return setTold({ kind: 'faults', words: read, faults: [] });
    setTold(null);
    setOrder(null);
    setList(read);
    setMapping(guessColumns(read.heads, read.rows, isNamed(names)));
  };
  const cells = list ? dayCells(list.rows, mapping) : [];
  const asksOrder = isOrderOpen(cells);
  const isFit =
    list !== null &&
    NEEDED.every((column) => mapping[column] !== undefined) &&
    (!asksOrder || order !== null);
  const go = async (isPreview: boolean) => {
    if (!list) return;
    setBusy(true);
    const usual = { to: to.trim(), market: market || null, order: asksOrder ? order : null };
    setTold(await sendRows({ list, mapping, usual }, isPreview));
    setBusy(false);
  };
  return {
    ...{ list, mapping, setMapping, to, setTo, market, setMarket, order, setOrder },
    ...{ told, isReady: isFit && !isBusy, open, cells, asksOrder, go },
  };
}

/** What an open list is taken for, and the ways on. */
function OpenList({
  till,
  list,
  markets,
}: {
  till: ReturnType<typeof useTill>;
  list: List;
  markets: Market[];
}) {
  const { mapping, setMapping, to, setTo, market, setMarket, order, setOrder } = till;
  const { isReady, cells, asksOrder, go } = till;
  return (
    <>
      <p className="text-soft">{list.rows.length} rows.</p>
      <Columns list={list} mapping={mapping} onChange={setMapping} />
      <div className="grid grid-cols-2 gap-2">
        <TextField label="Where, if no column says" value={to} onChange={setTo} />
        <label>
          <span className="eyebrow block">Market, if no column says</span>
          <select
            className="field w-full"
            value={market}
            onChange={(event) => setMarket(event.target.value as Market)}
          >
            <option value="">not said</option>
            {markets.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
      </div>
      {asksOrder && <WhichFirst cells={cells} order={order} onChange={setOrder} />}
      <First
        list={list}
        mapping={mapping}
        order={(asksOrder ? order : null) ?? dayOrderOf(cells) ?? 'dayFirst'}
      />
      <div className="flex flex-wrap gap-2">
        <button type="button" className="action" disabled={!isReady} onClick={() => void go(true)}>
          Look it over
        </button>
        <button
          type="button"
          className="action action-strong"
          disabled={!isReady}
          onClick={() => void go(false)}
        >
          Write it all down
        </button>
      </div>
    </>
  );
}

/** A list from a till or a shop as CSV: columns matched, looked over, then written down as a whole or not at all. */
export function TillList({ markets, names }: { markets: Market[]; names: readonly string[] }) {
  const till = useTill(names);
  const { list, told, open } = till;
  return (
    <section aria-label="A till’s list" className="sheet grid content-start gap-2">
      <h2 className="text-lg">From a till or a shop</h2>
      {!list && (
        <p className="text-soft">
          Any list with a day, a bar or a batch code and a number. Which column says what is guessed from its
          head and can be put right. A row that is taken twice counts once; with a fault in any row, nothing
          is written.
        </p>
      )}
      <FileButton
        accept=".csv,.tsv,text/csv,text/plain"
        className="justify-self-start"
        onFile={(file) => void open(file)}
      >
        {list?.name ?? 'Choose a CSV file'}
      </FileButton>
      {list && <OpenList till={till} list={list} markets={markets} />}
      {told && <Answer told={told} />}
    </section>
  );
}
