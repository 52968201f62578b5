import { useState } from 'react';
import { TABLE_FILES } from '../../core/file-kinds';
import type { Market } from '../../core/formula/types';
import type { DayOrder } from '../../core/paperwork/dates';
import { dayOrderOf, isOrderOpen, readDay, withoutTime } from '../../core/sheets/days';
import { dayInWords, many } from '../../ui/words';
import {
  COLUMN_WORDS,
  COLUMNS,
  dayCells,
  guessColumns,
  NEEDED,
  type Column,
  type Mapping,
} from '../../core/stock/sale-columns';
import { isNamed, readFile, sendRows, type List, type Told } from './till-file';
import { FileButton } from '../../ui/FileButton';
import { TextField } from '../../ui/TextField';

/** So many rows that are not taken lie open; more are folded away under their number. */
const MOST_OPEN = 8;

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

function Answer({ told, onLeave }: { told: Told; onLeave: (rows: number[]) => void }) {
  const rows = [...new Set(told.faults.flatMap(({ row }) => row ?? []))];
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
              {row !== null && `Row ${row}: `}
              {message}
            </li>
          ))}
        </ul>
      )}
      {rows.length > 0 && (
        <button type="button" className="action mt-2" onClick={() => onLeave(rows)}>
          Leave {rows.length === 1 ? 'this row' : `these ${rows.length} rows`} out
        </button>
      )}
    </div>
  );
}

/** Rows of the file that are not taken: no sales by themselves, or left out by hand. */
function NotTaken({ list, out, onBack }: { list: List; out: ReadonlySet<number>; onBack: () => void }) {
  const { aside, carried, unread, rows, numbers } = list;
  const left = numbers.flatMap((row, at) =>
    out.has(row) ? [{ row, said: rows[at]!.filter(Boolean).join(', '), why: 'left out by you' }] : [],
  );
  const all = [...aside, ...left];
  return (
    <>
      {carried.length > 0 && (
        <p>
          {carried.length === 1 ? 'One row has' : `${carried.length} rows have`} no day: the day above{' '}
          {carried.length === 1 ? 'it' : 'them'} is taken ({carried.slice(0, MOST_OPEN).join(', ')}
          {carried.length > MOST_OPEN && ' …'}).
        </p>
      )}
      {unread.length > 0 && <p className="text-soft">Sheets that are not read: {unread.join(', ')}.</p>}
      {all.length > 0 && (
        <details open={all.length <= MOST_OPEN}>
          <summary className="cursor-pointer text-ultra">
            {all.length === 1 ? 'One row is' : `${all.length} rows are`} not taken
          </summary>
          <ul className="max-h-60 overflow-auto text-soft" tabIndex={0} aria-label="Rows that are not taken">
            {all.map(({ row, said, why }, at) => (
              <li key={`${row} ${at}`}>
                Row {row}, {why}: {said}
              </li>
            ))}
          </ul>
          {left.length > 0 && (
            <button type="button" className="cursor-pointer text-ultra underline" onClick={onBack}>
              Take back in what you left out
            </button>
          )}
        </details>
      )}
    </>
  );
}

/** A list that lies open, with what was said of it. */
function useTill(names: readonly string[]) {
  const [list, setList] = useState<List | null>(null);
  const [out, setOut] = useState<ReadonlySet<number>>(new Set());
  const [mapping, setMapping] = useState<Mapping>({});
  const [to, setTo] = useState('');
  const [market, setMarket] = useState<Market | ''>('');
  const [order, setOrder] = useState<DayOrder | null>(null);
  const [told, setTold] = useState<Told | null>(null);
  const [isBusy, setBusy] = useState(false);
  const open = async (file: File) => {
    const read = await readFile(file, isNamed(names));
    if (typeof read === 'string') return setTold({ kind: 'faults', words: read, faults: [] });
    setTold(null);
    setOrder(null);
    setOut(new Set());
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
    setTold(await sendRows({ list, out, mapping, usual }, isPreview));
    setBusy(false);
  };
  const leave = (rows: number[]) => {
    setOut(new Set([...out, ...rows]));
    setTold(null);
  };
  const takeBack = () => setOut(new Set());
  return {
    ...{ out, leave, takeBack },
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
      <p className="text-soft">{many(list.rows.length - till.out.size, 'row')}.</p>
      <NotTaken list={list} out={till.out} onBack={till.takeBack} />
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

/** A list from a till or a shop as a spreadsheet or CSV: columns matched, looked over, then written down as a whole or not at all. */
export function TillList({ markets, names }: { markets: Market[]; names: readonly string[] }) {
  const till = useTill(names);
  const { list, told, open, leave } = till;
  return (
    <section aria-label="A till’s list" className="sheet grid content-start gap-2">
      <h2 className="text-lg">From a till or a shop</h2>
      {!list && (
        <p className="text-soft">
          Any list with a day, a bar or a batch code and a number. Which column says what is guessed from its
          head and can be put right. Days may stand in words, over the rows below them or along the top; bars
          may stand along the top, too. A row that is taken twice counts once; with a fault in any row,
          nothing is written.
        </p>
      )}
      <FileButton accept={TABLE_FILES} className="justify-self-start" onFile={(file) => void open(file)}>
        {list?.name ?? 'Choose a spreadsheet or CSV file'}
      </FileButton>
      {list && <OpenList till={till} list={list} markets={markets} />}
      {told && <Answer told={told} onLeave={leave} />}
    </section>
  );
}
