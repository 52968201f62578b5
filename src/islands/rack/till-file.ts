/** A till's or shop's file: opened, its rows sent to be looked over or written down. */
import { isWorkbook, remedyFor } from '../../core/file-kinds';
import { readSales, type Mapping } from '../../core/stock/sale-columns';
import { saleTable, type SaleTable } from '../../core/stock/sale-table';
import type { Market } from '../../core/formula/types';
import type { DayOrder } from '../../core/paperwork/dates';
import { address, send, type Fault } from '../../ui/api';
import { textOfBytes } from '../../ui/file-text';
import { rowsOfTable } from '../../ui/table-text';
import { many } from '../../ui/words';
import { PaperFault } from '../papers/fault';

export interface List extends SaleTable {
  name: string;
  /** Sheets of its workbook that are not read. */
  unread: string[];
}

type IsBar = (text: string) => boolean;

export interface Told {
  kind: 'faults' | 'preview' | 'done';
  words: string;
  faults: { row: number | null; message: string }[];
}

/** Years of a busy stall; more is no list of sales, or wants to come in pieces. */
const LARGEST_BYTES = 5_000_000;

const NO_LIST =
  'No list of sales was found in this file: a day, a bar or a batch code, and a number in each row, with a line of heads.';

async function sheetsOf(file: File): Promise<{ name: string; rows: string[][] }[]> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (isWorkbook(file.name)) return (await import('../papers/office')).sheetsFromWorkbook(bytes);
  const remedy = remedyFor(file.name);
  if (remedy) throw new PaperFault(remedy);
  return [{ name: file.name, rows: await rowsOfTable(textOfBytes(bytes)) }];
}

export async function readFile(file: File, isBar: IsBar): Promise<List | string> {
  if (file.size > LARGEST_BYTES) return 'This file is over 5 MB. Export a shorter span of days.';
  try {
    const sheets = await sheetsOf(file);
    const tables = sheets.map(({ name, rows }) => ({ name, table: saleTable(rows, isBar) }));
    // Of several sheets the one with most sales; the others are told.
    const best = tables.reduce((most, one) =>
      (one.table?.rows.length ?? 0) > (most.table?.rows.length ?? 0) ? one : most,
    );
    if (!best.table) return NO_LIST;
    const unread = tables.filter((one) => one !== best).map(({ name }) => name);
    return { ...best.table, name: file.name, unread };
  } catch (error) {
    return error instanceof PaperFault ? error.message : 'This file cannot be opened. Save it anew as CSV.';
  }
}

const rowOf = (path: string) => {
  const found = /^rows\.(\d+)/.exec(path)?.[1];
  return found === undefined ? null : Number(found);
};
const toldFaults = (faults: readonly Fault[]) =>
  faults.map(({ path, message }) => ({ row: rowOf(path), message }));

interface Wanted {
  list: List;
  /** Rows left out, by their number in the file. */
  out: ReadonlySet<number>;
  mapping: Mapping;
  usual: { to: string; market: Market | null; order: DayOrder | null };
}

export async function sendRows({ list, out, mapping, usual }: Wanted, isPreview: boolean): Promise<Told> {
  const numbers = list.numbers.filter((one) => !out.has(one));
  const taken = list.rows.filter((_, at) => !out.has(list.numbers[at]!));
  const { rows, faults: unread } = readSales(taken, mapping, usual);
  const inFile = <F extends { row: number | null }>(fault: F) => ({
    ...fault,
    row: fault.row === null ? null : numbers[fault.row]!,
  });
  const faults = unread.map(inFile);
  const nothing = 'Nothing was written down.';
  if (faults.length > 0)
    return { kind: 'faults', words: `${many(faults.length, 'row')} cannot be read. ${nothing}`, faults };
  const by = localStorage.getItem('proportia.by');
  const answer = await send<{ rows: number; known: number; bars: number }>('POST', address('sales'), {
    rows,
    preview: isPreview,
    by,
  });
  if (!answer.ok)
    return {
      kind: 'faults',
      words: `${many(answer.faults.length, 'row')} cannot be taken. ${nothing}`,
      faults: toldFaults(answer.faults).map(inFile),
    };
  const { rows: fresh, known, bars } = answer.body;
  const before =
    known > 0
      ? ` ${many(known, 'row')} ${known === 1 ? 'was' : 'were'} known and ${known === 1 ? 'changes' : 'change'} nothing.`
      : '';
  const said = isPreview ? 'would take' : 'written down,';
  return {
    kind: isPreview ? 'preview' : 'done',
    words: `${many(fresh, 'row')} ${said} ${many(bars, 'bar')}.${before}`,
    faults: [],
  };
}

/** Whether a cell names a bar or a batch there is. */
export function isNamed(names: readonly string[]): (text: string) => boolean {
  const known = new Set(names.map((name) => name.toLowerCase()));
  return (text) => known.has(text.toLowerCase()) || known.has(text.split('/')[0]!.toLowerCase());
}
