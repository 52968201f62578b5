import { useState } from 'react';
import { FileInput } from 'lucide-react';
import type { SheetLesson } from '../../core/sheets/sheet-lessons';
import { isStock } from '../../core/sheets/stock-layout';
import { FileButton } from '../../ui/FileButton';
import { guarded } from '../../ui/Guarded';
import { Select } from '../../ui/Select';
import { PaperFault } from '../papers/fault';
import { ImportBars } from './ImportBars';
import { ImportStock } from './ImportStock';
import type { Sheet } from './import-parts';
import { openSheet, rowsOfText } from './sheet';

const NO_ROWS: string[][] = [];

const HELD = [
  ['bars', 'bars with what goes into them'],
  ['stock', 'materials and lots in the cupboard'],
] as const;

interface Kept {
  today: string;
  /** What was said about sheets taken in before. */
  lessons: readonly SheetLesson[];
}

function Opened({ sheet, today, lessons }: { sheet: Sheet } & Kept) {
  const [held, setHeld] = useState<(typeof HELD)[number][0]>(isStock(sheet.rows) ? 'stock' : 'bars');
  return (
    <div className="grid gap-4">
      <Select label="It holds" value={held} options={HELD} onChange={setHeld} />
      {held === 'bars' ? (
        <ImportBars sheet={sheet} lessons={lessons} today={today} />
      ) : (
        <ImportStock sheet={sheet} today={today} />
      )}
    </div>
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
  const [sheet, setSheet] = useState<Sheet>({ name: '', rows: NO_ROWS });
  const [fault, setFault] = useState('');
  const take = async (name: string, rows: () => Promise<string[][]>) => {
    try {
      setSheet({ name, rows: await rows() });
      setFault('');
    } catch (error) {
      setFault(
        error instanceof PaperFault ? error.message : 'This file cannot be opened. Save it anew as CSV.',
      );
    }
  };
  const open = (file: File) => take(file.name, () => openSheet(file));
  return (
    <section
      aria-label="A sheet to bring in"
      className="sheet grid gap-4"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const [file] = event.dataTransfer.files;
        if (file) void open(file);
      }}
    >
      <FileButton
        accept=".csv,.tsv,.xlsx,text/csv"
        className="justify-self-start"
        onFile={(file) => void open(file)}
      >
        <FileInput size={16} aria-hidden="true" /> A CSV or XLSX file
      </FileButton>
      <Cells onText={(text) => void take('Pasted cells', () => rowsOfText(text))} />
      {sheet.rows.length === 0 && <MayCome />}
      <p role="alert" className="text-madder">
        {fault}
      </p>
      {sheet.rows.length > 0 && (
        <>
          <h2 className="text-lg">{sheet.name}</h2>
          <Opened
            key={`${sheet.name} ${sheet.rows.length} ${sheet.rows[0]?.join()}`}
            sheet={sheet}
            today={today}
            lessons={lessons}
          />
        </>
      )}
    </section>
  );
}

export const Import = guarded('The spreadsheet', ImportIsland);
