/** The columns of a table of constituents, from its head: which holds names, numbers, findings, specifications. */
import { CAS_PATTERN, readFigure, unitIn, type FigureUnit } from './figures';
import { levelUnit } from './levels';
import {
  CAS_HEAD,
  EC_HEAD,
  FOUND_HEAD,
  IN_MATERIAL,
  NAME_HEAD,
  NOT_SHARE_HEAD,
  plainText,
  SHARE_HEAD,
  SPEC_HEAD,
} from './lexicon';
import { lineText, overlaps, spanOf, type Cell, type PaperLine, type Span } from './page';

export type ColumnKind = 'name' | 'cas' | 'ec' | 'share' | 'found' | 'spec' | 'least' | 'most' | 'other';

export interface Column extends Span {
  text: string;
  kind: ColumnKind;
  unit: FigureUnit | null;
}

const LEAST = /\bmin(?:imum|imo|\.)?\b|lower|untere/;
const MOST = /\bmax(?:imum|imo|imal|\.)?\b|upper|obere/;
const IN_PRODUCT =
  /in (?:the )?(?:product|compound)|im produkt|dans le produit|en el producto|nel prodotto|in het product/;

function kindOf(text: string): ColumnKind {
  const plain = plainText(text);
  if (CAS_HEAD.test(plain)) return 'cas';
  if (EC_HEAD.test(plain)) return 'ec';
  const isShare = SHARE_HEAD.test(plain);
  if (NOT_SHARE_HEAD.test(plain) && !IN_MATERIAL.test(plain)) return 'other';
  if (FOUND_HEAD.test(plain)) return 'found';
  if (SPEC_HEAD.test(plain)) return 'spec';
  if (LEAST.test(plain)) return 'least';
  if (MOST.test(plain)) return 'most';
  if (NAME_HEAD.test(plain) && !IN_MATERIAL.test(plain) && unitIn(plain) === null) return 'name';
  return isShare ? 'share' : 'other';
}

function isHeadCell({ text }: Cell): boolean {
  return !text.match(CAS_PATTERN) && readFigure(text, '%') === null && text.length <= 60;
}

/** Heads that run over two or three lines have their words put together by their place. */
function gathered(lines: readonly PaperLine[], index: number): Cell[] {
  const cells = lines[index]!.cells.map((cell) => ({ ...cell }));
  for (const by of [-1, 1, 2]) {
    const near = lines[index + by];
    const here = lines[index]!;
    if (
      !near ||
      near.page !== here.page ||
      Math.abs(near.yPt - here.yPt) > 1.7 * Math.abs(by) * here.heightPt
    )
      continue;
    if (!near.cells.every(isHeadCell) || near.cells.length > cells.length) continue;
    for (const cell of near.cells) {
      const own = cells.find((other) => overlaps(other, cell));
      if (own) own.text = by < 0 ? `${cell.text} ${own.text}` : `${own.text} ${cell.text}`;
    }
  }
  return cells;
}

const SHARES: readonly ColumnKind[] = ['share', 'found', 'spec', 'least', 'most'];

/** The columns a line heads; null where it is no head of a table of constituents. */
export function columnsFrom(lines: readonly PaperLine[], index: number): Column[] | null {
  const line = lines[index]!;
  if (line.cells.length < 2 || !line.cells.every(isHeadCell)) return null;
  const first = line.cells.map(({ text }) => kindOf(text));
  const heads = first.filter((kind) => kind === 'cas' || kind === 'name').length;
  if (heads === 0 || !first.some((kind) => kind === 'cas' || SHARES.includes(kind))) return null;
  const columns = gathered(lines, index).map((cell): Column => ({
    ...spanOf(cell),
    text: cell.text,
    kind: kindOf(cell.text),
    unit: levelUnit(cell.text),
  }));
  if (!columns.some(({ kind }) => kind === 'cas') && !columns.some(({ kind }) => SHARES.includes(kind)))
    return null;
  const inMaterial = [IN_MATERIAL, IN_PRODUCT]
    .map((pattern) => columns.find(({ text, kind }) => kind === 'share' && pattern.test(plainText(text))))
    .find((column) => column !== undefined);
  const isLone = inMaterial && columns.filter(({ kind }) => kind === 'share').length > 1;
  return isLone
    ? columns.map((column) =>
        column.kind === 'share' && column !== inMaterial ? { ...column, kind: 'other' } : column,
      )
    : columns;
}

/** The unit the figures of a table are in, where a head or a line near it says so. */
export function unitOf(
  columns: readonly Column[],
  lines: readonly PaperLine[],
  index: number,
): FigureUnit | null {
  const own = columns.find(({ kind, unit }) => SHARES.includes(kind) && unit !== null)?.unit;
  if (own) return own;
  for (const by of [0, -1, -2, 1]) {
    const near = lines[index + by];
    const unit = near && !lineText(near).match(CAS_PATTERN) ? unitIn(lineText(near)) : null;
    if (unit) return unit;
  }
  return null;
}
