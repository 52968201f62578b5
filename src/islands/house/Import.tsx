import { useMemo, useState } from 'react';
import { FileInput } from 'lucide-react';
import { TABLE_FILES } from '../../core/file-kinds';
import type { SheetLesson } from '../../core/sheets/sheet-lessons';
import type { WorkbookPart } from '../../core/sheets/workbook';
import { FileButton } from '../../ui/FileButton';
import { guarded } from '../../ui/Guarded';
import { Select } from '../../ui/Select';
import { PaperFault } from '../papers/fault';
import { ImportBars } from './ImportBars';
import { ImportStock } from './ImportStock';
import { openSheet, partsOfText } from './sheet';
import { HOLDS_WORDS } from './sheet-words';

const HELD = [
  ['bars', 'bars with what goes into them'],
  ['stock', 'materials and lots in the cupboard'],
] as const;

interface Kept {
  today: string;
  /** What was said about sheets taken in before. */
  lessons: readonly SheetLesson[];
}

function Opened({
  part,
  file,
  today,
  lessons,
  onTaken,
}: { part: WorkbookPart; file: string; onTaken: (place: string) => void } & Kept) {
  const [held, setHeld] = useState<(typeof HELD)[number][0]>(part.holds === 'stock' ? 'stock' : 'bars');
  const sheet = useMemo(() => ({ name: part.name, file, rows: part.rows }), [part, file]);
  return (
    <div className="grid gap-4">
      <Select label="It holds" value={held} options={HELD} onChange={setHeld} />
      {held === 'bars' ? (
        <ImportBars sheet={sheet} lessons={lessons} today={today} onTaken={() => onTaken('/')} />
      ) : (
        <ImportStock sheet={sheet} today={today} onTaken={() => onTaken('/cupboard')} />
      )}
    </div>
  );
}

/** The sheets of a workbook by what they hold, of which one is read at a time, those laid out alike together. */
function Parts({
  parts,
  at,
  taken,
  onChoose,
}: {
  parts: readonly WorkbookPart[];
  at: number;
  taken: ReadonlySet<number>;
  onChoose: (at: number) => void;
}) {
  return (
    <fieldset>
      <legend className="eyebrow">Its sheets</legend>
      {parts.map(({ name, holds }, place) => (
        <label key={place} className="flex flex-wrap items-baseline gap-x-3">
          <input type="radio" name="part" checked={place === at} onChange={() => onChoose(place)} />
          <span className="font-medium">{name}</span>
          <span className="text-soft">{taken.has(place) ? 'taken in' : HOLDS_WORDS[holds]}</span>
        </label>
      ))}
    </fieldset>
  );
}

/** A file or what was pasted, by its parts. */
interface OpenFile {
  name: string;
  parts: WorkbookPart[];
}

/** The parts of a file that was opened; once one is taken in, the next that holds something is looked at. */
function OpenedFile({ file: { name, parts }, ...kept }: { file: OpenFile } & Kept) {
  const [at, setAt] = useState(0);
  const [taken, setTaken] = useState<ReadonlySet<number>>(new Set());
  const onTaken = (place: string) => {
    const done = new Set(taken).add(at);
    const next = parts.findIndex(({ holds }, one) => holds !== 'nothing' && !done.has(one));
    if (next < 0) return location.assign(place);
    setTaken(done);
    setAt(next);
  };
  return (
    <>
      <h2 className="text-lg">{name}</h2>
      {parts[at]!.above.length > 0 && (
        <p className="text-soft">Above the heads, not read: {parts[at]!.above.join('; ')}.</p>
      )}
      {parts.length > 1 && <Parts {...{ parts, at, taken }} onChoose={setAt} />}
      {taken.size > 0 && <p role="status">Taken in. This is what else it holds.</p>}
      <Opened key={at} part={parts[at]!} file={name} onTaken={onTaken} {...kept} />
    </>
  );
}

/** What may come, as two small pictures. */
function MayCome() {
  const table = (caption: string, rows: readonly (readonly string[])[]) => (
    <figure className="border border-line px-2 py-1">
      <table className="text-[0.86rem]">
        <tbody>
          {rows.map((row, at) => (
            <tr key={at} className={at === 0 ? 'font-medium' : undefined}>
              {row.map((cell, place) => (
                <td key={place} className="border-b border-hair pr-4">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <figcaption className="eyebrow mt-1">{caption}</figcaption>
    </figure>
  );
  return (
    <div className="flex flex-wrap gap-4">
      {table('Bars, a row an ingredient, or a column a bar', [
        ['Bar', 'Ingredient', 'Grams'],
        ['Slate', 'Olive oil', '700'],
        ['Slate', 'Coconut oil', '300'],
      ])}
      {table('Materials and lots, a row each', [
        ['Material', 'Lot', 'Left'],
        ['Olive oil', 'OL2601', '4.2 kg'],
        ['Shea butter', 'SH2602', '800 g'],
      ])}
    </div>
  );
}

/** Cells pasted are read at once; what is typed, by its button. */
function Cells({ onText }: { onText: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <div className="flex flex-wrap items-end gap-3">
      <label className="w-full max-w-xl">
        <span className="eyebrow block">or drop it here, or paste its cells</span>
        <textarea
          className="field w-full"
          rows={2}
          value={text}
          placeholder="cells copied from a spreadsheet"
          onChange={(event) => setText(event.target.value)}
          onPaste={(event) => {
            const pasted = event.clipboardData.getData('text');
            if (text.trim() !== '' || pasted.trim() === '') return;
            event.preventDefault();
            onText(pasted);
          }}
        />
      </label>
      {text.trim() !== '' && (
        <button type="button" className="action" onClick={() => onText(text)}>
          Read these cells
        </button>
      )}
    </div>
  );
}

function ImportIsland({ today, lessons }: Kept) {
  const [file, setFile] = useState<(OpenFile & { opened: number }) | null>(null);
  const [fault, setFault] = useState('');
  /** Names of files that were dropped with the one that is opened. */
  const [waiting, setWaiting] = useState<string[]>([]);
  const take = async (name: string, open: () => Promise<WorkbookPart[]>) => {
    try {
      const parts = await open();
      if (parts.length === 0) throw new PaperFault('There is nothing in this file.');
      setFile((before) => ({ name, parts, opened: (before?.opened ?? 0) + 1 }));
      setFault('');
    } catch (error) {
      setFault(
        error instanceof PaperFault ? error.message : 'This file cannot be opened. Save it anew as CSV.',
      );
    }
  };
  const openFile = (chosen: File) => take(chosen.name, () => openSheet(chosen));
  return (
    <section
      aria-label="A sheet to bring in"
      className="sheet grid gap-4"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const [dropped, ...others] = event.dataTransfer.files;
        if (dropped) void openFile(dropped);
        setWaiting(others.map(({ name }) => name));
      }}
    >
      <FileButton
        accept={TABLE_FILES}
        className="justify-self-start"
        onFile={(chosen) => void openFile(chosen)}
      >
        <FileInput size={16} aria-hidden="true" /> A spreadsheet or CSV file
      </FileButton>
      <Cells onText={(text) => void take('Pasted cells', () => partsOfText(text))} />
      {waiting.length > 0 && (
        <p className="border-l-4 border-line pl-3">
          One file at a time: bring in {waiting.join(', ')} afterwards.{' '}
          <button type="button" className="action py-0" onClick={() => setWaiting([])}>
            Seen
          </button>
        </p>
      )}
      {!file && <MayCome />}
      <p role="alert" className="text-madder">
        {fault}
      </p>
      {file && <OpenedFile key={file.opened} file={file} today={today} lessons={lessons} />}
    </section>
  );
}

export const Import = guarded('The spreadsheet', ImportIsland);
