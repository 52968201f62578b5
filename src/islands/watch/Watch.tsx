import { useState, type ReactNode } from 'react';
import { byGravity } from '../../core/hands/hand';
import { handOfTask } from '../../core/hands/sources';
import { monthsAfter } from '../../core/quantities/day';
import type { AheadFold, AheadRow, ChangeEntry, Task, WatchData } from '../../core/records/watch';
import { address, send, type Fault } from '../../ui/api';
import { lookAtChange } from '../../ui/look-at-change';
import { Faults } from '../../ui/Faults';
import { useKeeping } from '../../ui/keeping';
import { guarded } from '../../ui/Guarded';
import { dayAt, dayInWords } from '../../ui/words';
import { AskChange } from './AskChange';

const STATE_WORDS: Record<ChangeEntry['state'], string> = {
  running: 'being looked at',
  done: 'waits for a decision',
  cancelled: 'stopped',
  failed: 'ended before it was done',
};

/** A label that has to be issued anew is, in one step; what stands in the way is told. */
function Reissue({ task, onDone }: { task: Task; onDone: (task: Task) => void }) {
  const { busy, faults, keep } = useKeeping();
  const issue = async () => {
    const made = await keep(() => send<{ task: Task }>('POST', address('tasks', task.id, 'reissue')));
    if (made) onDone(made.task);
  };
  return (
    <span className="flex flex-wrap items-baseline gap-2">
      <button type="button" className="action py-0" disabled={busy} onClick={() => void issue()}>
        Issue the label anew
      </button>
      <Faults faults={faults} />
    </span>
  );
}

function TaskRow({ task, onDone }: { task: Task; onDone: (task: Task) => void }) {
  const [note, setNote] = useState('');
  const { busy, faults, keep } = useKeeping();
  const { where } = handOfTask(task);
  const end = async () => {
    const done = await keep(() =>
      send<Task>('POST', address('tasks', task.id, 'done'), { note: note.trim() }),
    );
    if (done) onDone(done);
  };
  return (
    <li className="grid gap-1 border-b border-hair py-1">
      <span>
        {where.startsWith('/watch') ? (
          task.words
        ) : (
          <a className="text-ultra underline" href={where}>
            {task.words}
          </a>
        )}
        {task.dueOn && <span className="text-soft"> by {dayInWords(task.dueOn)}</span>}
      </span>
      {task.doneAt === null && (task.kind === 'reissue' || task.kind === 'relabel') && (
        <Reissue task={task} onDone={onDone} />
      )}
      {task.doneAt === null ? (
        <span className="flex flex-wrap gap-2">
          <input
            className="field min-w-0 flex-1"
            aria-label={`What was done: ${task.words}`}
            placeholder="what was done"
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
          <button
            type="button"
            className="action py-0"
            disabled={busy || note.trim() === ''}
            onClick={() => void end()}
          >
            Done
          </button>
          <Faults faults={faults} />
        </span>
      ) : (
        <span className="text-soft">
          Done {dayAt(task.doneAt)}: {task.doneNote}
        </span>
      )}
    </li>
  );
}

interface TasksProps {
  tasks: readonly Task[];
  counts: WatchData['taskCounts'];
  onDone: (task: Task) => void;
  onMore: (state: 'open' | 'done') => void;
}

function More({ more, what, onMore }: { more: number; what: string; onMore: () => void }) {
  if (more <= 0) return null;
  return (
    <button type="button" className="text-ultra underline" onClick={onMore}>
      {more} more {what}
    </button>
  );
}

function Tasks({ tasks, counts, onDone, onMore }: TasksProps) {
  const open = tasks
    .filter(({ doneAt }) => doneAt === null)
    .sort((a, b) => byGravity(handOfTask(a), handOfTask(b)));
  const done = tasks.filter(({ doneAt }) => doneAt !== null);
  return (
    <section id="to-do" aria-label="To do" className="sheet">
      <h2 className="text-lg">
        To do <span className="font-text text-base font-normal text-soft">{counts.open}</span>
      </h2>
      {open.length === 0 && (
        <p className="text-soft">Nothing waits. What a change asks for stands here once it is accepted.</p>
      )}
      <ul>
        {open.map((task) => (
          <TaskRow key={task.id} task={task} onDone={onDone} />
        ))}
      </ul>
      <More more={counts.open - open.length} what="wait" onMore={() => onMore('open')} />
      {done.length > 0 && (
        <details>
          <summary className="cursor-pointer text-ultra">{counts.done} done</summary>
          <ul>
            {done.map((task) => (
              <TaskRow key={task.id} task={task} onDone={onDone} />
            ))}
          </ul>
          <More more={counts.done - done.length} what="were done before" onMore={() => onMore('done')} />
        </details>
      )}
    </section>
  );
}

function decided({ state, decision, touched, worse }: ChangeEntry): string {
  const rows = touched === null ? '' : `; ${touched} rows, ${worse} worse`;
  if (!decision) return `${STATE_WORDS[state]}${rows}`;
  return `${decision.decision} ${dayAt(decision.at)}${decision.note ? `: ${decision.note}` : ''}${rows}`;
}

function Journal({ changes }: { changes: readonly ChangeEntry[] }) {
  return (
    <section aria-label="Journal" className="sheet">
      <h2 className="text-lg">Journal</h2>
      {changes.length === 0 && (
        <p className="text-soft">What was looked at, and what was decided, is kept here.</p>
      )}
      <ul>
        {changes.map((one) => (
          <li key={one.id} className="border-b border-hair py-1">
            <a className="text-ultra underline" href={`/watch/${one.id}`}>
              {one.words}
            </a>
            <span className="block text-soft">
              {dayAt(one.at)}, {decided(one)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

const FEW = 4;

/** One row of what falls due; a list or a limit can be looked at as of its day. */
function Due({ row, today, onTask }: { row: AheadRow; today: string; onTask: (task: Task) => void }) {
  const [faults, setFaults] = useState<Fault[]>([]);
  const look = async () => setFaults(await lookAtChange({ kind: 'day', onDate: row.on }));
  const make = async () => {
    const answer = await send<Task>('POST', address('tasks'), { words: row.words, dueOn: row.on });
    if (answer.ok) onTask(answer.body);
    else setFaults(answer.faults);
  };
  const isRule = row.kind === 'list' || row.kind === 'limit';
  return (
    <li className="grid gap-x-4 border-b border-hair py-1 sm:grid-cols-[8.5rem_minmax(0,1fr)_auto]">
      <span
        className={row.urgency === 'grave' || row.on <= today ? 'font-medium text-madder' : 'tabular-nums'}
      >
        {dayInWords(row.on)}
      </span>
      <span>
        {row.href ? (
          <a className="text-ultra underline" href={row.href}>
            {row.words}
          </a>
        ) : (
          row.words
        )}
        <span className="text-soft">
          {row.touches.length > 0 &&
            `; touches ${row.touches.slice(0, FEW).join(', ')}${row.touches.length > FEW ? ` and ${row.touches.length - FEW} more` : ''}`}
        </span>
      </span>
      <span className="flex gap-2">
        {isRule && (
          <button type="button" className="text-ultra underline" onClick={() => void look()}>
            What it touches
          </button>
        )}
        <button type="button" className="text-ultra underline" onClick={() => void make()}>
          Make it a task
        </button>
      </span>
      <div className="sm:col-span-3">
        <Faults faults={faults} />
      </div>
    </li>
  );
}

/** Two years on one line, a stroke for each thing that falls due: taller where more falls on one month. */
function Line({ marks, today, until }: { today: string } & Pick<WatchData['ahead'], 'marks' | 'until'>) {
  const [from, to] = [Date.parse(today), Date.parse(until)];
  const at = (day: string) => Math.max(0, Math.min(100, (100 * (Date.parse(day) - from)) / (to - from)));
  const years = [0, 6, 12, 18, 24].map((months) => monthsAfter(today, months));
  return (
    <svg
      viewBox="0 0 1000 64"
      className="w-full max-sm:hidden"
      role="img"
      aria-label={`${marks.length} things fall due by ${dayInWords(until)}`}
    >
      <line x1="0" x2="1000" y1="44" y2="44" stroke="var(--color-ink)" strokeWidth="1.5" />
      {years.map((day) => (
        <g key={day}>
          <line x1={at(day) * 10} x2={at(day) * 10} y1="40" y2="48" stroke="var(--color-ink)" />
          <text
            x={at(day) * 10}
            y="61"
            fontSize="12"
            fill="var(--color-soft)"
            textAnchor={at(day) < 5 ? 'start' : at(day) > 95 ? 'end' : 'middle'}
          >
            {day.slice(0, 7)}
          </text>
        </g>
      ))}
      {marks.map(({ on, isRule }, place) => (
        <line
          key={place}
          x1={at(on) * 10 + (on <= today ? (place % 12) * 4 : 0)}
          x2={at(on) * 10 + (on <= today ? (place % 12) * 4 : 0)}
          y1={isRule ? 8 : 24}
          y2="44"
          stroke={on <= today ? 'var(--color-madder)' : isRule ? 'var(--color-ultra)' : 'var(--color-ink)'}
          strokeWidth="3"
        />
      ))}
    </svg>
  );
}

/** Small things of one kind in one line; opened, each of them, asked for then. */
function Fold({ fold, onOpen, children }: { fold: AheadFold; onOpen: () => void; children: ReactNode[] }) {
  const isHere = children.length >= fold.count;
  return (
    <details onToggle={({ currentTarget }) => currentTarget.open && !isHere && onOpen()}>
      <summary className="cursor-pointer py-0.5 text-soft">{fold.words}</summary>
      <ul>{children}</ul>
      {!isHere && <p className="text-soft">Asking…</p>}
    </details>
  );
}

function Ahead({ data, onTask }: { data: WatchData; onTask: (task: Task) => void }) {
  const { today } = data;
  const { until, count, marks, folds } = data.ahead;
  const [rows, setRows] = useState(data.ahead.rows);
  const alone = rows.filter(({ urgency }) => urgency !== 'small').sort(byGravity);
  const [faults, setFaults] = useState<Fault[]>([]);
  const all = async () => {
    const answer = await send<{ rows: AheadRow[] }>('GET', address('ahead'));
    setFaults(answer.ok ? [] : answer.faults);
    if (answer.ok) setRows(answer.body.rows);
  };
  return (
    <section aria-label="Ahead" className="pt-2">
      <h2 className="text-lg">
        Ahead{' '}
        <span className="font-text text-base font-normal text-soft">
          if nothing is done, to {dayInWords(until)}
        </span>
      </h2>
      <Line marks={marks} today={today} until={until} />
      <ul>
        {alone.map((row) => (
          <Due key={row.id} row={row} today={today} onTask={onTask} />
        ))}
      </ul>
      <More more={count - alone.length} what="fall due later" onMore={() => void all()} />
      {folds.map((fold) => (
        <Fold key={fold.kind} fold={fold} onOpen={() => void all()}>
          {rows
            .filter(({ urgency, kind }) => urgency === 'small' && kind === fold.kind)
            .map((row) => (
              <Due key={row.id} row={row} today={today} onTask={onTask} />
            ))}
        </Fold>
      ))}
      <Faults faults={faults} />
      {count === 0 && folds.length === 0 && (
        <p className="text-soft">Nothing on file falls due in two years.</p>
      )}
    </section>
  );
}

function WatchIsland({ first }: { first: WatchData }) {
  const [tasks, setTasks] = useState(first.tasks);
  const [counts, setCounts] = useState(first.taskCounts);
  const put = (task: Task) => {
    const before = tasks.find(({ id }) => id === task.id);
    const [isNew, isEnded] = [before === undefined, before?.doneAt === null && task.doneAt !== null];
    setCounts(({ open, done }) => ({
      open: open + Number(isNew) - Number(isEnded),
      done: done + Number(isEnded),
    }));
    setTasks((old) => [...old.filter(({ id }) => id !== task.id), task]);
  };
  const more = async (state: 'open' | 'done') => {
    const from = tasks.filter(({ doneAt }) => (doneAt === null) === (state === 'open')).length;
    const answer = await send<{ tasks: Task[]; count: number }>(
      'GET',
      `${address('tasks')}?state=${state}&from=${from}`,
    );
    if (!answer.ok) return;
    const here = new Set(tasks.map(({ id }) => id));
    setTasks((old) => [...old, ...answer.body.tasks.filter(({ id }) => !here.has(id))]);
    setCounts((old) => ({ ...old, [state]: answer.body.count }));
  };
  return (
    <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_25rem]">
      <div className="grid content-start gap-4">
        <Tasks tasks={tasks} counts={counts} onDone={put} onMore={(state) => void more(state)} />
        <Ahead data={first} onTask={put} />
      </div>
      <div className="grid content-start gap-4">
        <AskChange data={first} />
        <Journal changes={first.changes} />
      </div>
    </div>
  );
}

/** What changed in the world and what it touches: what to do, what falls due, what would change. */
export const Watch = guarded('The watch', WatchIsland);
