/** How a maker's list of materials is laid out: which column says what, in which units and in which order days. Pure. */
import { folded } from '../folded';
import type { Kind } from '../formula/types';
import type { DecimalMark } from '../quantities/number';
import { unitIn, type SheetUnit } from './amounts';
import type { DayOrder } from '../paperwork/dates';
import { dayOrderOf, readDay } from './days';

export const STOCK_COLUMNS = [
  'what',
  'kind',
  'inci',
  'sap',
  'supplier',
  'code',
  'bought',
  'count',
  'unit',
  'left',
  'price',
  'received',
  'opened',
  'bestBefore',
] as const;
export type StockColumn = (typeof STOCK_COLUMNS)[number];

/** What a price is of: all that was bought, or so much of it. */
export const PRICE_OF = ['all', 'kg', '100 g', 'lb', 'oz'] as const;
export type PriceOf = (typeof PRICE_OF)[number];
export interface StockLayout {
  /** The row of heads; -1 where there is none. */
  head: number;
  columns: Record<StockColumn, number | null>;
  /** What bare numbers are in; null where it is still to be said. */
  unit: SheetUnit | null;
  priceOf: PriceOf;
  /** Null where nothing tells; the day is then taken to stand first. */
  days: DayOrder | null;
  mark: DecimalMark;
}

/** Heads by what they say, the narrower before the wider; null for what is passed over. */
const HEADS: readonly (readonly [StockColumn | null, RegExp])[] = [
  [null, /^(?:item|article|product|artikel)?\s*(?:#|no\.?|nr\.?|number|id|sku)$/],
  ['inci', /\binci\b|botanical name|latin/],
  ['sap', /\bsap\b|saponification|\bsv\b|verseif/],
  [
    'bestBefore',
    /best (?:before|by)|\bbbe?\b|\bbbd\b|expir|\bexp\b|use by|\bmhd\b|haltbar|dluo|ddm|peremption|scadenza|caduc|houdbaar|shelf life/,
  ],
  ['bought', /opening (?:stock|balance|qty|quantity)/],
  ['opened', /open|geoffnet|anbruch|ouvert|apert|abiert/],
  [
    'received',
    /bought on|received|^purchased$|^bought$|purchase (?:date|d)|date|arriv|came|order(?:ed)? on|geliefert|gekauft|kaufdatum|achat|recu|acquist|compra|gekocht/,
  ],
  [
    'left',
    /left|remain|on hand|in stock|stock|current|have|vorrat|bestand|rest|reste|rimast|giacenz|queda|existencia|voorraad/,
  ],
  ['price', /price|cost|paid|preis|kosten|prix|cout|prezzo|costo|precio|coste|prijs|[€$£]/],
  ['code', /\blot\b|batch|charge|\blotto\b|\blote\b|partij|\bref\b|code/],
  [
    'supplier',
    /supplier|vendor|source|from|lieferant|fournisseur|fornitore|proveedor|leverancier|\bshop\b|bought (?:from|at)/,
  ],
  ['unit', /\b(?:units?|uom|einheit|unite|unita|unidad|eenheid)\b/],
  ['kind', /^(?:kind|type|category|group|art|typ|kategorie|categorie|categoria|soort)\b/],
  [
    'count',
    /^(?:(?:no\.? of|number of) )?(?:bottles?|packs|packages|pieces?|pcs|jars?|tubs?|count|anzahl|stuck(?:zahl)?|flaschen|packungen|nombre de [a-z]+|bouteilles|flacons|pezzi|unidades|aantal|stuks)$/,
  ],
  [
    'bought',
    /amount|\bamt\b|quantity|\bqty\b|weight|size|bought|menge|gewicht|quantite|poids|quantita|peso|cantidad|hoeveelheid|grams?|ounces?|gebinde|contenance|inhalt|\bpack\b/,
  ],
  [
    'what',
    /material|ingredient|chemical|substance|item|name|product|what|description|rohstoff|zutat|artikel|matiere|produit|materia|ingrediente|prodotto|producto|grondstof/,
  ],
];
const PRICE_HEADS: readonly (readonly [PriceOf, RegExp])[] = [
  ['100 g', /(?:per|\/|je|pro|par)\s*100\s*g/],
  ['kg', /(?:per|\/|je|pro|par|al)\s*(?:kg|kilo)/],
  ['lb', /(?:per|\/)\s*(?:lb|pound)/],
  ['oz', /(?:per|\/)\s*(?:oz|ounce)/],
];
/** What words say a price is of: "€/kg", "per lb". */
export const priceOfIn = (words: string): PriceOf | null =>
  PRICE_HEADS.find(([, pattern]) => pattern.test(folded(words)))?.[0] ?? null;

/** What makers call kinds of things. */
const KIND_NAMES: readonly (readonly [Kind, RegExp])[] = [
  ['essentialOil', /essential|\beos?\b|atherisch|huiles? essentielle|olii essenziali|aceites? esencial/],
  ['fragrance', /fragrance|\bfos?\b|perfume|parfum|duft|profum/],
  ['wax', /\bwax|wachs|cire|cera/],
  ['clay', /\bclays?\b|tonerde|argile|argill|arcill/],
  ['colourant', /colou?r|mica|pigment|oxide|dye|farb|ocra/],
  ['exfoliant', /exfoli|scrub|peeling/],
  ['botanical', /botanical|herb|flower|petal|krauter|plante/],
  ['salt', /\bsalts?\b|salz|\bsels?\b|sale\b/],
  ['sugar', /sugar|zucker|sucre|zucchero|honey/],
  ['milk', /\bmilks?\b|milch|lait|latte|leche/],
  ['fat', /\boils?\b|butter|fats?\b|\bole?\b|fette|huile|beurre|\bolio|\bolii|burro|aceite|manteca|olien/],
  ['alkali', /\blye\b|alkali|hydroxide|lauge/],
  ['liquid', /liquid|water|flussig|liquide/],
  ['acid', /\bacids?\b|saure/],
  ['other', /additive|other|misc|zusatz|autre|altro|otro/],
];

/**
 * The kind that words name; null where they name none.
 *
 * @example kindIn('Essential oils') // 'essentialOil'
 */
export function kindIn(text: string): Kind | null {
  const words = folded(text);
  return KIND_NAMES.find(([, pattern]) => pattern.test(words))?.[0] ?? null;
}

/** Words beside a kind in a heading. */
const BESIDE_KIND =
  /\b(?:carrier|base|fixed|liquid|raw|hard|soft|and|und|et|e|y|other|powders?|materials?|my|the)\b/g;

/** Whether words name a kind of thing and nothing of that kind: "Oils & butters", not "Rose petals". */
export function isHeading(text: string): boolean {
  let rest = folded(text);
  if (kindIn(rest) === null) return false;
  for (const [, pattern] of KIND_NAMES)
    rest = rest.replace(new RegExp(`(?:${pattern.source})[a-z]*`, 'g'), ' ');
  return !/[a-z]{2}/.test(rest.replace(BESIDE_KIND, ' '));
}

export const filled = (row: readonly string[]) => row.filter((cell) => cell.trim() !== '').length;
const noColumns = () =>
  Object.fromEntries(STOCK_COLUMNS.map((column) => [column, null])) as Record<StockColumn, number | null>;

function columnsOf(row: readonly string[]): Record<StockColumn, number | null> {
  const columns = noColumns();
  row.forEach((cell, at) => {
    const words = folded(cell);
    if (words === '') return;
    const found = HEADS.find(
      ([column, pattern]) => (column === null || columns[column] === null) && pattern.test(words),
    );
    if (found?.[0]) columns[found[0]] = at;
  });
  // "Oil" above the first column names what it is no less.
  const first = row.findIndex((cell) => cell.trim() !== '');
  if (columns.what === null && first >= 0 && !Object.values(columns).includes(first)) columns.what = first;
  return columns;
}

/** The mark before decimals, by numbers that can only be read one way. */
function markOf(cells: readonly string[]): DecimalMark {
  for (const cell of cells) {
    const both = /\d([.,])\d{3}([.,])\d/.exec(cell);
    if (both && both[1] !== both[2]) return both[2] as DecimalMark;
    const alone = /\d([.,])(\d+)(?!\d)/.exec(cell);
    if (alone && alone[2]!.length !== 3) return alone[1] as DecimalMark;
  }
  return null;
}

/** The unit that a head says in brackets or at its end: "Left (kg)", "Rest g". */
export const headUnit = (cell: string): SheetUnit | null =>
  unitIn(/[([]([^)\]]+)[)\]]/.exec(cell)?.[1] ?? /(?:^|[,\s])(\p{L}+)\s*$/u.exec(cell)?.[1] ?? cell);

export function cellAt(row: readonly string[], column: number | null): string {
  return column === null ? '' : (row[column] ?? '').trim();
}

/** What stands in a column. */
const cellsIn = (rows: readonly (readonly string[])[], column: number): string[] =>
  rows.map((row) => cellAt(row, column)).filter(Boolean);

/** "Bought" may head days or amounts: what stands below it tells. */
function boughtOrWhen(
  columns: Record<StockColumn, number | null>,
  heads: readonly string[],
  below: readonly (readonly string[])[],
): Record<StockColumn, number | null> {
  const { received, bought } = columns;
  if (received === null || bought !== null) return columns;
  const cells = cellsIn(below, received);
  const isDay = (cell: string) => typeof readDay(cell, 'dayFirst', 'first') === 'string';
  if (cells.length === 0 || cells.some(isDay)) return columns;
  // The day may stand in another column: "Bought" and "Came on".
  return { ...columnsOf(heads.map((head, at) => (at === received ? '' : head))), bought: received };
}

const SIZE_HEAD = /\bsize\b|gebinde|contenance|formato|\binhalt\b|tamano|inhoud|\bpack\b/;
const isWhole = (cell: string) => /^\d{1,3}$/.test(cell);

/** Words that an amount is said with: "3.2 kg". */
const SAID = /^[\d.,\s]+(?:g|gr|kg|oz|lbs?|ml|cl|l|lit(?:er|re|ri)s?)\.?$/i;

/** Columns of a list without heads: names first, the one with amounts, and the one beside it with codes of lots. */
function columnsByCells(
  rows: readonly (readonly string[])[],
): Pick<Record<StockColumn, number | null>, 'what' | 'bought' | 'code'> {
  const columns = [...Array(Math.max(0, ...rows.map(({ length }) => length))).keys()];
  const isMostly = (at: number, test: (cell: string) => boolean) => {
    const cells = cellsIn(rows, at);
    return cells.length > 0 && cells.filter(test).length > cells.length / 2;
  };
  const bought = columns.find((at) => at > 0 && isMostly(at, (cell) => SAID.test(cell))) ?? null;
  const isCode = (cell: string) => /\d/.test(cell) && !SAID.test(cell) && !/^[\d.,]+$/.test(cell);
  const isDay = (cell: string) => typeof readDay(cell, 'dayFirst', 'first') === 'string';
  const codes = columns.filter(
    (at) => at > 0 && at !== bought && isMostly(at, (cell) => isCode(cell) && !isDay(cell)),
  );
  return { what: 0, bought, code: bought !== null && codes.length === 1 ? codes[0]! : null };
}

/** A quantity that counts packs of a size beside it: "Quantity 3, size 100 ml". */
function countedBy(
  columns: Record<StockColumn, number | null>,
  heads: readonly string[],
  below: readonly (readonly string[])[],
): Record<StockColumn, number | null> {
  const { bought, count } = columns;
  const isTaken = (at: number) => Object.values(columns).includes(at);
  const size = heads.findIndex((head, at) => SIZE_HEAD.test(folded(head)) && !isTaken(at));
  if (bought === null || count !== null || size < 0) return columns;
  const isCounted =
    cellsIn(below, bought).every(isWhole) && cellsIn(below, size).some((cell) => /\d\s*\p{L}/u.test(cell));
  return isCounted ? { ...columns, bought: size, count: bought } : columns;
}

/** How a list of materials is most likely laid out; the maker may say otherwise. */
export function guessStock(rows: readonly (readonly string[])[]): StockLayout {
  let head = -1;
  let columns = noColumns();
  let best = 1;
  rows.slice(0, 15).forEach((row, at) => {
    const found = columnsOf(row);
    const score = Object.values(found).filter((one) => one !== null).length;
    if (found.what === null || score <= best) return;
    [head, columns, best] = [at, found, score];
  });
  if (head < 0) columns = { ...columns, ...columnsByCells(rows) };
  const heads = rows[head] ?? [];
  columns = countedBy(boughtOrWhen(columns, heads, rows.slice(head + 1)), heads, rows.slice(head + 1));
  const cellsOf = (...of: StockColumn[]) =>
    of.flatMap((column) => rows.slice(head + 1).map((row) => cellAt(row, columns[column])));
  const price = columns.price === null ? '' : (heads[columns.price] ?? '');
  const unitOf = (column: number | null) => (column === null ? null : headUnit(heads[column] ?? ''));
  return {
    head,
    columns,
    unit: unitOf(columns.bought) ?? unitOf(columns.left),
    priceOf: priceOfIn(price) ?? 'all',
    days: dayOrderOf(cellsOf('received', 'opened', 'bestBefore')),
    mark: markOf(cellsOf('price', 'bought', 'left')),
  };
}

/** A head that no recipe has above its amounts. */
const STORED = /\b(?:on hand|in stock|stock|vorrat|bestand|en stock|giacenz\w*|existencias?|voorraad)\b/;

/** Whether a sheet rather lists what stands in a cupboard than what goes into bars. */
export function isStock(rows: readonly (readonly string[])[]): boolean {
  const { head, columns } = guessStock(rows);
  const telling = ['supplier', 'code', 'price', 'received', 'opened', 'bestBefore', 'left', 'count'] as const;
  const isStored = STORED.test(folded(cellAt(rows[head] ?? [], columns.left)));
  return isStored || telling.filter((column) => columns[column] !== null).length >= 2;
}
