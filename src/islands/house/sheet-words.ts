/** What is said of sheets that are brought in. */
import type { Layout, Role, SheetColumns, SheetKind } from '../../core/sheets/cells';
import type { PointedRole } from '../../core/sheets/sheet-lessons';
import type { WorkbookPart } from '../../core/sheets/workbook';

export const KIND_WORDS: Record<SheetKind, string> = {
  list: 'a row an ingredient, the bar beside it',
  blocks: 'a bar’s name, its ingredients below',
  rows: 'a row a bar, a column an ingredient',
  columns: 'a column a bar, a row an ingredient',
  single: 'one bar alone',
};

export const COLUMN_WORDS: Record<keyof SheetColumns, string> = {
  bar: 'The bar',
  what: 'Ingredient',
  amount: 'Amount',
  unit: 'Unit',
  note: 'Note',
  stage: 'Goes in',
  portion: 'Portion',
  weighed: 'Weighed',
  larger: 'Larger unit beside it',
};

export const ROLE_WORDS: Record<Exclude<Role, 'material'>, string> = {
  lye: 'the lye, as weighed',
  lyeSolution: 'lye and water together',
  superfat: 'the superfat',
  fats: 'the fats of a batch',
  potash: 'potassium hydroxide',
  liquid: 'the liquid',
  batch: 'of the batch',
};

export const POINTED_WORDS: Record<PointedRole, string> = {
  material: 'an ingredient',
  lye: ROLE_WORDS.lye,
  superfat: ROLE_WORDS.superfat,
  fats: ROLE_WORDS.fats,
  out: 'no part of the bar',
};

export const HOLDS_WORDS: Record<WorkbookPart['holds'], string> = {
  bars: 'bars',
  stock: 'materials and lots',
  nothing: 'nothing that is read',
};

/** Whether bars and ingredients stand along both sides, so that no column is one of either. */
export const isAcross = ({ kind }: Layout): boolean => kind === 'rows' || kind === 'columns';
