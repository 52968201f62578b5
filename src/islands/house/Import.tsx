import { useState } from 'react';
import { FileInput } from 'lucide-react';
import { isStock } from '../../core/sheets/stock-layout';
import { FileButton } from '../../ui/FileButton';
import { guarded } from '../../ui/Guarded';
import { Select } from '../../ui/Select';
import { PaperFault } from '../papers/fault';
import { ImportBars } from './ImportBars';
import { ImportStock } from './ImportStock';
import type { Sheet } from './import-parts';
import { openSheet } from './sheet';

const NO_ROWS: string[][] = [];

const HELD = [
  ['bars', 'bars with what goes into them'],
  ['stock', 'materials and lots in the cupboard'],
] as const;

function Opened({ sheet, today }: { sheet: Sheet; today: string }) {
  const [held, setHeld] = useState<(typeof HELD)[number][0]>(isStock(sheet.rows) ? 'stock' : 'bars');
  return (
    <div className="grid gap-4">
      <Select label="It holds" value={held} options={HELD} onChange={setHeld} />
      {held === 'bars' ? <ImportBars sheet={sheet} /> : <ImportStock sheet={sheet} today={today} />}
    </div>
  );
}

function ImportIsland({ today }: { today: string }) {
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
      <FileButton
        accept=".csv,.tsv,.xlsx,text/csv"
        className="justify-self-start"
        onFile={(file) => void open(file)}
      >
        <FileInput size={16} aria-hidden="true" /> A CSV or XLSX file
      </FileButton>
      <p role="alert" className="text-madder">
        {fault}
      </p>
      {sheet.rows.length > 0 && (
        <>
          <h2 className="text-lg">{sheet.name}</h2>
          <Opened key={`${sheet.name} ${sheet.rows.length}`} sheet={sheet} today={today} />
        </>
      )}
    </section>
  );
}

export const Import = guarded('The spreadsheet', ImportIsland);
