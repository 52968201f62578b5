/**
 * The whole rulebook and library as one document to be read over by a chemist in an evening: every figure with its source,
 * its standing and the day it was read. HTML that prints; nothing in it runs.
 */
import type { Limit, Subject } from '../core/formula/types';
import type { Rulebook } from '../rulebook/types';
import type { LibraryMaterial } from './types';

const ESCAPED: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** What a cell may say; nothing is left empty. */
type Said = string | number | false | null | undefined;

const text = (value: Said): string =>
  String(value === false ? '' : (value ?? '')).replace(/[&<>"]/g, (letter) => ESCAPED[letter]!);
const number = (value: number) => String(Number(value.toPrecision(6)));
const percent = (value: number) => `${number(value)} %`;

const STYLE = `body{font:11pt/1.35 serif;max-width:62rem;margin:2rem auto;padding:0 1rem}h1{font-size:1.7rem}h2{margin-top:2.2rem;border-bottom:2px solid}
h3{margin:1.4rem 0 .2rem}table{border-collapse:collapse;width:100%;font-size:.86em}th,td{text-align:left;vertical-align:top;padding:.15rem .5rem .15rem 0;border-bottom:1px solid #ccc}
thead{display:table-header-group}tr,h3{break-inside:avoid}.open{font-weight:bold}@media print{body{margin:0;max-width:none}}`;

function table(heads: readonly string[], rows: readonly (readonly Said[])[]): string {
  if (rows.length === 0) return '<p>None.</p>';
  const row = (cells: readonly Said[]) =>
    `<tr>${cells.map((cell) => `<td>${text(cell)}</td>`).join('')}</tr>`;
  return `<table><thead><tr>${heads.map((head) => `<th>${text(head)}</th>`).join('')}</tr></thead><tbody>${rows.map(row).join('')}</tbody></table>`;
}

const subject = ({ type, id }: Subject) => `${id} (${type})`;
/** Kinds and materials as a limit speaks of them: how much of what, of which mass, from when to when. */
const most = ({ maxPct, basis }: Pick<Limit, 'maxPct' | 'basis'>) => `${percent(maxPct)} of ${basis}`;
const days = ({ from, to }: { from?: string | null; to?: string | null }) =>
  [from && `from ${from}`, to && `to ${to}`].filter(Boolean).join(' ');
const markets = (all: readonly string[] | null | undefined) => (all ? all.join(', ') : 'all');

function rules(book: Rulebook): string {
  const limits = book.limits.map((limit) => [
    ...[limit.id, subject(limit.subject), most(limit), markets(limit.markets), limit.force, days(limit)],
    ...[limit.source, limit.standing, limit.asOf, limit.note],
  ]);
  const craft = book.craft.map((limit) => [
    ...[limit.id, subject(limit.subject), limit.usualPct?.map(percent).join(' to '), most(limit)],
    ...[limit.note, limit.source, limit.asOf],
  ]);
  const demands = book.demands.map(({ id, subject: of, abovePct, basis, wants, reason }) => [
    ...[id, `${of.id} (${of.type})`, `above ${percent(abovePct)} of ${basis}`],
    ...[JSON.stringify(wants), reason],
  ]);
  return [
    '<h2>Limits</h2>',
    table(
      ['id', 'of', 'at most', 'markets', 'force', 'days', 'source', 'standing', 'read on', 'note'],
      limits,
    ),
    '<h2>What makers advise</h2>',
    table(['id', 'of', 'usual', 'at most', 'why', 'source', 'read on'], craft),
    '<h3>What one load asks of the rest</h3>',
    table(['id', 'of', 'where', 'wants', 'why'], demands),
  ].join('\n');
}

function lists(book: Rulebook): string {
  const dates = book.allergenLists.map(
    ({ market, list, thresholdPct, newFrom, allFrom, per = 'product', ...by }) => [
      ...[market, list, percent(thresholdPct), newFrom, allFrom, per, by.source, by.standing, by.asOf],
    ],
  );
  const names = book.allergens.map(({ id, name, cas, alsoCas, list, kind }) => [
    ...[id, name, [cas, ...alsoCas].join(', '), list, kind],
  ]);
  const colours = book.colours.map(({ name, english, permitted, standing, note, alsoNamed }) => [
    ...[name, english, alsoNamed?.join(', ')],
    Object.entries(permitted)
      .map(([market, isIn]) => `${market} ${isIn ? 'in' : 'not in'}`)
      .join(', '),
    ...[standing && JSON.stringify(standing), note],
  ]);
  const { source, standing, asOf } = book.colourSource;
  return [
    '<h2>Allergens to be named</h2>',
    table(['market', 'list', 'above', 'new from', 'all from', 'per', 'source', 'standing', 'read on'], dates),
    table(['id', 'name', 'CAS', 'list', 'kind'], names),
    `<h2>Colours</h2><p>${text(source)}; ${text(standing)}, read on ${text(asOf)}</p>`,
    table(['name', 'English', 'also', 'markets', 'standing', 'note'], colours),
    '<h2>Peroxides</h2>',
    table(
      ['id', 'plants', 'constituents', 'at most mmol/l', 'markets', 'source', 'standing', 'read on'],
      book.peroxides.map((rule) => [
        ...[rule.id, rule.genera.join(', '), rule.constituents.join(', '), rule.mostMmolPerL],
        ...[rule.markets.join(', '), rule.source, rule.standing, rule.asOf],
      ]),
    ),
    '<h2>What only a paper can show</h2>',
    table(
      ['id', 'of', 'asks', 'most', 'markets', 'source', 'standing', 'read on'],
      book.conditions.map((one) => [
        ...[one.id, subject(one.of), one.asks, one.most === undefined ? '' : `${one.most} ${one.unit ?? ''}`],
        ...[one.markets.join(', '), one.source, one.standing, one.asOf],
      ]),
    ),
  ].join('\n');
}

function material(one: LibraryMaterial): string {
  const { saponification, saponificationValue: value, provenance } = one;
  const facts: readonly (readonly [string, Said])[] = [
    ['also called', one.alsoNamed?.join(', ')],
    ['numbers', one.numbers?.join(', ')],
    [
      'ingredient names',
      one.inci
        ?.map(({ name, sharePct, role }) => `${name} ${percent(sharePct)}${role ? ` (${role})` : ''}`)
        .join('; '),
    ],
    [
      'NaOH a gram',
      saponification &&
        `${number(saponification.naohPerGram)} g, forms ${saponification.formedInci ?? 'nothing named'}`,
    ],
    [
      'saponification value',
      value && `${value.lowMgKoh} to ${value.highMgKoh}, usually ${value.typicalMgKoh} mg KOH/g`,
    ],
    [
      'fatty acids',
      one.fattyAcids &&
        Object.entries(one.fattyAcids)
          .map(([acid, pct]) => `${acid} ${pct}`)
          .join(', '),
    ],
    [
      'water, fat',
      [one.waterPct, one.fatPct]
        .map((pct) => (pct == null ? '' : percent(pct)))
        .filter(Boolean)
        .join(', '),
    ],
    ['alkali taken up', one.alkaliUptake && `${number(one.alkaliUptake)} g a gram`],
    ['g/mL in batter, spooned', [one.density, one.bulkDensity].map((it) => it ?? '–').join(', ')],
    ['keeps', one.keepingMonths && `${one.keepingMonths} months`],
    ['cautions', one.cautions?.join(' ')],
  ];
  const shares = one.constituents ?? [];
  return [
    `<h3 id="${text(one.id)}">${text(one.name)}</h3>`,
    `<p>${text(one.kind)}, ${text(one.shelf)}. ${text(provenance.source)}; ${text(provenance.standing)}, read on ${text(provenance.asOf)}</p>`,
    table(
      ['', ''],
      facts.filter(([, said]) => said !== undefined && said !== null && said !== '' && said !== '–, –'),
    ),
    shares.length === 0
      ? ''
      : table(
          ['constituent', 'low %', 'typical %', 'high %'],
          shares.map(({ id, lowPct, typicalPct, highPct }) => [
            id,
            number(lowPct),
            number(typicalPct),
            number(highPct),
          ]),
        ),
  ].join('\n');
}

/** The document, as HTML in UTF-8. `printedOn` is the day on its title, YYYY-MM-DD. */
export function printed(book: Rulebook, materials: readonly LibraryMaterial[], printedOn: string): string {
  const byShelf = [...new Set(materials.map(({ shelf }) => shelf))];
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Rulebook ${text(book.edition)} and library</title><style>${STYLE}</style></head><body>
<h1>Rulebook ${text(book.edition)} (${text(book.dated)}) and library</h1>
<p>${text(book.title)}. Printed ${text(printedOn)}. Standing: <b>published</b> was read in the source that is named; <b>typical</b> is usual in the trade and to be confirmed; <b>craft</b> is what makers advise.
A figure that reads otherwise where you look: say its id, what stands there, where you read it and of which date. This does not replace a qualified assessor.</p>
<p>${book.limits.length} limits, ${book.craft.length} pieces of advice, ${book.allergens.length} allergens, ${book.colours.length} colours, ${materials.length} materials. Scents are held against ${text(book.scentStandard.name)}, category ${text(book.scentStandard.category)}, ${text(book.scentStandard.newestEdition)}: ${text(book.scentStandard.source)}.</p>
${rules(book)}
${lists(book)}
<h2>Materials</h2>
${byShelf
  .map(
    (shelf) =>
      `<h2>${text(shelf)}</h2>${materials
        .filter((one) => one.shelf === shelf)
        .map(material)
        .join('\n')}`,
  )
  .join('\n')}
</body></html>
`;
}
