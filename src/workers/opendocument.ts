/** Reading OpenDocument: spreadsheets (.ods) as their sheets, texts (.odt) as one sheet of rows, within bounds. */
import { XMLParser } from 'fast-xml-parser';
import { asMark } from '../core/paperwork/raised';
import { struckOut } from '../core/sheets/struck';
import type { WorkbookSheet } from '../core/sheets/workbook';
import { MOST_BLANK, MOST_CELLS, percentOf, tooLarge, withUnit } from './workbook-bounds';

interface Element {
  name: string;
  of: Readonly<Record<string, string>>;
  inside: readonly (Element | string)[];
}

type Parsed = Record<string, unknown>;

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  trimValues: false,
  parseTagValue: false,
  ignoreDeclaration: true,
  ignorePiTags: true,
});

function elementsOf(parsed: readonly Parsed[]): (Element | string)[] {
  return parsed.map((node) => {
    if ('#text' in node) return String(node['#text']);
    const name = Object.keys(node).find((key) => key !== ':@') ?? '';
    const of = (node[':@'] ?? {}) as Record<string, string>;
    return { name, of, inside: elementsOf(node[name] as Parsed[]) };
  });
}

const isElement = (node: Element | string): node is Element => typeof node !== 'string';

function* within({ inside }: Pick<Element, 'inside'>, name: string): Generator<Element> {
  for (const one of inside.filter(isElement)) {
    if (one.name === name) yield one;
    yield* within(one, name);
  }
}

/** Names of the styles that set small and high, that strike out, and of those whose sheets are hidden. */
interface Styles {
  high: ReadonlySet<string>;
  struck: ReadonlySet<string>;
  hidden: ReadonlySet<string>;
}

function stylesOf(content: Element): Styles {
  const styles = [...within(content, 'style:style')];
  const named = (part: string, key: string, test: RegExp) =>
    new Set(
      styles
        .filter((style) => [...within(style, part)].some(({ of }) => test.test(of[key] ?? '')))
        .map(({ of }) => of['style:name'] ?? ''),
    );
  return {
    high: named('style:text-properties', 'style:text-position', /^(?:super|[1-9]\d*%)/),
    struck: named('style:text-properties', 'style:text-line-through-style', /^(?!none$)./),
    hidden: named('style:table-properties', 'table:display', /^false$/),
  };
}

/** What stands beside the words and is none of them: comments, numbers of notes, what was struck. */
const BESIDE = new Set([
  'office:annotation',
  'text:note',
  'text:tracked-changes',
  'draw:frame',
  'draw:custom-shape',
]);

/** The words of a paragraph or a cell, blanks as they are shown. */
function words(node: Element | string, styles: Styles): string {
  if (!isElement(node)) return node.replace(/\s+/g, ' ');
  const { name, of, inside } = node;
  if (BESIDE.has(name)) return '';
  const style = of['text:style-name'] ?? '';
  if (styles.struck.has(style)) return '';
  if (name === 'text:s') return ' '.repeat(Math.min(100, Number(of['text:c'] ?? 1)));
  if (name === 'text:tab' || name === 'text:line-break') return ' ';
  const text = inside.map((one) => words(one, styles)).join('');
  return name === 'text:span' && styles.high.has(style) ? asMark(text) : text;
}

const paragraphs = ({ inside }: Pick<Element, 'inside'>, styles: Styles): string =>
  inside
    .filter(isElement)
    .map((one) => words(one, styles))
    .join(' ')
    .replace(/\s+/g, ' ')
    .trim();

/** What stands behind a figure where it is shown: the unit of "12,5 g" in a cell that holds 12.5. */
const BEHIND = /\d\s*([^\d\s]+)$/;

function cellText({ of, inside }: Element, styles: Styles): string {
  const shown = paragraphs({ inside }, styles);
  const type = of['office:value-type'];
  if (type === 'date') return (of['office:date-value'] ?? shown).slice(0, 10);
  const value = Number(of['office:value'] ?? 'none');
  if (!Number.isFinite(value)) return shown;
  if (type === 'percentage') return percentOf(value);
  return type === 'float' || type === 'currency' ? withUnit(value, BEHIND.exec(shown)?.[1]) : shown;
}

const CELL_NAMES = new Set(['table:table-cell', 'table:covered-table-cell']);
const times = (text: string | undefined) => Math.max(1, Number(text ?? 1) || 1);

/** A row's cells to the last that holds something; cells that are said once for several stand as often. */
function cellsOf(row: Element, styles: Styles): string[] {
  const cells: string[] = [];
  let blank = 0;
  for (const cell of row.inside.filter(isElement)) {
    if (!CELL_NAMES.has(cell.name)) continue;
    const count = times(cell.of['table:number-columns-repeated']);
    const said = cell.name === 'table:covered-table-cell' ? '' : cellText(cell, styles);
    const text = styles.struck.has(cell.of['table:style-name'] ?? '') ? struckOut(said) : said;
    if (text === '') {
      blank += count;
      continue;
    }
    if (cells.length + blank + count > MOST_CELLS) throw tooLarge();
    cells.push(...Array<string>(blank).fill(''), ...Array<string>(count).fill(text));
    blank = 0;
  }
  return cells;
}

/** The rows of a table, also those in groups; blank ones between others are kept, so that rows are numbered as there. */
function rowsOf(table: Element, styles: Styles): string[][] {
  const rows: string[][] = [];
  let blank = 0;
  let held = 0;
  for (const row of within(table, 'table:table-row')) {
    const count = times(row.of['table:number-rows-repeated']);
    const cells = cellsOf(row, styles);
    if (cells.length === 0) {
      blank += count;
      continue;
    }
    held += cells.length * count;
    if (held > MOST_CELLS) throw tooLarge();
    for (let at = 0; at < Math.min(blank, MOST_BLANK); at++) rows.push([]);
    for (let at = 0; at < count; at++) rows.push([...cells]);
    blank = 0;
  }
  return rows;
}

/** A text's rows: a table's as they are, a paragraph a row of one cell. */
function rowsOfText(node: Element, styles: Styles): string[][] {
  return node.inside.filter(isElement).flatMap((one) => {
    if (BESIDE.has(one.name)) return [];
    if (one.name === 'table:table') return rowsOf(one, styles);
    if (one.name !== 'text:p' && one.name !== 'text:h') return rowsOfText(one, styles);
    const text = words(one, styles).trim();
    return text === '' ? [] : [[text]];
  });
}

/**
 * The sheets of an OpenDocument file by its `content.xml`; a text is one sheet without a name.
 * @throws WorkbookFault where it holds too much; any error where it is none.
 */
export function openDocumentSheets(content: string): WorkbookSheet[] {
  if ((content.match(/<table:(?:covered-)?table-cell\b/g)?.length ?? 0) > MOST_CELLS) throw tooLarge();
  const document: Element = { name: '', of: {}, inside: elementsOf(parser.parse(content) as Parsed[]) };
  const styles = stylesOf(document);
  const [text] = within(document, 'office:text');
  if (text) return [{ name: '', rows: rowsOfText(text, styles) }];
  const [book] = within(document, 'office:spreadsheet');
  if (!book) throw new Error('Neither a spreadsheet nor a text.');
  const tables = book.inside.filter(isElement).filter(({ name }) => name === 'table:table');
  return tables.map((table) => ({
    name: table.of['table:name'] ?? '',
    isHidden: styles.hidden.has(table.of['table:style-name'] ?? ''),
    rows: rowsOf(table, styles),
  }));
}
