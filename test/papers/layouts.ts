/** Papers laid out in HTML: tables and texts drawn from a seed over every way suppliers lay them out. */
import * as words from './words';
import { Draw, type Truth, type TrueRow } from './truth';

const COMMA = new Set(['de', 'fr', 'es', 'it', 'nl']);
const escape = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');

/** How one supplier writes: the same throughout a paper. */
interface Hand {
  draw: Draw;
  truth: Truth;
  comma: boolean;
  thousands: string;
}

function written({ comma }: Hand, value: number): string {
  const text = String(value);
  return comma ? text.replace('.', ',') : text;
}

function grouped({ comma, thousands }: Hand, value: number): string {
  const [whole, rest] = String(value).split('.') as [string, string?];
  const groups = whole.replace(/\B(?=(\d{3})+$)/g, thousands);
  return rest === undefined ? groups : `${groups}${comma ? ',' : '.'}${rest}`;
}

/** A way of writing a level; the head of its column says the share where it is written as one. */
type LevelStyle = 'bare' | 'percent' | 'tight' | 'fraction';

function levelText(hand: Hand, maxPct: number, style: LevelStyle): string {
  const { draw, truth } = hand;
  if (maxPct === 100)
    return draw.of(words.FREE[truth.language].filter((way) => style !== 'fraction' || !/^\d/.test(way)));
  if (maxPct === 0) return draw.of(words.FORBIDDEN[truth.language]);
  if (style === 'fraction') return written(hand, Number((maxPct / 100).toFixed(7)));
  const text = written(hand, maxPct);
  return style === 'bare' ? text : style === 'tight' ? `${text}%` : `${text} %`;
}

interface Cells {
  head: string[][];
  rows: string[][];
  align: string;
}

function table({ head, rows, align }: Cells, border: string, size: number): string {
  const line = (cells: string[], tag: string) =>
    `<tr>${cells.map((cell) => `<${tag}>${escape(cell)}</${tag}>`).join('')}</tr>`;
  return `<table class="${border} ${align}" style="font-size:${size}pt"><thead>${head
    .map((cells) => line(cells, 'th'))
    .join('')}</thead><tbody>${rows.map((cells) => line(cells, 'td')).join('')}</tbody></table>`;
}

export const CATEGORY_LAYOUTS = [
  'column',
  'columnBare',
  'described',
  'describedBare',
  'twoPairs',
  'threePairs',
  'twoPairsBare',
  'across',
  'groupedLetters',
  'groupedSlash',
  'oldBeside',
  'oneCell',
  'sentences',
] as const;
export type CategoryLayout = (typeof CATEGORY_LAYOUTS)[number];

/** Categories of equal level stand together, as in "5A, 5B". */
function merged(levels: Truth['levels'], mark: string): [string, number][] {
  const groups: [string, number][] = [];
  for (const [category, max] of levels) {
    const last = groups.at(-1);
    const sameNumber = last && parseInt(last[0], 10) === parseInt(category, 10);
    if (last && sameNumber && last[1] === max) last[0] += `${mark}${category}`;
    else groups.push([category, max]);
  }
  return groups;
}

/** The levels a layout can state: where letters stand together, they share the first one's level. */
export function statedLevels(truth: Truth, layout: CategoryLayout): Truth['levels'] {
  if (layout !== 'groupedLetters' && layout !== 'groupedSlash') return truth.levels;
  const first = new Map<number, number>();
  return truth.levels.map(([category, max]) => {
    const number = parseInt(category, 10);
    if (!first.has(number)) first.set(number, max);
    return [category, first.get(number)!];
  });
}

function chunk<T>(list: readonly T[], columns: number): T[][] {
  const rows = Math.ceil(list.length / columns);
  return Array.from({ length: rows }, (_, row) =>
    Array.from({ length: columns }, (_, column) => list[column * rows + row]).filter(
      (one) => one !== undefined,
    ),
  );
}

function categoryTable(hand: Hand, layout: CategoryLayout): string {
  const { draw, truth } = hand;
  const { language } = truth;
  const word = draw.of(words.CATEGORY[language]);
  const style: LevelStyle =
    layout === 'sentences' || layout === 'oneCell'
      ? 'percent'
      : draw.of(['bare', 'percent', 'tight', 'bare', 'fraction'] as const);
  const levelHead = draw.of(words.LEVEL_HEAD[language]) + (style === 'fraction' ? ' (1 = 100 %)' : '');
  const levels = statedLevels(truth, layout);
  const size = draw.of([8, 9, 10, 11]);
  const look = [draw.of(['lines', 'none', 'rows']), draw.of(['left', 'middle', 'right'])] as const;
  const make = (head: string[], rows: string[][]) =>
    table({ head: [head], rows, align: look[1] }, look[0], size);
  const named = (category: string) => `${word} ${category}`;
  const text = (max: number) => levelText(hand, max, style);
  const describe = () => draw.of(words.DESCRIPTIONS);
  switch (layout) {
    case 'column':
      return make(
        [word, levelHead],
        levels.map(([category, max]) => [named(category), text(max)]),
      );
    case 'columnBare':
      return make(
        [word, levelHead],
        levels.map(([category, max]) => [category, text(max)]),
      );
    case 'described':
    case 'describedBare': {
      const head = [word, draw.of(words.DESCRIPTION_HEAD[language]), levelHead];
      const first = layout === 'described' ? named : (category: string) => category;
      return make(
        head,
        levels.map(([category, max]) => [first(category), describe(), text(max)]),
      );
    }
    case 'twoPairs':
    case 'threePairs':
    case 'twoPairsBare': {
      const columns = layout === 'threePairs' ? 3 : 2;
      const first = layout === 'twoPairsBare' ? (category: string) => category : named;
      const head = Array.from({ length: columns }, () => [word, levelHead]).flat();
      return make(
        head,
        chunk(levels, columns).map((row) => row.flatMap(([category, max]) => [first(category), text(max)])),
      );
    }
    case 'across': {
      const halves = [levels.slice(0, 9), levels.slice(9)].filter((half) => half.length >= 3);
      const rest = halves.flat().length < levels.length ? [levels] : halves;
      return rest
        .map((half) =>
          make(
            half.map(([category]) => category),
            [half.map(([, max]) => text(max))],
          ),
        )
        .map((html) => `<p>${escape(word)} / ${escape(levelHead)}</p>${html}`)
        .join('');
    }
    case 'groupedLetters':
      return make(
        [word, levelHead],
        merged(levels, ', ').map(([category, max]) => [named(category), text(max)]),
      );
    case 'groupedSlash':
      return make(
        [word, levelHead],
        merged(levels, '/').map(([category, max]) => [category, text(max)]),
      );
    case 'oldBeside': {
      const old = {
        en: 'Old class',
        de: 'Alte Klasse',
        fr: 'Ancienne classe',
        es: 'Clase anterior',
        it: 'Classe precedente',
        nl: 'Oude klasse',
      }[language];
      return make(
        [old, word, levelHead],
        levels.map(([category, max]) => [
          `${draw.int(1, 11)}${draw.of(['', '.A', '.B'])}`,
          category,
          text(max),
        ]),
      );
    }
    case 'oneCell':
      return levels.map(([category, max]) => `<p>${escape(`${named(category)}: ${text(max)}`)}</p>`).join('');
    case 'sentences': {
      const nine = levels.find(([category]) => category === '9')!;
      const level = levelText(hand, nine[1], 'percent');
      const said = {
        en: `The maximum level in the finished product for ${word} 9 (bar soap) is ${level}.`,
        de: `Der Höchstgehalt im Endprodukt für ${word} 9 (Seife) beträgt ${level}.`,
        fr: `Le niveau maximal dans le produit fini pour la ${word} 9 (savon) est de ${level}.`,
        es: `El nivel máximo en el producto final para la ${word} 9 (jabón) es ${level}.`,
        it: `Il livello massimo nel prodotto finito per la ${word} 9 (sapone) è ${level}.`,
        nl: `Het maximumgehalte in het eindproduct voor ${word} 9 (zeep) is ${level}.`,
      }[language];
      return `<p>${escape(said)}</p>`;
    }
  }
}

export const ROW_LAYOUTS = [
  'nameCasShare',
  'casNameShare',
  'nameCasEcShare',
  'foundAndSpec',
  'minMax',
  'ppm',
  'mgPerKg',
  'gPer100',
  'footnotes',
  'emptyColumn',
] as const;
export type RowLayout = (typeof ROW_LAYOUTS)[number];

function shareText(hand: Hand, row: TrueRow, unit: '%' | 'ppm'): string {
  const { draw, truth } = hand;
  if (row.as === 'nd') return draw.of(words.ND[truth.language]);
  if (row.as === 'trace') return draw.of(words.TRACES[truth.language]);
  const value =
    unit === '%' ? written(hand, row.typical) : grouped(hand, Number((row.typical * 10_000).toFixed(2)));
  return row.as === 'below' ? `${draw.of(['<', '< ', 'max. '])}${value}` : value;
}

const EC = (draw: Draw) => `${draw.int(200, 299)}-${draw.int(100, 999)}-${draw.int(0, 9)}`;

/** What rows say under a layout that gives both ends. */
export function statedRow(row: TrueRow, layout: RowLayout): TrueRow {
  if ((layout !== 'foundAndSpec' && layout !== 'minMax') || row.as !== 'figure') return row;
  const step = (value: number) => Number(value.toPrecision(2));
  const [low, high] = [step(row.typical * 0.8), step(row.typical * 1.3)];
  return { ...row, low, high, typical: layout === 'minMax' ? (low + high) / 2 : row.typical };
}

function rowTable(hand: Hand, layout: RowLayout): string {
  const { draw, truth } = hand;
  const { language } = truth;
  const name = draw.of(words.NAME_HEAD[language]);
  const share = draw.of(words.SHARE_HEAD[language]);
  const cas = draw.of(['CAS', 'CAS No.', 'CAS-Nr.', 'CAS number', 'N° CAS']);
  const number = (row: TrueRow) => row.cas.join(draw.of([' / ', '; ', ', ']));
  const rows = truth.rows.map((row) => statedRow(row, layout));
  const percent = (row: TrueRow) => shareText(hand, row, '%');
  const make = (head: string[], body: string[][]) =>
    table(
      { head: [head], rows: body, align: draw.of(['left', 'middle', 'right']) },
      draw.of(['lines', 'none', 'rows']),
      draw.of([8, 9, 10]),
    );
  switch (layout) {
    case 'nameCasShare':
      return make(
        [name, cas, `${share} (%)`],
        rows.map((row) => [row.name, number(row), percent(row)]),
      );
    case 'casNameShare':
      return make(
        [cas, name, `${share} % w/w`],
        rows.map((row) => [number(row), row.name, percent(row)]),
      );
    case 'nameCasEcShare':
      return make(
        [name, cas, 'EC No.', `${share} %`],
        rows.map((row) => [row.name, number(row), EC(draw), percent(row)]),
      );
    case 'foundAndSpec':
      return make(
        [name, cas, `${draw.of(words.SPEC_HEAD[language])} %`, `${draw.of(words.FOUND_HEAD[language])} %`],
        rows.map((row) => [
          row.name,
          number(row),
          row.as === 'figure'
            ? `${written(hand, row.low)} ${draw.of(['-', '–'])} ${written(hand, row.high)}`
            : '',
          percent(row),
        ]),
      );
    case 'minMax':
      return make(
        [name, cas, 'Min. %', 'Max. %'],
        rows.map((row) =>
          row.as === 'figure'
            ? [row.name, number(row), written(hand, row.low), written(hand, row.high)]
            : [row.name, number(row), '', percent(row)],
        ),
      );
    case 'ppm':
    case 'mgPerKg':
      return make(
        [name, cas, `${share} (${layout === 'ppm' ? 'ppm' : 'mg/kg'})`],
        rows.map((row) => [row.name, number(row), shareText(hand, row, 'ppm')]),
      );
    case 'gPer100':
      return make(
        [name, cas, `${share} g/100 g`],
        rows.map((row) => [row.name, number(row), percent(row)]),
      );
    case 'footnotes':
      return `${make(
        [name, cas, `${share} (%)`],
        rows.map((row) => [`${row.name}${draw.of(['', '*', ' (1)', '**'])}`, number(row), percent(row)]),
      )}<p class="small">* (1) ${escape(draw.of(words.LAW))}</p>`;
    case 'emptyColumn':
      return make(
        [name, cas, draw.of(['Annex III', 'Note', '']), `${share} (%)`],
        rows.map((row) => [row.name, number(row), draw.of(['', 'III/67', '']), percent(row)]),
      );
  }
}

function dayText({ draw, truth }: Hand): string {
  const [year, month, date] = truth.issuedOn.split('-') as [string, string, string];
  const name = words.MONTHS[truth.language][Number(month) - 1]!;
  const day = String(Number(date));
  const long = {
    en: `${day} ${name} ${year}`,
    de: `${day}. ${name} ${year}`,
    fr: `${day} ${name} ${year}`,
    es: `${day} de ${name} de ${year}`,
    it: `${day} ${name} ${year}`,
    nl: `${day} ${name} ${year}`,
  }[truth.language];
  const local =
    truth.language === 'de' || truth.language === 'nl'
      ? `${date}.${month}.${year}`
      : `${date}/${month}/${year}`;
  return draw.of([
    long,
    long,
    local,
    `${year}-${month}-${date}`,
    ...(truth.language === 'en' ? [`${name} ${day}, ${year}`, `${date}-${name.slice(0, 3)}-${year}`] : []),
  ]);
}

function editionText({ draw, truth }: Hand): string {
  const n = truth.edition;
  const suffix = ['th', 'st', 'nd', 'rd'][n % 10 > 3 || (n > 10 && n < 14) ? 0 : n % 10];
  return draw.of(words.EDITION[truth.language]).replace('{n}', String(n)).replace('{o}', `${n}${suffix}`);
}

/** What the paper says about itself, as a list of labels, a table, or two columns. */
function head(hand: Hand, isCertificate: boolean): string {
  const { draw, truth } = hand;
  const { language } = truth;
  const title = draw.of((isCertificate ? words.CERT_TITLE : words.DECL_TITLE)[language]);
  const isLetterhead = draw.chance(0.4);
  const pairs: [string, string][] = [
    [draw.of(words.MATERIAL_LABEL[language]), truth.material],
    [draw.of(words.NUMBER_LABEL[language]), truth.number],
    [draw.of(words.DATE_LABEL[language]), dayText(hand)],
    ...(isLetterhead ? [] : [[draw.of(words.ISSUER_LABEL[language]), truth.issuer] as [string, string]]),
    ...(draw.chance(0.6) ? [[draw.of(words.FLASH[language]), `${truth.flashC} °C`] as [string, string]] : []),
    ...(truth.vanillinPct === null
      ? []
      : [['Vanillin', `${written(hand, truth.vanillinPct)} %`] as [string, string]]),
  ];
  if (draw.chance(0.3)) pairs.reverse();
  const colon = draw.of([':', '', ' :']);
  const shown = draw.of([
    () => pairs.map(([label, value]) => `<p>${escape(label)}${colon || ':'} ${escape(value)}</p>`).join(''),
    () =>
      `<table class="none">${pairs.map(([label, value]) => `<tr><td>${escape(label)}${colon}</td><td>${escape(value)}</td></tr>`).join('')}</table>`,
    () =>
      `<div class="grid">${pairs.map(([label, value]) => `<div><div class="small">${escape(label)}${colon}</div><div>${escape(value)}</div></div>`).join('')}</div>`,
  ])();
  const letterhead = isLetterhead ? `<p class="brand">${escape(truth.issuer)}</p>` : '';
  const edition = isCertificate ? `<p>${escape(editionText(hand))}</p>` : '';
  const place = draw.chance(0.5);
  return `${letterhead}<h1>${escape(title)}</h1>${place ? edition : ''}${shown}${place ? '' : edition}`;
}

const CSS = `
  @page { size: A4; margin: 18mm 16mm; }
  table { border-collapse: collapse; width: 100%; margin: 8px 0; } table.none { width: auto; }
  td, th { padding: 2px 6px; } .left td, .left th { text-align: left; } .middle td, .middle th { text-align: center; }
  .right td:last-child, .right th:last-child { text-align: right; } .right td, .right th { text-align: left; }
  .lines td, .lines th { border: 1px solid #555; } .rows tr { border-bottom: 1px solid #aaa; }
  .small { font-size: 8pt; } .brand { font-size: 15pt; } h1 { font-size: 15pt; } p { margin: 3px 0; }
  .grid { display: grid; grid-template-columns: 1fr 1fr 1fr; gap: 8px; } tr { break-inside: avoid; }
`;

export interface MadePaper {
  truth: Truth;
  html: string;
  categoryLayout: CategoryLayout | null;
  rowLayout: RowLayout | null;
}

/** The paper of a truth, as HTML; the layout is drawn from the same seed. */
export function makePaper(truth: Truth): MadePaper {
  const draw = new Draw(truth.seed ^ 0x5bd1e995);
  const comma = COMMA.has(truth.language) && draw.chance(0.8);
  const hand: Hand = { draw, truth, comma, thousands: draw.of(['', comma ? '.' : ',', ' ']) };
  const hasLevels = truth.holds !== 'declaration';
  const categoryLayout = hasLevels ? draw.of(CATEGORY_LAYOUTS) : null;
  const rowLayout = truth.holds === 'certificate' ? null : draw.of(ROW_LAYOUTS);
  const font = draw.of(['Liberation Sans, sans-serif', 'Liberation Serif, serif', 'DejaVu Sans, sans-serif']);
  const law = draw.chance(0.6) ? `<p class="small">${escape(draw.of(words.LAW))}</p>` : '';
  const html = `<!doctype html><meta charset="utf-8"><style>${CSS} body { font: ${draw.of([9, 10, 11])}pt ${font}; }</style>
    ${head(hand, hasLevels)}${categoryLayout ? categoryTable(hand, categoryLayout) : ''}${draw.chance(0.3) ? law : ''}
    ${rowLayout ? rowTable(hand, rowLayout) : ''}${law}`;
  return { truth, html, categoryLayout, rowLayout };
}
