import { guarded } from '../../ui/Guarded';
import { useEffect, useMemo, useRef, useState, type DragEvent } from 'react';
import type { Mailed } from '../../core/paperwork/mail';
import { remember, type Lesson } from '../../core/paperwork/lessons';
import type { PageLanguage } from '../../core/paperwork/page-language';
import type { Inbox, InboxEntry } from '../../core/records/papers';
import type { CupboardEntry } from '../../core/records/cupboard';
import { address, send } from '../../ui/api';
import { lookAtChange } from '../../ui/look-at-change';
import { RecordFields, useRecordForm } from '../../ui/form/record-form';
import { useStable } from '../../ui/latest';
import {
  byHand,
  draftFrom,
  FIELD_WORDS,
  faultsOf,
  lessonsFrom,
  papersFrom,
  type Draft,
  type FieldKey,
  type KnownMaterial,
} from './draft';
import type { Answer, Question } from './ask';
import { AskPaper } from './AskPaper';
import { CameTogether } from './CameTogether';
import { filesTogether, joined, NOT_TAKEN, type Together } from './together';
import { PaperFault, type PagePicture } from './fault';
import { Filed } from './Filed';
import { HowFar, ReadIn, secondsLeft, type Far } from './HowFar';
import { Folder, Papers } from './Inbox';
import { useInbox } from './inbox-look';
import { openByHand, openBytes, type Opening, type OpenPaper } from './open';
import { OtherWays, type Open } from './OtherWays';
import { readLines } from './reading';
import { PaperView } from './PaperView';
import { ReadingForm } from './ReadingForm';
import paperStyles from './paper.module.css';

export interface PaperTrayData {
  inbox: Inbox;
  materials: KnownMaterial[];
  /** The material a paper is looked for, where the maker came from one. */
  wanted: string | null;
  /** What the maker taught on earlier papers. */
  lessons: Lesson[];
}

/** Lines that something in the draft was taken from. */
function takenLines(draft: Draft): ReadonlySet<number> {
  const keys = Object.keys(draft.fields) as FieldKey[];
  return new Set([
    ...keys.flatMap((key) => draft.fields[key].line ?? []),
    ...(draft.materialLine === null ? [] : [draft.materialLine]),
    ...draft.rows.flatMap(({ lines }) => lines),
  ]);
}

/** A paper that lies open, with what was read from it. */
interface Opened {
  /** Counts the papers opened, so that each has a form of its own. */
  id: number;
  paper: OpenPaper;
  draft: Draft;
}

/** What is asked of the maker while a paper is opened; an answer ends it. */
function useAsking() {
  const [asked, setAsked] = useState<{ question: Question; onAnswer: (answer: Answer) => void } | null>(null);
  const pending = useRef<((answer: Answer) => void) | null>(null);
  const answer = useStable((given: Answer) => {
    pending.current?.(given);
    pending.current = null;
    setAsked(null);
  });
  const ask = useStable(
    (question: Question) =>
      new Promise<Answer>((done) => {
        pending.current = done;
        setAsked({ question, onAnswer: answer });
      }),
  );
  return { asked, ask, drop: () => answer(null) };
}

/** Why a paper was not opened, and its pages where they can be looked at. */
interface Refusal {
  words: string;
  pages: readonly PagePicture[];
}

function refusalOf(error: unknown, isGivenUp: boolean): Refusal {
  if (error instanceof PaperFault) return { words: error.message, pages: error.pages };
  const words = isGivenUp
    ? 'Given up. Nothing was filed.'
    : 'This file could not be opened. Try another form of it.';
  return { words, pages: [] };
}

/** An opening that tells and asks nothing more once it was given up: another paper may lie open by then. */
function whileWanted(opening: Opening): Opening {
  const { signal, onProgress, ask, onTogether } = opening;
  return {
    ...opening,
    onProgress: (share, words) => signal.aborted || onProgress(share, words),
    ask: (question) => (signal.aborted ? Promise.resolve(null) : ask(question)),
    onTogether: (of) => signal.aborted || onTogether(of),
  };
}

function usePaper({ materials, wanted, lessons: known }: PaperTrayData) {
  const [lessons, setLessons] = useState(known);
  const [opened, setOpened] = useState<Opened | null>(null);
  const [fault, setFault] = useState<Refusal | null>(null);
  const [far, setFar] = useState<Far | null>(null);
  const [together, setTogether] = useState<Together | null>(null);
  const { asked, ask, drop } = useAsking();
  const giveUp = useRef<AbortController | null>(null);
  const count = useRef(0);
  const last = useRef<Parameters<Open>[0] | null>(null);
  const open = useStable(
    async (opening: (way: Opening) => Promise<OpenPaper>, language: PageLanguage | null = null) => {
      last.current = opening;
      giveUp.current?.abort();
      const { signal } = (giveUp.current = new AbortController());
      drop();
      const begun = performance.now();
      const onProgress = (share: number, words: string) =>
        setFar({ share, words, leftS: secondsLeft(share, (performance.now() - begun) / 1000) });
      const onTogether = (of: Together) => setTogether((was) => joined(was, of));
      onProgress(0, 'Opening');
      setFault(null);
      try {
        const paper = await opening(whileWanted({ signal, onProgress, language, ask, onTogether }));
        const reading = await readLines(paper.lines, lessons, signal);
        const draft = draftFrom(reading, materials, wanted, paper.isPicture ? paper : null);
        setOpened({ id: ++count.current, paper, draft: paper.isByHand ? byHand(draft) : draft });
      } catch (error) {
        // Another paper was opened meanwhile; what becomes of that one is told there.
        if (giveUp.current.signal !== signal) return;
        setFault(refusalOf(error, signal.aborted));
      }
      setFar(null);
    },
  );
  const close = () => setOpened(null);
  const goOn = () => setFault(null);
  const learn = (fresh: Lesson[]) => setLessons((old) => remember(old, fresh));
  /** Reads the paper that lies open once more, in a language. */
  const readIn = (language: PageLanguage) => void (last.current && open(last.current, language));
  const stop = () => giveUp.current?.abort();
  /** Opens one of those that came together; the others stay in sight. */
  const openOne = (paper: Mailed) => {
    setTogether((of) => of && { ...of, opened: [...new Set([...of.opened, paper])] });
    void open((way) => openBytes({ ...paper, inbox: null }, paper.bytes.slice(), way));
  };
  /** Opens the first of some files; all of several stay in sight, also those that cannot be taken. */
  const openFiles = async (files: readonly File[]) => {
    const came = await filesTogether(files);
    if (came.papers.length + came.unread.length > 1) setTogether(came);
    const [first] = came.papers;
    if (first) openOne(first);
    else if (came.unread.length > 0) void open(() => Promise.reject(new PaperFault(NOT_TAKEN)));
  };
  const leave = () => setTogether(null);
  return {
    ...{ opened, fault, far, asked, together },
    ...{ open, openOne, openFiles, leave, readIn, close, goOn, learn, stop },
  };
}
type Desk = ReturnType<typeof usePaper>;

async function inboxPaper(entry: InboxEntry, way: Opening): Promise<OpenPaper> {
  const answer = await fetch(address('inbox', entry.id), { signal: way.signal });
  if (!answer.ok) throw new PaperFault('The inbox does not give it out. Try again.');
  const { fileName, mime, id } = entry;
  return openBytes({ fileName, mime, inbox: id }, new Uint8Array(await answer.arrayBuffer()), way);
}

function Came({ inbox, desk: { open, openFiles } }: { inbox: Inbox; desk: Desk }) {
  const onFiles = (files: readonly File[]) => void openFiles(files);
  const waiting = inbox.papers.filter(({ filedOn }) => filedOn === null);
  const done = inbox.papers.filter(({ filedOn }) => filedOn !== null);
  const openOne = (entry: InboxEntry) => void open((way) => inboxPaper(entry, way));
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    onFiles([...event.dataTransfer.files]);
  };
  return (
    <section
      aria-label="Papers that came"
      className="sheet"
      onDragOver={(event) => event.preventDefault()}
      onDrop={onDrop}
    >
      <h2 className="text-lg">Waiting</h2>
      {waiting.length === 0 && <p className="text-soft">Nothing waits.</p>}
      <Papers papers={waiting} onOpen={openOne} />
      {done.length > 0 && (
        <>
          <h2 className="mt-2 text-lg">Filed</h2>
          <Papers papers={done} onOpen={openOne} />
        </>
      )}
      <Folder {...inbox} />
      <OtherWays open={open} onFiles={onFiles} />
    </section>
  );
}

/** Keyed in without a page to look at. */
const isBare = ({ isByHand, pages }: OpenPaper) => isByHand === true && pages.length === 0;

interface ThePaperProps {
  desk: Desk;
  onKey: (pages: readonly PagePicture[]) => void;
  pointed: readonly number[];
  filed: CupboardEntry | null;
  onNext: () => void;
}

function ThePaper({
  desk: { opened, fault, far, asked, together, stop, goOn, readIn, openOne, leave },
  onKey,
  pointed,
  filed,
  onNext,
}: ThePaperProps) {
  const taken = useMemo(() => (opened ? takenLines(opened.draft) : new Set<number>()), [opened]);
  const place = useRef<HTMLDivElement>(null);
  const isReading = far !== null;
  // On a phone it stands below what waits: what becomes of a paper comes into sight by itself.
  useEffect(() => {
    if (isReading || fault) place.current?.scrollIntoView({ block: 'nearest' });
  }, [isReading, fault]);
  return (
    <div
      ref={place}
      role="region"
      aria-label="The paper"
      aria-busy={far !== null}
      tabIndex={0}
      className={paperStyles.paperWindow}
    >
      {together && !asked && !isReading && (
        <CameTogether together={together} onOpen={openOne} onLeave={leave} />
      )}
      {asked && <AskPaper {...asked} />}
      {far && !asked && <HowFar far={far} onStop={stop} />}
      {fault && (
        <p role="alert" className="border-l-4 border-madder bg-wash px-3 py-1.5">
          {fault.words}
          <button type="button" className="action ml-3 py-0" onClick={() => onKey(fault.pages)}>
            Type it in
          </button>
          {opened && (
            <button type="button" className="action ml-3 py-0" onClick={goOn}>
              Go on with {opened.paper.fileName}
            </button>
          )}
        </p>
      )}
      {opened?.paper.language && !fault && !far && (
        <ReadIn language={opened.paper.language} onChange={readIn} />
      )}
      {opened && !fault && !isBare(opened.paper) && (
        <PaperView paper={opened.paper} taken={taken} pointed={pointed} />
      )}
      {!opened && !far && !fault && !filed && (
        <p className="text-soft">
          Open a paper: the page stands here, with every line marked that something was read from. Nothing is
          filed until you say so.
        </p>
      )}
      {filed && !opened && <Filed entry={filed} onNext={onNext} />}
    </div>
  );
}

const fieldOf = (path: string) => {
  const key = /^papers\.\d+\.(\w+)$/.exec(path)?.[1];
  return key && key in FIELD_WORDS ? (`fields.${key as FieldKey}.text` as const) : null;
};

interface WhatWasReadProps extends Omit<Opened, 'id'> {
  materials: PaperTrayData['materials'];
  onPoint: (lines: number[]) => void;
  onFiled: (entry: CupboardEntry, lessons: Lesson[]) => void;
  onClose: () => void;
}

function WhatWasRead({ paper, draft, materials, onPoint, onFiled, onClose }: WhatWasReadProps) {
  const record = useRecordForm<Draft>({ defaults: draft, fieldOf });
  const { busy, setFaults, keep } = record.keeping;
  const file = async (checked: Draft) => {
    const wrong = faultsOf(checked);
    if (wrong.length > 0) return setFaults(wrong.map((message) => ({ path: '', message })));
    const lessons = lessonsFrom(paper, draft, checked);
    const body = { papers: papersFrom(checked, paper.fileName), inbox: paper.inbox, lessons };
    const url = address('materials', checked.material, 'papers');
    const entry = await keep((key) => send<CupboardEntry>('POST', url, body, key));
    if (entry) onFiled(entry, lessons);
  };
  /** A certificate and a declaration on one paper are two changes; the first is looked at. */
  const look = async () => {
    const checked = record.form.getValues();
    const wrong = faultsOf(checked);
    if (wrong.length > 0) return setFaults(wrong.map((message) => ({ path: '', message })));
    const [read] = papersFrom(checked, paper.fileName);
    const of = { material: checked.material, inbox: paper.inbox ?? undefined };
    setFaults(await lookAtChange({ kind: 'paper', paper: read!, ...of }));
  };
  return (
    <RecordFields record={record} onKeep={file} label="What was read from it">
      <h2 className="text-lg">{paper.fileName}</h2>
      <ReadingForm questions={draft.questions} materials={materials} paper={paper} onPoint={onPoint} />
      <div className="mt-2 flex flex-wrap gap-3">
        <button type="submit" className="action action-strong" disabled={busy}>
          File what is ticked
        </button>
        <button type="button" className="action" disabled={busy} onClick={() => void look()}>
          See what it touches first
        </button>
        <button type="button" className="action" onClick={onClose}>
          Close, change nothing
        </button>
      </div>
    </RecordFields>
  );
}

/** Opens the paper that is asked for in the address, else the newest one that waits; once. */
function useNewestFirst(inbox: readonly InboxEntry[], open: Open): void {
  const opened = useRef(false);
  useEffect(() => {
    const asked = new URLSearchParams(location.search).get('paper');
    const waiting = inbox.filter(({ filedOn }) => filedOn === null);
    const newest = waiting.find(({ id }) => id === asked) ?? waiting[0];
    if (opened.current || !newest) return;
    opened.current = true;
    void open((way) => inboxPaper(newest, way));
  }, [inbox, open]);
}

/** Papers in: what came and waits, a place to drop or paste, the page beside what was read from it. */
function PaperTrayIsland({ data }: { data: PaperTrayData }) {
  const desk = usePaper(data);
  const { inbox, look } = useInbox(data.inbox);
  const [pointed, setPointed] = useState<number[]>([]);
  const [filed, setFiled] = useState<CupboardEntry | null>(null);
  const { opened, open, close } = desk;
  const isAway = desk.fault !== null || desk.far !== null;
  useNewestFirst(data.inbox.papers, open);
  const key = (pages: readonly PagePicture[]) => void open(() => Promise.resolve(openByHand(pages)));
  const onFiled = async (entry: CupboardEntry, lessons: Lesson[]) => {
    setFiled(entry);
    desk.learn(lessons);
    close();
    await look();
  };
  return (
    <div className="grid gap-5 lg:grid-cols-[16rem_minmax(0,1fr)_29rem]">
      <Came inbox={inbox} desk={desk} />
      <ThePaper desk={desk} onKey={key} pointed={pointed} filed={filed} onNext={() => setFiled(null)} />
      <section aria-label="What was read" tabIndex={0} className={`sheet ${paperStyles.paperWindow}`}>
        {opened && (
          // Of another paper than the one that is being opened, or could not be: put away with what was corrected in it.
          <div hidden={isAway}>
            <WhatWasRead
              key={opened.id}
              paper={opened.paper}
              draft={opened.draft}
              materials={data.materials}
              onPoint={setPointed}
              onFiled={(entry, lessons) => void onFiled(entry, lessons)}
              onClose={close}
            />
          </div>
        )}
        {(!opened || isAway) && (
          <p className="text-soft">
            What the reader takes from a paper stands here, to be checked and corrected.
          </p>
        )}
      </section>
    </div>
  );
}

export const PaperTray = guarded('The paper tray', PaperTrayIsland);
