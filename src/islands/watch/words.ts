/** Words of the watch. */
import type { Effect, Hands, Stand } from '../../core/change/types';
import { spoken } from '../../core/spoken';
import { VERDICT_WORDS } from '../../ui/words';

export const WHAT_WORDS: Record<Effect['what'], string> = {
  bar: 'Bar',
  version: 'Kept version',
  batch: 'Batch',
  issued: 'Issued label',
};

const one = (value: number) => Number(value.toFixed(1));

/** How something stands, in a few words: the verdict and the room that is left. */
export function standWords(stand: Pick<Stand, 'verdict' | 'headroomPct'> | null): string {
  if (!stand) return 'not sold, or does not reckon';
  const { headroomPct } = stand;
  const room =
    headroomPct === null
      ? ''
      : headroomPct < 0
        ? `, ${one(-headroomPct)} % past`
        : `, ${one(headroomPct)} % room`;
  return `${VERDICT_WORDS[stand.verdict]}${room}`;
}

/** What of the label reads differently, in words; empty where it reads the same. */
export function labelWords(before: Stand | null, after: Stand | null): string {
  if (!before || !after) return '';
  const added = after.declares.filter((id) => !before.declares.includes(id));
  const gone = before.declares.filter((id) => !after.declares.includes(id));
  const list = before.listAdded !== after.listAdded || before.listFormed !== after.listFormed;
  return [
    added.length > 0 ? `names ${added.map(spoken).join(', ')}` : '',
    gone.length > 0 ? `no longer names ${gone.map(spoken).join(', ')}` : '',
    list && added.length + gone.length === 0 ? 'another order or other names in the list' : '',
  ]
    .filter(Boolean)
    .join('; ');
}

/** Bars it speaks of: "28 curing, 41 in stock, 63 sold (5 buyers known)". */
export function handsWords({ curing, inStock, sold, buyers }: Hands): string {
  const to = buyers > 0 ? ` (${buyers === 1 ? 'one buyer' : `${buyers} buyers`} known)` : '';
  const parts = [
    curing > 0 ? `${curing} curing` : '',
    inStock > 0 ? `${inStock} in stock` : '',
    sold > 0 ? `${sold} sold${to}` : '',
  ].filter(Boolean);
  return parts.join(', ') || 'none';
}

/** Where a row leads. */
export function hrefOf({ what, id, product }: Effect): string {
  if (what === 'batch') return `/rack/${id}`;
  return what === 'issued' ? `/wrap/${product}` : `/bars/${product}`;
}

/** A change in one sentence for the maker: "Night Mail would go from Tight to Over". */
export function worstWords(effects: readonly Effect[]): string {
  const worst = effects.find(({ worse }) => worse);
  if (!worst) return effects.length === 0 ? 'Nothing is touched.' : 'Nothing gets worse.';
  const { name, market, before, after, hands } = worst;
  return `Worst: ${name} in ${market}, from ${standWords(before)} to ${standWords(after)}; bars: ${handsWords(hands)}.`;
}

/** A text that a spreadsheet takes as text, never as a formula. */
const safe = (text: string) => `"${(/^[=+\-@\t\r]/.test(text) ? `'${text}` : text).replaceAll('"', '""')}"`;

/** The rows as CSV. */
export function effectsCsv(effects: readonly Effect[]): string {
  const head = [
    'what',
    'name',
    'market',
    'worse',
    'before',
    'after',
    'bound by',
    'label',
    'curing',
    'in stock',
    'sold',
    'buyers',
  ];
  const rows = effects.map(({ what, name, market, worse, before, after, hands }) => [
    what,
    name,
    market,
    worse ? 'yes' : 'no',
    standWords(before),
    standWords(after),
    after?.boundBy ?? '',
    labelWords(before, after),
    ...[hands.curing, hands.inStock, hands.sold, hands.buyers].map(String),
  ]);
  return [head, ...rows].map((cells) => cells.map(safe).join(',')).join('\r\n');
}
