import { useEffect, useMemo, useState } from 'react';
import { EFFECT_ON, type Effect } from '../../core/change/types';
import type { ChangeView } from '../../core/records/watch';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { guarded } from '../../ui/Guarded';
import { RecordTable, type Column } from '../../ui/RecordTable';
import { download } from '../../ui/download';
import { Select } from '../../ui/Select';
import { TextField } from '../../ui/TextField';
import { VerdictMark } from '../../ui/VerdictMark';
import { dayAt } from '../../ui/words';
import { effectsCsv, handsWords, hrefOf, labelWords, standWords, WHAT_WORDS, worstWords } from './words';

function Standing({ stand }: { stand: Effect['before'] }) {
  return (
    <span className="inline-flex items-center gap-1.5 align-middle">
      {stand && <VerdictMark verdict={stand.verdict} size={15} />}
      <span>{standWords(stand)}</span>
    </span>
  );
}

const COLUMNS: readonly Column<Effect>[] = [
  {
    id: 'name',
    header: 'What',
    sort: ({ name }) => name,
    cell: (row) => (
      <a className="text-ultra underline" href={hrefOf(row)}>
        {row.name}
      </a>
    ),
  },
  { id: 'kind', header: '', cell: ({ what }) => <span className="text-soft">{WHAT_WORDS[what]}</span> },
  { id: 'market', header: 'Market', sort: ({ market }) => market, cell: ({ market }) => market },
  { id: 'before', header: 'Now', cell: ({ before }) => <Standing stand={before} /> },
  {
    id: 'after',
    header: 'Then',
    sort: ({ after }) => after?.headroomPct ?? -1e6,
    cell: ({ after, worse }) => (
      <span className={worse ? 'font-medium' : ''}>
        <Standing stand={after} />
      </span>
    ),
  },
  { id: 'label', header: 'On the label', cell: ({ before, after }) => labelWords(before, after) },
  {
    id: 'hands',
    header: 'Bars',
    sort: ({ hands }) => hands.sold + hands.inStock,
    cell: ({ hands }) => handsWords(hands),
  },
];

/** The look as it goes on; asked for again until it has ended. */
function useLook(first: ChangeView) {
  const [view, setView] = useState(first);
  useEffect(() => {
    if (view.state !== 'running') return;
    const source = new EventSource(address('changes', first.id, 'progress'));
    source.addEventListener('message', ({ data }: MessageEvent<string>) => {
      const { state, done, of } = JSON.parse(data) as Pick<ChangeView, 'state' | 'done' | 'of'>;
      if (state === 'running') return setView((old) => ({ ...old, done, of }));
      source.close();
      void send<ChangeView>('GET', address('changes', first.id)).then((answer) => {
        if (answer.ok) setView(answer.body);
      });
    });
    return () => source.close();
  }, [view.state, first.id]);
  return { view, setView };
}

const ALL: readonly [string, string] = ['', 'all'];

function Filters({
  effects,
  onShow,
}: {
  effects: readonly Effect[];
  onShow: (test: (effect: Effect) => boolean) => void;
}) {
  const [what, setWhat] = useState('');
  const [market, setMarket] = useState('');
  const [onlyWorse, setOnlyWorse] = useState(false);
  const markets = [...new Set(effects.map((one) => one.market))].sort();
  const show = (next: { what?: string; market?: string; onlyWorse?: boolean }) => {
    const wanted = { what, market, onlyWorse, ...next };
    onShow(
      (one) =>
        (wanted.what === '' || one.what === wanted.what) &&
        (wanted.market === '' || one.market === wanted.market) &&
        (!wanted.onlyWorse || one.worse),
    );
  };
  return (
    <div className="flex flex-wrap items-end gap-4 print:hidden">
      <Select
        label="What"
        value={what}
        options={[ALL, ...EFFECT_ON.map((id) => [id, WHAT_WORDS[id]] as const)]}
        onChange={(to) => {
          setWhat(to);
          show({ what: to });
        }}
      />
      <Select
        label="Market"
        value={market}
        options={[ALL, ...markets.map((id) => [id, id] as const)]}
        onChange={(to) => {
          setMarket(to);
          show({ market: to });
        }}
      />
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={onlyWorse}
          onChange={(event) => {
            setOnlyWorse(event.target.checked);
            show({ onlyWorse: event.target.checked });
          }}
        />
        Only what gets worse
      </label>
    </div>
  );
}

function Decide({ view, onDecided }: { view: ChangeView; onDecided: () => void }) {
  const [note, setNote] = useState('');
  const [faults, setFaults] = useState<Fault[]>([]);
  if (view.state !== 'done' || view.decision) return null;
  const decide = async (way: 'accept' | 'decline') => {
    const body = way === 'accept' ? { note } : { reason: note };
    const answer = await send<{ errors?: Fault[] }>('POST', address('changes', view.id, way), body);
    if (!answer.ok) return setFaults(answer.faults);
    if (answer.body.errors) return setFaults(answer.body.errors);
    onDecided();
  };
  return (
    <section aria-label="Decide" className="sheet grid gap-2 print:hidden">
      <TextField label="Note, or why it is declined" value={note} onChange={setNote} />
      <div className="flex flex-wrap gap-2">
        <button type="button" className="action action-strong" onClick={() => void decide('accept')}>
          Accept it
        </button>
        <button
          type="button"
          className="action"
          disabled={note.trim() === ''}
          onClick={() => void decide('decline')}
        >
          Decline it
        </button>
      </div>
      <Faults faults={faults} />
    </section>
  );
}

function Looking({ view, onStop }: { view: ChangeView; onStop: () => void }) {
  if (view.state !== 'running') return null;
  return (
    <p className="flex items-center gap-3" role="status">
      <progress aria-label="Looking" value={view.done} max={Math.max(1, view.of)} />
      {view.of === 0 ? 'Gathering what it may touch…' : `${view.done} of ${view.of} looked at`}
      <button type="button" className="action py-0" onClick={onStop}>
        Stop
      </button>
    </p>
  );
}

function Decided({ view: { decision } }: { view: ChangeView }) {
  if (!decision) return null;
  return (
    <p>
      <strong>{decision.decision === 'accepted' ? 'Accepted' : 'Declined'}</strong> on {dayAt(decision.at)}
      {decision.note && `: ${decision.note}`}
    </p>
  );
}

function ChangeDeskIsland({ first }: { first: ChangeView }) {
  const { view, setView } = useLook(first);
  const [test, setTest] = useState<(effect: Effect) => boolean>(() => () => true);
  const effects = useMemo(() => view.effects ?? [], [view.effects]);
  const shown = useMemo(() => effects.filter(test), [effects, test]);
  const refresh = async () => {
    const answer = await send<ChangeView>('GET', address('changes', first.id));
    if (answer.ok) setView(answer.body);
  };
  const stop = async () => {
    const answer = await send<ChangeView>('DELETE', address('changes', first.id));
    if (answer.ok) setView(answer.body);
  };
  return (
    <div className="grid gap-3 px-6 py-3">
      <header>
        <h1 className="text-2xl">{view.words}</h1>
        <Looking view={view} onStop={() => void stop()} />
        {view.state === 'cancelled' && <p>The look was stopped; nothing is changed.</p>}
        {view.message && <p role="alert">{view.message}</p>}
        {view.state === 'done' && (
          <p>
            {worstWords(effects)} {effects.length} rows are touched, {view.unchanged} stay as they are.
            {!view.decision && ' Nothing is changed until you accept it.'}
          </p>
        )}
        <Decided view={view} />
      </header>
      <Decide view={view} onDecided={() => void refresh()} />
      {effects.length > 0 && (
        <>
          <div className="flex flex-wrap items-end justify-between gap-3">
            <Filters effects={effects} onShow={(next) => setTest(() => next)} />
            <span className="flex gap-2 print:hidden">
              <button
                type="button"
                className="action"
                onClick={() =>
                  download(new Blob([effectsCsv(shown)], { type: 'text/csv' }), 'what-it-touches.csv')
                }
              >
                As CSV
              </button>
              <button type="button" className="action" onClick={() => print()}>
                Print
              </button>
            </span>
          </div>
          <RecordTable
            label="What it touches"
            rows={shown}
            columns={COLUMNS}
            keyOf={({ what, id, market }) => `${what} ${id} ${market}`}
            window="max-h-[70vh] overflow-auto print:max-h-none"
          />
        </>
      )}
    </div>
  );
}

/** What a change touches, before and after side by side, and what is decided of it. */
export const ChangeDesk = guarded('What the change touches', ChangeDeskIsland);
