import { guarded } from '../../ui/Guarded';
import { FileText } from 'lucide-react';
import { useEffect, useMemo, useRef, useState, type DragEvent } from 'react';
import { linesFromText } from '../../core/paperwork/page';
import type { InboxEntry } from '../../core/records/papers';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { BarsUsing } from '../../ui/BarsUsing';
import { useKeeping } from '../../ui/keeping';
import { dayInWords } from '../../ui/words';
import { draftFrom, faultsOf, papersFrom, type Draft, type FieldKey } from './draft';
import { openBytes, PaperFault, type OpenPaper } from './open';
import { readLines } from './reading';
import { PaperView } from './PaperView';
import { ReadingForm } from './ReadingForm';

export interface PaperTrayData {
  inbox: InboxEntry[];
  materials: { id: string; name: string }[];
  /** The material a paper is looked for, where the maker came from one. */
  wanted: string | null;
}

function Inbox({ papers, onOpen }: { papers: readonly InboxEntry[]; onOpen: (entry: InboxEntry) => void }) {
  return (
    <ul>
      {papers.map((entry) => (
        <li key={entry.id} className="border-b border-hair">
          <button
            type="button"
            className="flex w-full cursor-pointer items-start gap-2 py-1 text-left leading-tight hover:bg-white"
            onClick={() => onOpen(entry)}
          >
            <FileText size={15} aria-hidden="true" className="mt-0.5 shrink-0 text-soft" />
            <span>
              {entry.fileName}
              <span className="block font-narrow text-soft">
                came {dayInWords(entry.receivedOn)}
                {entry.filedOn && `, filed ${dayInWords(entry.filedOn)}`}
              </span>
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}

function Filed({ entry, onNext }: { entry: CupboardEntry; onNext: () => void }) {
  return (
    <section role="status" aria-label="Filed" className="sheet">
      <h2 className="text-xl">Filed for {entry.material.name}</h2>
      <p>
        {entry.papers.certificate &&
          `Certificate ${entry.papers.certificate.paper.number} counts: ${entry.papers.certificate.reasons.join('; ')}. `}
        {entry.papers.allergens &&
          `Declaration ${entry.papers.allergens.paper.number} counts: ${entry.papers.allergens.reasons.join('; ')}.`}
      </p>
      <div className="mt-1">
        {entry.usedIn === 0 ? 'No bar uses it yet.' : 'Bars that use it:'}
        {entry.usedIn > 0 && <BarsUsing id={entry.material.id} />}
      </div>
      <p className="mt-2 flex gap-3">
        <a className="action" href={`/cupboard?material=${encodeURIComponent(entry.material.id)}`}>
          See it in the cupboard
        </a>
        <button type="button" className="action" onClick={onNext}>
          Next paper
        </button>
      </p>
    </section>
  );
}

/** Lines that something in the draft was taken from. */
function takenLines(draft: Draft | null): ReadonlySet<number> {
  if (!draft) return new Set();
  const keys = Object.keys(draft.fields) as FieldKey[];
  return new Set([
    ...keys.flatMap((key) => draft.fields[key].line ?? []),
    ...(draft.materialLine === null ? [] : [draft.materialLine]),
    ...draft.rows.flatMap(({ lines }) => lines),
  ]);
}

function usePaper({ materials, wanted }: PaperTrayData) {
  const [paper, setPaper] = useState<OpenPaper | null>(null);
  const [draft, setDraft] = useState<Draft | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const giveUp = useRef<AbortController | null>(null);
  const open = async (opening: (signal: AbortSignal) => Promise<OpenPaper>) => {
    giveUp.current?.abort();
    const { signal } = (giveUp.current = new AbortController());
    setBusy(true);
    setFault(null);
    try {
      const opened = await opening(signal);
      const reading = await readLines(opened.lines, signal);
      setPaper(opened);
      setDraft(draftFrom(reading, materials, wanted));
    } catch (error) {
      // Another paper was opened meanwhile; what becomes of that one is told there.
      if (giveUp.current.signal !== signal) return;
      setFault(
        error instanceof PaperFault
          ? error.message
          : 'This file could not be opened. Try another form of it.',
      );
    }
    setBusy(false);
  };
  const close = () => {
    setPaper(null);
    setDraft(null);
  };
  return { paper, draft, setDraft, fault, busy, open, close, stop: () => giveUp.current?.abort() };
}

/** Papers in: what came and waits, a place to drop or paste, the page beside what was read from it. */
function PaperTrayIsland({ data }: { data: PaperTrayData }) {
  const { paper, draft, setDraft, fault, busy, open, close, stop } = usePaper(data);
  const [inbox, setInbox] = useState(data.inbox);
  const [pasted, setPasted] = useState('');
  const [pointed, setPointed] = useState<number[]>([]);
  const { busy: isFiling, faults, setFaults, keep } = useKeeping();
  const [filed, setFiled] = useState<CupboardEntry | null>(null);
  const taken = useMemo(() => takenLines(draft), [draft]);
  useEffect(() => setFaults([]), [draft, setFaults]);

  const openInbox = (entry: InboxEntry) =>
    open(async (signal) => {
      const answer = await fetch(address('inbox', entry.id), { signal });
      if (!answer.ok) throw new PaperFault('The inbox does not give it out. Try again.');
      return openBytes(
        entry.fileName,
        entry.mime,
        new Uint8Array(await answer.arrayBuffer()),
        entry.id,
        signal,
      );
    });
  // The newest paper that waits lies open from the start.
  const newest = data.inbox.find(({ filedOn }) => filedOn === null);
  const opened = useRef(false);
  useEffect(() => {
    if (opened.current || !newest) return;
    opened.current = true;
    void openInbox(newest);
  });
  const openFile = (file: File | undefined) => {
    if (file)
      void open(async (signal) =>
        openBytes(file.name, file.type, new Uint8Array(await file.arrayBuffer()), null, signal),
      );
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    openFile(event.dataTransfer.files[0]);
  };
  const file = async () => {
    if (!draft || !paper) return;
    const wrong = faultsOf(draft);
    if (wrong.length > 0) return setFaults(wrong.map((message) => ({ path: '', message })));
    const body = { papers: papersFrom(draft, paper.fileName), inbox: paper.inbox };
    const url = address('materials', draft.material, 'papers');
    const entry = await keep((key) => send<CupboardEntry>('POST', url, body, key));
    if (!entry) return;
    setFiled(entry);
    const listed = await send<{ papers: InboxEntry[] }>('GET', address('inbox'));
    if (listed.ok) setInbox(listed.body.papers);
    close();
  };
  const waiting = inbox.filter(({ filedOn }) => filedOn === null);
  const done = inbox.filter(({ filedOn }) => filedOn !== null);
  return (
    <div className="grid gap-5 lg:grid-cols-[16rem_minmax(0,1fr)_29rem]">
      <section
        aria-label="Papers that came"
        className="sheet"
        onDragOver={(event) => event.preventDefault()}
        onDrop={onDrop}
      >
        <h2 className="text-lg">Waiting</h2>
        {waiting.length === 0 && <p className="text-soft">Nothing waits.</p>}
        <Inbox papers={waiting} onOpen={(entry) => void openInbox(entry)} />
        {done.length > 0 && (
          <>
            <h2 className="mt-2 text-lg">Filed</h2>
            <Inbox papers={done} onOpen={(entry) => void openInbox(entry)} />
          </>
        )}
        <label className="mt-3 block cursor-pointer border border-dashed border-soft p-3 text-center">
          Drop a PDF, CSV or text here, or <span className="text-ultra underline">choose a file</span>
          <input
            type="file"
            className="sr-only"
            accept=".pdf,.csv,.tsv,.txt,application/pdf,text/*"
            onChange={(event) => {
              openFile(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </label>
        <label className="mt-2 block">
          <span className="eyebrow block">Or paste its text</span>
          <textarea
            className="field w-full border border-line"
            rows={4}
            value={pasted}
            onChange={(event) => setPasted(event.target.value)}
          />
        </label>
        <button
          type="button"
          className="action mt-1"
          disabled={pasted.trim() === ''}
          onClick={() =>
            void open(() =>
              Promise.resolve({
                fileName: 'Pasted text',
                inbox: null,
                lines: linesFromText(pasted),
                pages: [],
              }),
            )
          }
        >
          Read it
        </button>
      </section>
      <div role="region" aria-label="The paper" aria-busy={busy} tabIndex={0} className="paper-window">
        {busy && (
          <p role="status">
            Opening…{' '}
            <button type="button" className="action py-0" onClick={stop}>
              Give up
            </button>
          </p>
        )}
        {fault && (
          <p role="alert" className="border-l-4 border-madder bg-wash px-3 py-1.5">
            {fault}
          </p>
        )}
        {paper && <PaperView paper={paper} taken={taken} pointed={pointed} />}
        {!paper && !busy && !fault && !filed && (
          <p className="text-soft">
            Open a paper: the page stands here, with every line marked that something was read from. Nothing
            is filed until you say so.
          </p>
        )}
        {filed && !paper && <Filed entry={filed} onNext={() => setFiled(null)} />}
      </div>
      <section aria-label="What was read" tabIndex={0} className="sheet paper-window">
        {draft && paper ? (
          <>
            <h2 className="text-lg">{paper.fileName}</h2>
            <ReadingForm draft={draft} setDraft={setDraft} materials={data.materials} onPoint={setPointed} />
            <ul role="alert" className="mt-2 text-madder">
              {faults.map((one) => (
                <li key={one.path + one.message}>{one.message}</li>
              ))}
            </ul>
            <div className="mt-2 flex gap-3">
              <button
                type="button"
                className="action action-strong"
                disabled={isFiling}
                onClick={() => void file()}
              >
                File what is ticked
              </button>
              <button type="button" className="action" onClick={close}>
                Leave it
              </button>
            </div>
          </>
        ) : (
          <p className="text-soft">
            What the reader takes from a paper stands here, to be checked and corrected.
          </p>
        )}
      </section>
    </div>
  );
}

export const PaperTray = guarded('The paper tray', PaperTrayIsland);
