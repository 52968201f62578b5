import { useMemo, useState } from 'react';
import { MARKETS, type Market } from '../../core/formula/types';
import type { ListRow, RulebookData, RuleRow } from '../../core/records/rulebook';
import { address, send } from '../../ui/api';
import { DayField } from '../../ui/DayField';
import { guarded } from '../../ui/Guarded';
import { useQueryParam } from '../../ui/query-param';
import { RecordTable, type Column } from '../../ui/RecordTable';
import { Select } from '../../ui/Select';
import { TextField } from '../../ui/TextField';
import { BASIS_WORDS, dayInWords, FORCE_WORDS, MARKET_WORDS } from '../../ui/words';

type Asked = Market | '';

const inForce = ({ from, to }: { from?: string | null; to?: string | null }, day: string) =>
  (from == null || from <= day) && (to == null || day <= to);

const isOf = (market: Asked) => (limit: RuleRow) =>
  market === '' || limit.markets == null || limit.markets.includes(market);

const plain = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();

function found(limit: RuleRow, typed: string, note: string | undefined): boolean {
  const text = plain([limit.name, limit.subject.id, limit.source ?? '', note ?? ''].join(' '));
  return plain(typed)
    .split(/\s+/)
    .every((word) => text.includes(word));
}

const said = ({ maxPct, basis }: RuleRow) => `${maxPct} % ${BASIS_WORDS[basis]}`;
const where = ({ markets }: RuleRow) => (markets ? markets.join(', ') : 'everywhere');

/** A note at a rule, kept when the field is left. */
function Note({
  limit,
  text,
  onKeep,
}: {
  limit: RuleRow;
  text: string;
  onKeep: (id: string, text: string) => void;
}) {
  return (
    <input
      key={text}
      className="field w-full"
      aria-label={`Note at ${limit.name}, ${said(limit)}, ${where(limit)}`}
      defaultValue={text}
      placeholder="note"
      onBlur={(event) => event.target.value.trim() !== text && onKeep(limit.id, event.target.value)}
    />
  );
}

function useNotes(data: RulebookData) {
  const [kept, setKept] = useState({ notes: data.notes, revision: data.revision });
  const keep = async (id: string, text: string) => {
    const body = { revision: kept.revision, id, text };
    const answer = await send<typeof kept>('PUT', address('rulebook', 'notes'), body);
    if (answer.ok) setKept(answer.body);
  };
  return { notes: kept.notes, keep };
}

function Lists({ lists, market, day }: { lists: readonly ListRow[]; market: Asked; day: string }) {
  const shown = lists.filter((list) => market === '' || list.market === market);
  return (
    <section aria-label="Names on the label" className="pt-4">
      <h2 className="text-lg">Names on the label</h2>
      <ul>
        {shown.map((list) => {
          const { newFrom, allFrom, per, names, thresholdPct } = list;
          const isAsked = newFrom !== null && newFrom <= day;
          return (
            <li
              key={`${list.market} ${newFrom} ${allFrom} ${thresholdPct}`}
              className="border-b border-hair py-1"
            >
              <details>
                <summary className="cursor-pointer">
                  <strong className="font-medium">{MARKET_WORDS[list.market]}</strong>: {names.length} names
                  above {thresholdPct} %, for {per === 'unit' ? 'what is placed' : 'new bars'}{' '}
                  {newFrom ? `from ${dayInWords(newFrom)}` : 'with no day set'}
                  {allFrom ? `, for everything from ${dayInWords(allFrom)}` : ''}
                  <span className="text-soft">{isAsked ? '' : ', not yet on this day'}</span>
                </summary>
                <p>{names.join(', ')}</p>
              </details>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** What differs between two editions: a rule in one alone, or at another figure. */
function Compared({ data }: { data: RulebookData }) {
  const [other, setOther] = useState('');
  const [rows, setRows] = useState<RuleRow[] | null>(null);
  const choose = async (edition: string) => {
    setOther(edition);
    const answer = await send<RulebookData>(
      'GET',
      `${address('rulebook')}?edition=${encodeURIComponent(edition)}`,
    );
    setRows(answer.ok ? answer.body.limits.filter(({ isOwn }) => !isOwn) : null);
  };
  const own = data.limits.filter(({ isOwn }) => !isOwn);
  const text = (limit: RuleRow) => `${limit.name}, ${where(limit)}: ${said(limit)}`;
  const only = (a: readonly RuleRow[], b: readonly RuleRow[]) => {
    const known = new Set(b.map(text));
    return a.filter((one) => !known.has(text(one))).map(text);
  };
  const others = data.editions.filter((one) => one !== data.edition);
  if (others.length === 0) return null;
  return (
    <section aria-label="Beside another edition" className="pt-4">
      <h2 className="text-lg">Beside another edition</h2>
      <label>
        <span className="eyebrow block">The other</span>
        <select className="field" value={other} onChange={(event) => void choose(event.target.value)}>
          <option value="" disabled>
            choose one
          </option>
          {others.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      </label>
      {rows && (
        <div className="grid gap-4 pt-2 md:grid-cols-2">
          {(
            [
              [data.edition, only(own, rows)],
              [other, only(rows, own)],
            ] as const
          ).map(([edition, lines]) => (
            <div key={edition}>
              <h3>Only in {edition}</h3>
              {lines.length === 0 ? (
                <p className="text-soft">Nothing.</p>
              ) : (
                <ul>
                  {lines.map((line) => (
                    <li key={line}>{line}</li>
                  ))}
                </ul>
              )}
            </div>
          ))}
        </div>
      )}
    </section>
  );
}

function columnsOf(
  notes: RulebookData['notes'],
  keep: (id: string, text: string) => void,
  onDrop: (id: string) => void,
): Column<RuleRow>[] {
  return [
    {
      id: 'name',
      header: 'Of what',
      sort: ({ name }) => name,
      cell: ({ name }) => <span className="font-medium">{name}</span>,
    },
    { id: 'most', header: 'At most', sort: ({ maxPct }) => maxPct, cell: said },
    { id: 'where', header: 'Where', sort: where, cell: where },
    {
      id: 'force',
      header: 'By',
      sort: ({ force }) => force,
      cell: ({ force, isOwn }) => (isOwn ? 'your own' : FORCE_WORDS[force]),
    },
    {
      id: 'source',
      header: 'Source',
      cell: ({ source, from, to }) => (
        <span className="text-soft">
          {source}
          {from && ` From ${dayInWords(from)}.`}
          {to && ` To ${dayInWords(to)}.`}
        </span>
      ),
    },
    {
      id: 'note',
      header: 'Your note',
      cell: (limit) => <Note limit={limit} text={notes[limit.id] ?? ''} onKeep={keep} />,
    },
    {
      id: 'own',
      header: '',
      cell: ({ id, isOwn, name }) =>
        isOwn && (
          <button
            type="button"
            className="text-ultra underline"
            aria-label={`Take away your limit of ${name}`}
            onClick={() => onDrop(id)}
          >
            Take away
          </button>
        ),
    },
  ];
}

function RulebookIsland({ data }: { data: RulebookData }) {
  const [asked, setTyped] = useQueryParam('find');
  const typed = asked ?? '';
  const [market, setMarket] = useState<Asked>('');
  const [day, setDay] = useState(data.onDate);
  const [gone, setGone] = useState<ReadonlySet<string>>(new Set());
  const { notes, keep } = useNotes(data);
  const rows = useMemo(
    () =>
      data.limits.filter(
        (limit) =>
          !(limit.isOwn && gone.has(limit.id)) &&
          inForce(limit, day) &&
          isOf(market)(limit) &&
          found(limit, typed, notes[limit.id]),
      ),
    [data.limits, gone, day, market, typed, notes],
  );
  const drop = async (id: string) => {
    const answer = await send('DELETE', address('rulebook', 'own', id));
    if (answer.ok) setGone((old) => new Set([...old, id]));
  };
  const columns = columnsOf(
    notes,
    (id, text) => void keep(id, text),
    (id) => void drop(id),
  );
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2 pb-2">
        <TextField label="Find" value={typed} onChange={(text) => setTyped(text || null)} />
        <Select
          label="Market"
          value={market}
          options={[['', 'all'] as const, ...MARKETS.map((one) => [one, MARKET_WORDS[one]] as const)]}
          onChange={setMarket}
        />
        <DayField label="In force on" value={day} onChange={setDay} />
        <p className="ml-auto">
          <a
            className="text-ultra underline"
            href={`/api/v1/rulebook?as=file&edition=${encodeURIComponent(data.edition)}`}
          >
            This edition as a file
          </a>{' '}
          <a className="text-ultra underline" href="/watch">
            Take another in
          </a>
        </p>
      </div>
      <p role="status" className="text-soft">
        {rows.length} limits of {data.limits.length}.
      </p>
      <RecordTable
        label="Limits"
        rows={rows}
        columns={columns}
        keyOf={({ id, isOwn }) => `${isOwn ? 'own ' : ''}${id}`}
        window="max-h-[60vh] overflow-auto"
      />
      <Lists lists={data.lists} market={market} day={day} />
      <Compared data={data} />
    </>
  );
}

/** Limits and names in force by market and day, with their source; own limits and notes; two editions compared. */
export const Rulebook = guarded('The rulebook', RulebookIsland);
