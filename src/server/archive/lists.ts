/** Lists of what is on file, as spreadsheets and programs take them: CSV, JSON, and one workbook of all. Runs on a thread. */
import Database from 'better-sqlite3';
import Papa from 'papaparse';
import type { Formula } from '../../core/formula/types';
import { dayOf } from '../../core/quantities/day';
import { recipeRows } from '../../core/sheets/recipe-rows';
import { libraryMaterial } from '../../library';

const LISTS = {
  bars: `select name, json_extract(body, '$.identity') as "what it is", json_extract(body, '$.note') as note,
         (select group_concat(value, ' ') from json_each(body, '$.markets')) as markets, put_away_on as "put away"
         from products order by position`,
  formulas: `select p.name as bar, v.number as version, coalesce(v.name, '') as "kept as",
             json_extract(line.value, '$.material') as material, json_extract(line.value, '$.stage') as stage,
             json_extract(line.value, '$.amount.value') as amount, json_extract(line.value, '$.amount.unit') as unit
             from products as p join formula_versions as v on v.product_id = p.id,
             json_each(v.formula, '$.lines') as line order by p.position, v.number, line.key`,
  materials: 'select id, name, kind, supplier from materials order by name',
  papers: `select m.name as material, d.type, d.number, d.edition, d.issued_on as issued,
           json_extract(d.body, '$.issuer') as issuer from documents as d join materials as m on m.id = d.material_id
           order by m.name, d.issued_on`,
  lots: `select m.name as material, json_extract(l.body, '$.code') as lot, json_extract(l.body, '$.supplier') as supplier,
         l.received_on as received, json_extract(l.body, '$.bestBefore') as "best before",
         json_extract(l.body, '$.quantityG') as grams, round(g.left_g, 3) as "left", json_extract(l.body, '$.price') as price
         from lots as l join lot_ledgers as g on g.lot_id = l.id join materials as m on m.id = l.material_id order by m.name, l.received_on`,
  batches: `select b.code, p.name as bar, house_day(b.started_at) as begun, b.state from batches as b
            join products as p on p.id = b.product_id order by b.started_at`,
  sold: `select b.code as batch, p.name as bar, house_day(json_extract(e.body, '$.at')) as day,
         json_extract(e.body, '$.bars') as bars, json_extract(e.body, '$.how') as how, json_extract(e.body, '$.to') as "where",
         json_extract(e.body, '$.market') as market, json_extract(e.body, '$.note') as note
         from batch_events as e join batches as b on b.id = e.batch_id join products as p on p.id = b.product_id
         where json_extract(e.body, '$.type') = 'moved' order by day`,
} as const;

/** Bars as they stand, in the rows that the reader of sheets takes in again. */
const RECIPES = 'recipes';
export type ListName = keyof typeof LISTS | typeof RECIPES;
export const LIST_NAMES: readonly ListName[] = [...(Object.keys(LISTS) as (keyof typeof LISTS)[]), RECIPES];

type Cell = string | number | null;

/** A list with its columns. */
export interface List {
  name: ListName;
  fields: string[];
  rows: Cell[][];
}

/** The working formulas, of bars that are not put away. */
const WORKING = `select p.name, v.formula from products as p join formula_versions as v on v.product_id = p.id
  where p.put_away_on is null and v.number = (select max(number) from formula_versions where product_id = p.id)
  order by p.position`;

function recipesOf(db: Database.Database): List {
  const bars = db.prepare(WORKING).all() as { name: string; formula: string }[];
  const names = new Map(
    db.prepare('select id, name from materials').raw().all() as [id: string, name: string][],
  );
  const nameOf = (id: string) => names.get(id) ?? libraryMaterial(id)?.name ?? id;
  return {
    name: RECIPES,
    fields: ['bar', 'ingredient', 'amount', 'unit', 'stage', 'portion'],
    rows: bars.flatMap(({ name, formula }) =>
      recipeRows(JSON.parse(formula) as Formula, nameOf).map(
        ({ ingredient, amount, unit, stage, portion }) => [name, ingredient, amount, unit, stage, portion],
      ),
    ),
  };
}

/** One list of a database, days in the house's zone. */
export function listOf(db: Database.Database, name: ListName, zone: string): List {
  if (name === RECIPES) return recipesOf(db);
  db.function('house_day', { deterministic: true }, (at) => dayOf(String(at), zone));
  const statement = db.prepare(LISTS[name]);
  const fields = statement.columns().map((column) => column.name);
  return { name, fields, rows: statement.raw().all() as Cell[][] };
}

/**
 * A list as CSV. With a comma as the decimal mark, columns are parted by semicolons and a mark says that it is UTF-8, as
 * spreadsheets of such countries take it; else plain. Text that a spreadsheet would reckon with is made harmless.
 */
export function csvOf({ fields, rows }: List, { comma }: { comma: boolean }): string {
  if (!comma) return Papa.unparse({ fields, data: rows }, { escapeFormulae: true });
  const data = rows.map((row) =>
    row.map((cell) => (typeof cell === 'number' ? String(cell).replace('.', ',') : cell)),
  );
  return `\ufeff${Papa.unparse({ fields, data }, { escapeFormulae: true, delimiter: ';' })}`;
}

const DAY = /^\d{4}-\d{2}-\d{2}$/;
const NARROWEST = 8;
const WIDEST = 48;

/** A cell as a workbook keeps it: numbers as numbers, days as days. */
const typed = (cell: Cell): string | number | Date | null =>
  typeof cell === 'string' && DAY.test(cell) ? new Date(`${cell}T00:00:00Z`) : cell;

/** Lists as one workbook: a sheet each, its head frozen, its cells typed. */
export async function workbookOf(lists: readonly List[], day: string): Promise<Uint8Array> {
  const { default: excel } = await import('exceljs');
  const workbook = new excel.Workbook();
  workbook.creator = 'Proportia';
  workbook.created = workbook.modified = new Date(`${day}T12:00:00Z`);
  for (const { name, fields, rows } of lists) {
    const sheet = workbook.addWorksheet(name, { views: [{ state: 'frozen', ySplit: 1 }] });
    sheet.columns = fields.map((header, at) => {
      const longest = Math.max(header.length, ...rows.map((row) => String(row[at] ?? '').length));
      return { header, width: Math.min(WIDEST, Math.max(NARROWEST, longest + 2)) };
    });
    sheet.getRow(1).font = { bold: true };
    for (const row of rows) sheet.addRow(row.map(typed));
    fields.forEach((_, at) => {
      if (rows.some((row) => typeof row[at] === 'string' && DAY.test(row[at])))
        sheet.getColumn(at + 1).numFmt = 'yyyy-mm-dd';
    });
  }
  return new Uint8Array(await workbook.xlsx.writeBuffer());
}

export interface ListsJob {
  file: string;
  zone: string;
  day: string;
  /** Null for all of them. */
  name: ListName | null;
  as: 'csv' | 'csv-comma' | 'json' | 'xlsx';
}

/** Reads lists from the live database and answers them in a form. */
export async function makeLists({ file, zone, day, name, as }: ListsJob): Promise<Uint8Array | string> {
  const db = new Database(file, { readonly: true, fileMustExist: true });
  try {
    const lists = (name === null ? LIST_NAMES : [name]).map((one) => listOf(db, one, zone));
    if (as === 'xlsx') return await workbookOf(lists, day);
    if (as === 'json') {
      const objects = (list: List) =>
        list.rows.map((row) => Object.fromEntries(list.fields.map((field, at) => [field, row[at]])));
      return JSON.stringify(Object.fromEntries(lists.map((list) => [list.name, objects(list)])));
    }
    return csvOf(lists[0]!, { comma: as === 'csv-comma' });
  } finally {
    db.close();
  }
}
