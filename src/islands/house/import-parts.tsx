/** What bringing in any spreadsheet shows: its first rows, names that are not sure, what comes of it, taking it in. */
import { useState, type ReactNode } from 'react';
import type { SheetFault } from '../../core/sheets/cells';
import { send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { Select } from '../../ui/Select';
import { many } from '../../ui/words';

const SHOWN_ROWS = 6;
const MOST_FAULTS = 40;

export interface Sheet {
  /** What a bar that stands alone in it is called. */
  name: string;
  /** The file it came in. */
  file: string;
  rows: string[][];
}

export function FirstRows({ rows }: { rows: readonly string[][] }) {
  return (
    <div className="overflow-x-auto" tabIndex={0} role="group" aria-label="The first rows, to scroll">
      <table className="plain-table table-auto font-narrow whitespace-nowrap" aria-label="The first rows">
        <tbody>
          {rows.slice(0, SHOWN_ROWS).map((row, at) => (
            <tr key={at}>
              <th scope="row" className="text-soft">
                {at + 1}
              </th>
              {row.slice(0, 10).map((cell, column) => (
                <td key={column}>{cell}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Columns whose heads say something that is not read. */
export function Unread({ heads }: { heads: readonly string[] }) {
  return heads.length === 0 ? null : <p className="text-soft">Not read: {heads.join(', ')}.</p>;
}

/** Which column of a sheet says what. */
export function Columns<K extends string>({
  heads,
  words,
  columns,
  onChange,
}: {
  heads: readonly string[];
  words: Record<K, string>;
  columns: Record<K, number | null>;
  onChange: (columns: Record<K, number | null>) => void;
}) {
  const choices: readonly (readonly [string, string])[] = [
    ['', 'none'],
    ...heads.map((head, at) => [String(at), head || `column ${at + 1}`] as const),
  ];
  return (Object.keys(words) as K[]).map((column) => (
    <Select
      key={column}
      label={words[column]}
      value={columns[column] === null ? '' : String(columns[column])}
      options={choices}
      onChange={(at) => onChange({ ...columns, [column]: at === '' ? null : Number(at) })}
    />
  ));
}

/** A row or bar that would be taken in. */
export interface Taken {
  key: string;
  name: string;
  words: string;
  /** How it was found when it was looked at. */
  looked: { words: string; isFault: boolean } | null;
  notes: readonly string[];
  /** All of it, shown when asked for. */
  detail?: ReactNode;
}

/** What would be taken in, each of which may be left out, and rows that cannot be read. */
export function Outcome({
  what,
  all,
  faults,
  left,
  isMatching,
  onLeave,
}: {
  what: string;
  all: readonly Taken[];
  faults: readonly SheetFault[];
  left: ReadonlySet<string>;
  /** Names are still being looked up. */
  isMatching: boolean;
  onLeave: (key: string) => void;
}) {
  if (isMatching) return <p role="status">Looking up the names…</p>;
  return (
    <section aria-label="What comes of it">
      <h3 className="font-medium">
        {many(all.length, what)}
        {faults.length > 0 && `, ${many(faults.length, 'row')} cannot be read`}
      </h3>
      <ul className="text-madder">
        {faults.slice(0, MOST_FAULTS).map(({ row, message }, at) => (
          <li key={at}>
            Row {row}: {message}
          </li>
        ))}
      </ul>
      <ul>
        {all.map(({ key, name, words, looked, notes, detail }) => (
          <li key={key}>
            <label className="flex flex-wrap items-baseline gap-x-3">
              <input type="checkbox" checked={!left.has(key)} onChange={() => onLeave(key)} />
              <strong className="font-medium">{name}</strong>
              <span className="text-soft">{words}</span>
              {looked && <span className={looked.isFault ? 'text-madder' : ''}>{looked.words}</span>}
              <span className="text-soft">{notes.join(' ')}</span>
            </label>
            {detail}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is left out, by its key. */
export function useLeft<K extends string | number>() {
  const [left, setLeft] = useState<ReadonlySet<K>>(new Set());
  const leave = (key: K) => {
    const next = new Set(left);
    if (!next.delete(key)) next.add(key);
    setLeft(next);
  };
  return { left, leave };
}

/** Sends what is to be looked at or taken; `onTaken` follows once it is taken. */
export function useSending<Result extends { taken: number }>(url: string, onTaken: () => void) {
  const [faults, setFaults] = useState<Fault[]>([]);
  const [result, setResult] = useState<Result | null>(null);
  const [busy, setBusy] = useState(false);
  const go = async (preview: boolean, what: object) => {
    setBusy(true);
    const answer = await send<Result>('POST', url, { preview, ...what });
    setBusy(false);
    setFaults(answer.ok ? [] : answer.faults);
    if (!answer.ok) return;
    setResult(answer.body);
    if (answer.body.taken > 0) onTaken();
  };
  return { faults, result, busy, go };
}

/** Looking at it first, and taking it in: all or none. */
export function TakeIn({
  look,
  what,
  count,
  busy,
  isHeld,
  faults,
  and = '',
  onGo,
  children,
}: {
  look: string;
  what: string;
  count: number;
  busy: boolean;
  /** Something cannot be read. */
  isHeld: boolean;
  faults: Fault[];
  /** What comes in with them, as the button says it. */
  and?: string;
  onGo: (preview: boolean) => void;
  children?: ReactNode;
}) {
  return (
    <>
      <Faults faults={faults} />
      <p className="flex flex-wrap gap-3">
        <button type="button" className="action" disabled={busy || count === 0} onClick={() => onGo(true)}>
          {look}
        </button>
        <button
          type="button"
          className="action action-strong"
          disabled={busy || count === 0 || isHeld}
          onClick={() => onGo(false)}
        >
          Take in {many(count, what)}
          {and}
        </button>
      </p>
      <p className="text-soft">
        All of them or none; a backup is made first. Rows that cannot be read have to be put right in the
        file, or laid out otherwise. {children}
      </p>
    </>
  );
}
