import { useState } from 'react';
import { isStock } from '../../core/sheets/stock-layout';
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
      <label className="min-w-0">
        <span className="eyebrow block">A CSV or XLSX file</span>
        <input
          type="file"
          className="max-w-full"
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
      {sheet.rows.length > 0 && (
        <Opened key={`${sheet.name} ${sheet.rows.length}`} sheet={sheet} today={today} />
      )}
    </section>
  );
}

export const Import = guarded('The spreadsheet', ImportIsland);
