import { useEffect, useState } from 'react';
import { DECISIONS } from '../../core/batch/types';
import type { CureData } from '../../core/records/rack';
import { address, send } from '../../ui/api';
import { guarded } from '../../ui/Guarded';
import { stateWords } from '../../ui/batch-words';
import { SetAsides } from '../../ui/SetAsides';
import { useWriting, type Writing } from '../../ui/writing';
import { Curve } from './Curve';
import { CutPanel } from './CutPanel';
import { TextField } from '../../ui/TextField';
import { HeatOfBatch } from './HeatOfBatch';
import { NetPanel, SortPanel } from './NetPanel';
import { NotesPanel } from './NotesPanel';
import { NextBar } from './NextBar';
import { OutPanel } from './OutPanel';
import { PartsPanel } from './PartsPanel';
import { RatioPanel } from './RatioPanel';
import { ChecksPanel, ReleasePanel } from './ReleasePanel';
import { WeighBars } from './WeighBars';
import { URGENCY_WORDS } from './words';
import { complaintsSaid } from '../../core/records/complaints';
import { TURNED } from '../../core/curing/rack';

const DECISION_WORDS = { release: 'Free it', rework: 'Rework it', discard: 'Discard it' } as const;

/** A quarantine waits for a written decision. */
function Decide({ writing: { batch, write } }: { writing: Writing }) {
  const [reason, setReason] = useState('');
  const open = batch.quarantines.filter(({ decision }) => decision === null);
  if (!batch.isQuarantined) return null;
  return (
    <section id="decide" aria-label="Quarantine" className="border-l-4 border-madder bg-wash px-3 py-1.5">
      <h2 className="text-lg">In quarantine</h2>
      {open.map(({ reason: why, at }) => (
        <p key={at}>{why}</p>
      ))}
      <TextField label="What is decided, and why" value={reason} onChange={setReason} />
      <div className="mt-1 flex flex-wrap gap-2">
        {DECISIONS.map((decision) => (
          <button
            key={decision}
            type="button"
            className="action"
            disabled={reason.trim() === ''}
            onClick={() => {
              write('decided', { decision, reason: reason.trim() });
              setReason('');
            }}
          >
            {DECISION_WORDS[decision]}
          </button>
        ))}
      </div>
    </section>
  );
}

/** Holds it back by hand. */
function HoldBack({ writing: { batch, write } }: { writing: Writing }) {
  const [reason, setReason] = useState('');
  if (batch.isQuarantined || batch.state === 'discarded') return null;
  return (
    <details>
      <summary className="cursor-pointer text-ultra">Hold this batch back</summary>
      <TextField label="Why it goes into quarantine" value={reason} onChange={setReason} />
      <button
        type="button"
        className="action mt-1"
        disabled={reason.trim() === ''}
        onClick={() => {
          write('quarantined', { reason: reason.trim() });
          setReason('');
        }}
      >
        Into quarantine
      </button>
    </details>
  );
}

/** What is reckoned of the batch, asked for anew whenever something new is on file. */
function useCure(first: CureData, onFile: number): CureData {
  const [data, setData] = useState(first);
  const { id } = first.detail;
  useEffect(() => {
    if (onFile === first.detail.seq) return;
    let isStale = false;
    void send<CureData>('GET', address('batches', id, 'cure')).then((answer) => {
      if (!isStale && answer.ok) setData(answer.body);
    });
    return () => {
      isStale = true;
    };
  }, [id, onFile, first.detail.seq]);
  return data;
}

function Weigh({ data, writing }: { data: CureData; writing: Writing }) {
  const { batch, write } = writing;
  if (!batch.cut) return null;
  const turn = data.tasks.find(({ kind }) => kind === 'turn');
  return (
    <section id="weigh" aria-label="Weigh for the cure" className="sheet grid gap-2">
      <h2 className="text-lg">Weigh for the cure</h2>
      <WeighBars batch={batch} readabilityG={data.readabilityG} write={write} />
      {!data.cure.settled && data.cure.curve.length > 0 && (
        <NextBar id={data.detail.id} pouredAt={batch.poured?.at ?? batch.startedAt} />
      )}
      <p className="flex flex-wrap items-center gap-3">
        <a className="text-ultra underline" href={`/rack/${data.detail.id}/weigh`}>
          Large, for the bench
        </a>
        {turn && (
          <button
            type="button"
            className="action"
            onClick={() => write('checked', { check: TURNED, outcome: 'good' })}
          >
            The bars are turned
          </button>
        )}
      </p>
    </section>
  );
}

function Head({ data, writing }: { data: CureData; writing: Writing }) {
  const { batch } = writing;
  const { detail, productName, ageDays, tasks, complaints } = data;
  const due = tasks.filter(({ urgency }) => urgency !== 'later');
  return (
    <header>
      <h1 className="text-2xl">
        {productName}, {detail.code}
      </h1>
      <p>
        {stateWords(batch)}. Poured {Math.floor(ageDays) === 1 ? '1 day' : `${Math.floor(ageDays)} days`} ago
        {batch.cut &&
          `; ${batch.bars.good} bars, ${batch.bars.released} released, ${batch.bars.gone} gone, ${batch.bars.left} here`}
        .{' '}
        <a className="text-ultra underline" href={`/pour/${detail.id}/record`}>
          Its record
        </a>{' '}
        <a
          className="text-ultra underline"
          href={`/pour?product=${encodeURIComponent(detail.batch.product)}`}
        >
          Pour it again
        </a>{' '}
        <a className="text-ultra underline" href={`/pour/trace?code=${encodeURIComponent(detail.code)}`}>
          Trace it
        </a>{' '}
        <a className="text-ultra underline" href={`/rack/compare?a=${encodeURIComponent(detail.id)}`}>
          Beside another batch
        </a>{' '}
        <a
          className="text-ultra underline"
          href={`/watch/complaints?batch=${encodeURIComponent(detail.id)}&code=${encodeURIComponent(detail.code)}${complaints.all === 0 ? '&new=1' : ''}`}
        >
          {complaintsSaid(complaints)}
        </a>
      </p>
      {due.map((task) => (
        <p key={`${task.kind} ${task.portion}`}>
          <strong>{URGENCY_WORDS[task.urgency]}:</strong> {task.words}
        </p>
      ))}
      <SetAsides writing={writing} />
    </header>
  );
}

/** One batch on the rack: its curve, its weight, what is checked, released and gone. */
function CureDeskIsland({ first }: { first: CureData }) {
  const writing = useWriting(first.detail);
  const data = useCure(first, writing.queue.known.length);
  return (
    <div className="grid gap-5 px-6 py-3 lg:grid-cols-[minmax(0,1fr)_27rem]">
      <div className="grid content-start gap-3">
        <Head data={data} writing={writing} />
        <Decide writing={writing} />
        <CutPanel writing={writing} window={data.window} />
        <HeatOfBatch id={data.detail.id} writing={writing} moulds={data.moulds} />
        <Curve data={data} writing={writing} />
        <RatioPanel key={data.detail.seq} data={data} />
        <NotesPanel data={data} writing={writing} />
      </div>
      <div className="grid content-start gap-3">
        <Weigh data={data} writing={writing} />
        <NetPanel data={data} />
        <SortPanel writing={writing} />
        <ChecksPanel data={data} writing={writing} />
        <ReleasePanel key={`release ${data.detail.seq}`} data={data} writing={writing} />
        <OutPanel writing={writing} markets={data.markets} />
        <PartsPanel data={data} writing={writing} />
        <HoldBack writing={writing} />
      </div>
    </div>
  );
}

export const CureDesk = guarded('The batch on the rack', CureDeskIsland);
