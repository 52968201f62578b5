/** What a row of a recipe says of the whole batch besides lye, superfat and liquid: purity, cure, margin, process, bars. Pure. */
import { folded } from '../folded';
import type { Formula, Portion } from '../formula/types';
import { readCell, type SheetAmount, type SheetUnit } from './amounts';
import type { SheetLine } from './cells';

type Says =
  'purity' | 'waterLeft' | 'massRatio' | 'margin' | 'bars' | 'process' | 'usedOn' | 'naming' | 'portion';

const ROWS: readonly (readonly [Says, RegExp])[] = [
  [
    'purity',
    /^(?:(?:lye|naoh|caustic(?: soda)?|sodium hydroxide|alkali) purity|purity(?: of (?:the )?(?:lye|naoh|alkali|sodium hydroxide))?|(?:naoh )?reinheit|purete(?: (?:de la )?soude)?|pureza)$/,
  ],
  ['waterLeft', /^(?:water left|residual water|water left after the cure|restwasser|eau residuelle)$/],
  ['massRatio', /^(?:cured to|cured mass|cured weight)$/],
  ['margin', /^(?:safety )?margin$/],
  ['bars', /^(?:bars (?:a|per) batch|number of bars|bars)$/],
  ['process', /^(?:process|verfahren|procede|metodo|proceso)$/],
  ['usedOn', /^used on$/],
  ['naming', /^scent named$/],
  ['portion', /^share of portion \S/],
];

/** What the row says of the batch, by its name; undefined where it is an ingredient, the lye or the liquid. */
const saysOf = (name: string): Says | undefined =>
  ROWS.find(([, pattern]) => pattern.test(folded(name)))?.[0];

/** Whether a row of that name says something of the batch. */
export const isOfBatch = (name: string): boolean => saysOf(name) !== undefined;

const WORDS: Partial<Record<Says, readonly (readonly [string, RegExp])[]>> = {
  process: [
    ['hot', /^(?:hot|hp\b|cooked|heiss|chaud|caliente|caldo)/],
    ['cold', /^(?:cold|cp\b|kalt|froid|frio|freddo)/],
  ],
  usedOn: ['body', 'face', 'hands'].map((part) => [part, new RegExp(`^${part}$`)] as const),
  naming: [
    ['parfum', /^(?:parfum|as parfum)$/],
    ['named', /^(?:named|by its parts)$/],
  ],
};

const wordIn = (says: Says, cell: string) => WORDS[says]?.find(([, word]) => word.test(folded(cell)))?.[0];

/** What a number is of that has no unit, and what a word is taken for. */
const AS_IT_IS = ':1';
const COUNT = /^(\d{1,5})(?: bars?)?$/i;

/**
 * The amount of a row that says something of the batch: percents as percents, whatever the column is in; a count or a word
 * as a plain number. Undefined where the row says nothing of the batch.
 *
 * @example amountOfBatch('Lye purity', '0.97', null) // { value: 97, unit: '%' }
 */
export function amountOfBatch(
  name: string,
  cell: string,
  unit: SheetUnit | null,
): SheetAmount | null | { error: string } | undefined {
  const says = saysOf(name);
  if (says === undefined) return undefined;
  if (cell.trim() === '') return null;
  if (says === 'bars') {
    const [, count] = COUNT.exec(cell.trim()) ?? [];
    return count ? { value: Number(count), unit: AS_IT_IS } : { error: `“${cell}” is no number of bars.` };
  }
  if (WORDS[says]) {
    const known = WORDS[says].map(([word]) => word).join(' or ');
    return wordIn(says, cell)
      ? { value: 1, unit: AS_IT_IS }
      : { error: `${name}: “${cell}” is not understood. Say ${known}.` };
  }
  const read = readCell(cell, '%');
  if (read === null || 'error' in read) return read;
  if (read.unit !== '%') return { error: `${name}: “${cell}” is no percent.` };
  // "0.97" is 97 %, as a sheet keeps its percents.
  const isFraction = read.value <= 1 && unit !== '%' && !cell.includes('%');
  return isFraction ? { ...read, value: 100 * read.value } : read;
}

/** What rows say of a batch; what none says is left out. */
export type OfBatch = Pick<Formula, 'process' | 'bars' | 'usedOn' | 'scentNaming' | 'cure' | 'marginPct'> & {
  purityPct?: number;
  portions?: Portion[];
};

/**
 * All that the rows of a bar say of its batch.
 *
 * @example
 * ofBatch(bar.lines); // { process: 'hot', purityPct: 97, marginPct: 5 }
 */
export function ofBatch(lines: readonly SheetLine[]): OfBatch {
  const found: OfBatch = {};
  for (const { name, amount, said } of lines) {
    const says = saysOf(name);
    const { value } = amount;
    if (says === 'purity') found.purityPct = value;
    if (says === 'waterLeft') found.cure = { ...found.cure, residualWaterPct: value };
    if (says === 'massRatio') found.cure = { ...found.cure, massRatio: value / 100 };
    if (says === 'margin') found.marginPct = value;
    if (says === 'bars') found.bars = value;
    if (says === 'process') found.process = wordIn(says, said) as OfBatch['process'];
    if (says === 'usedOn') found.usedOn = wordIn(says, said) as OfBatch['usedOn'];
    if (says === 'naming') found.scentNaming = wordIn(says, said) as OfBatch['scentNaming'];
    if (says === 'portion')
      (found.portions ??= []).push({
        id: name.replace(/^share of portion\s+/i, '').trim(),
        share: value / 100,
      });
  }
  return found;
}

type Row = readonly [ingredient: string, amount: number | string, unit: string];

/** What a formula says of its batch, as rows that are read again as they were. */
export function rowsOfBatch({
  process,
  bars,
  usedOn,
  scentNaming,
  cure,
  marginPct,
  alkali,
  portions,
}: Formula): Row[] {
  const rows: (Row | false)[] = [
    alkali.purityPct != null && ['Lye purity', alkali.purityPct, '%'],
    cure?.residualWaterPct != null && ['Water left', cure.residualWaterPct, '%'],
    cure?.massRatio != null && ['Cured to', 100 * cure.massRatio, '%'],
    marginPct != null && ['Margin', marginPct, '%'],
    process !== undefined && ['Process', process, ''],
    bars != null && ['Bars a batch', bars, ''],
    usedOn != null && ['Used on', usedOn, ''],
    scentNaming != null && ['Scent named', scentNaming, ''],
    ...(portions ?? []).map(({ id, share }): Row => [`Share of portion ${id}`, 100 * share, '%']),
  ];
  return rows.filter((row) => row !== false);
}
