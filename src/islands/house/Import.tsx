import { useEffect, useMemo, useState } from 'react';
import { readNumberOrNull } from '../../core/quantities/number';
import type { ImportResult } from '../../core/records/import';
import type { PercentOf, SheetUnit } from '../../core/sheets/amounts';
import {
  guessLayout,
  SHEET_KINDS,
  type Layout,
  type SheetColumns,
  type SheetKind,
} from '../../core/sheets/layout';
import type { Match } from '../../core/sheets/match';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { FindMaterial } from '../../ui/FindMaterial';
import { guarded } from '../../ui/Guarded';
import { Select } from '../../ui/Select';
import { TextField } from '../../ui/TextField';
import { VERDICT_WORDS } from '../../ui/words';
import { PaperFault } from '../papers/fault';
import { makeBars, openSheet, type Made, type Said } from './sheet';

const KIND_WORDS: Record<SheetKind, string> = {
  list: 'a row an ingredient, the bar beside it',
  blocks: 'a bar’s name, its ingredients below',
  rows: 'a row a bar, a column an ingredient',
  columns: 'a column a bar, a row an ingredient',
  single: 'one bar alone',
};
const COLUMN_WORDS: Record<keyof SheetColumns, string> = {
  bar: 'The bar',
  what: 'Ingredient',
  amount: 'Amount',
  unit: 'Unit',
  note: 'Note',
};
const UNIT_CHOICES: readonly (readonly [SheetUnit | '', string])[] = [
  ['', 'each cell says it'],
  ['g', 'grams'],
  ['oz', 'ounces'],
  ['kg', 'kilograms'],
  ['lb', 'pounds'],
  ['%', 'percent'],
];
const SHOWN_ROWS = 6;

const many = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`;

interface Sheet {
  name: string;
  rows: string[][];
}

function LayoutForm({
  sheet,
  layout,
  onChange,
}: {
  sheet: Sheet;
  layout: Layout;
  onChange: (layout: Layout) => void;
}) {
  const heads = sheet.rows[Math.max(0, layout.head)] ?? [];
  const isAcross = layout.kind === 'rows' || layout.kind === 'columns';
  const choices = [['', 'none'], ...heads.map((head, at) => [String(at), head || `column ${at + 1}`])] as [
    string,
    string,
  ][];
  return (
    <div className="flex flex-wrap items-end gap-4">
      <Select
        label="Laid out as"
        value={layout.kind}
        options={SHEET_KINDS.map((kind) => [kind, KIND_WORDS[kind]] as const)}
        onChange={(kind) => onChange({ ...layout, kind })}
      />
      {!isAcross &&
        (Object.keys(COLUMN_WORDS) as (keyof SheetColumns)[]).map((column) => (
          <Select
            key={column}
            label={COLUMN_WORDS[column]}
            value={layout.columns[column] === null ? '' : String(layout.columns[column])}
            options={choices}
            onChange={(at) =>
              onChange({ ...layout, columns: { ...layout.columns, [column]: at === '' ? null : Number(at) } })
            }
          />
        ))}
      <Select
        label="Bare numbers are in"
        value={layout.unit ?? ''}
        options={UNIT_CHOICES}
        onChange={(unit) => onChange({ ...layout, unit: unit === '' ? null : unit })}
      />
    </div>
  );
}

function FirstRows({ rows }: { rows: readonly string[][] }) {
  return (
    <div className="overflow-x-auto">
      <table className="plain-table font-narrow" aria-label="The first rows">
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

/** Names that are not sure, each with what it is taken for and another to choose. */
function Names({
  names,
  matches,
  said,
  onSaid,
}: {
  names: readonly string[];
  matches: ReadonlyMap<string, Match | null>;
  said: Said;
  onSaid: (said: Said) => void;
}) {
  const open = names.filter((name) => matches.has(name) && matches.get(name)?.isSure !== true);
  if (open.length === 0) return null;
  return (
    <section aria-label="Names to look at">
      <h3 className="font-medium">Look at these names</h3>
      <ul>
        {open.map((name) => {
          const taken = said.chosen[name]?.title ?? matches.get(name)?.title;
          return (
            <li key={name} className="flex flex-wrap items-center gap-x-3 border-b border-hair py-1">
              <span className="min-w-48 font-medium">{name}</span>
              <span className={taken ? '' : 'text-madder'}>
                {taken ? `taken for ${taken}` : 'not known here'}
              </span>
              <FindMaterial
                label="It is"
                onFound={({ material: { id, name: title, kind } }) =>
                  onSaid({ ...said, chosen: { ...said.chosen, [name]: { id, title, kind } } })
                }
              />
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function Outcome({
  made,
  result,
  left,
  onLeave,
}: {
  made: Made;
  result: ImportResult | null;
  left: ReadonlySet<string>;
  onLeave: (name: string) => void;
}) {
  return (
    <section aria-label="What comes of it">
      <h3 className="font-medium">
        {many(made.bars.length, 'bar')}
        {made.faults.length > 0 && `, ${many(made.faults.length, 'row')} cannot be read`}
      </h3>
      <ul className="text-madder">
        {made.faults.slice(0, 40).map(({ row, message }, at) => (
          <li key={at}>
            Row {row}: {message}
          </li>
        ))}
      </ul>
      <ul>
        {made.bars.map(({ name, formula, notes }) => {
          const looked = result?.bars.find((one) => one.name === name);
          return (
            <li key={name}>
              <label className="flex flex-wrap items-baseline gap-x-3">
                <input type="checkbox" checked={!left.has(name)} onChange={() => onLeave(name)} />
                <strong className="font-medium">{name}</strong>
                <span className="text-soft">{formula.lines.length} lines</span>
                {looked && (
                  <span className={looked.fault ? 'text-madder' : ''}>
                    {looked.fault ?? (looked.verdict ? VERDICT_WORDS[looked.verdict] : '')}
                  </span>
                )}
                <span className="text-soft">{notes.join(' ')}</span>
              </label>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const USUAL: Said = { percentOf: 'fats', batchG: 1000, superfatPct: 5, chosen: {} };

function Percents({ said, onSaid }: { said: Said; onSaid: (said: Said) => void }) {
  const [batch, setBatch] = useState(String(said.batchG));
  return (
    <div className="flex flex-wrap items-end gap-4">
      <Select<PercentOf>
        label="Percents are of, where they do not add up"
        value={said.percentOf}
        options={[
          ['fats', 'the fats'],
          ['whole', 'everything'],
        ]}
        onChange={(percentOf) => onSaid({ ...said, percentOf })}
      />
      <TextField
        label="Grams of a batch in percent"
        value={batch}
        isNumber
        onChange={(text) => {
          setBatch(text);
          const batchG = readNumberOrNull(text);
          if (batchG !== null && batchG > 0 && batchG <= 1e6) onSaid({ ...said, batchG });
        }}
      />
    </div>
  );
}

function useMatches(names: readonly string[]) {
  const [matches, setMatches] = useState<ReadonlyMap<string, Match | null>>(new Map());
  const missing = names.filter((name) => !matches.has(name));
  const key = missing.join('\n');
  useEffect(() => {
    if (key === '') return;
    const asked = key.split('\n');
    void send<{ matches: (Match | null)[] }>('POST', address('import', 'names'), { names: asked }).then(
      (answer) => {
        if (answer.ok)
          setMatches(
            (old) =>
              new Map([...old, ...answer.body.matches.map((match, at) => [asked[at]!, match] as const)]),
          );
      },
    );
  }, [key]);
  return matches;
}

function useSending() {
  const [faults, setFaults] = useState<Fault[]>([]);
  const [result, setResult] = useState<ImportResult | null>(null);
  const [busy, setBusy] = useState(false);
  const go = async (bars: Made['bars'], preview: boolean) => {
    setBusy(true);
    const body = { preview, bars: bars.map(({ name, note, formula }) => ({ name, note, formula })) };
    const answer = await send<ImportResult>('POST', address('import'), body);
    setBusy(false);
    setFaults(answer.ok ? [] : answer.faults);
    if (!answer.ok) return;
    setResult(answer.body);
    if (answer.body.taken > 0) location.assign('/');
  };
  return { faults, setFaults, result, busy, go };
}

const NO_ROWS: string[][] = [];

function Opened({ sheet }: { sheet: Sheet }) {
  const [layout, setLayout] = useState(() => guessLayout(sheet.rows));
  const [said, setSaid] = useState<Said>(USUAL);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const names = useMemo(
    () => makeBars(sheet.rows, layout, sheet.name, new Map(), USUAL).names,
    [sheet, layout],
  );
  const matches = useMatches(names);
  const made = useMemo(
    () => makeBars(sheet.rows, layout, sheet.name, matches, said),
    [sheet, layout, matches, said],
  );
  const { faults, result, busy, go } = useSending();
  const chosen = made.bars.filter(({ name }) => !left.has(name));
  const leave = (name: string) => {
    const next = new Set(left);
    if (!next.delete(name)) next.add(name);
    setLeft(next);
  };
  return (
    <div className="grid gap-4">
      <FirstRows rows={sheet.rows} />
      <LayoutForm sheet={sheet} layout={layout} onChange={setLayout} />
      <Percents said={said} onSaid={setSaid} />
      <Names names={names} matches={matches} said={said} onSaid={setSaid} />
      <Outcome made={made} result={result} left={left} onLeave={leave} />
      <Faults faults={faults} />
      <p className="flex flex-wrap gap-3">
        <button
          type="button"
          className="action"
          disabled={busy || chosen.length === 0}
          onClick={() => void go(chosen, true)}
        >
          Hold them against the limits first
        </button>
        <button
          type="button"
          className="action action-strong"
          disabled={busy || chosen.length === 0 || made.faults.length > 0}
          onClick={() => void go(chosen, false)}
        >
          Take in {many(chosen.length, 'bar')}
        </button>
      </p>
      <p className="text-soft">
        All of them or none; a backup is made first. Rows that cannot be read have to be put right in the
        file, or laid out otherwise.
      </p>
    </div>
  );
}

function ImportIsland() {
  const [sheet, setSheet] = useState<Sheet>({ name: '', rows: NO_ROWS });
  const [fault, setFault] = useState('');
  const open = async (file: File) => {
    try {
      setSheet({ name: file.name, rows: await openSheet(file) });
      setFault('');
    } catch (error) {
      setFault(
        error instanceof PaperFault ? error.message : 'This file cannot be opened. Save it anew as CSV.',
      );
    }
  };
  return (
    <section className="sheet grid gap-4">
      <label>
        <span className="eyebrow block">A CSV or XLSX file with your bars</span>
        <input
          type="file"
          accept=".csv,.tsv,.xlsx,text/csv"
          onChange={(event) => {
            const file = event.target.files?.[0];
            if (file) void open(file);
          }}
        />
      </label>
      <p role="alert" className="text-madder">
        {fault}
      </p>
      {sheet.rows.length > 0 && <Opened key={`${sheet.name} ${sheet.rows.length}`} sheet={sheet} />}
    </section>
  );
}

export const Import = guarded('The spreadsheet', ImportIsland);
