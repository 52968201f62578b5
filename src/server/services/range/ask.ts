/** A question about the house in words: read by the grammar, held against what is on file. */
import type { AskAnswer } from '../../../core/records/ask';
import type { Hit } from '../../../core/records/search';
import { readAsk, type Asked, type Named, type Understood } from '../../../core/search/ask';
import {
  barAnswers,
  batchAnswers,
  lotAnswers,
  together,
  type Answer,
  type BarAsked,
  type Find,
} from '../../../core/search/ask-judge';
import { filterSaid } from '../../../core/search/ask-say';
import type { Material } from '../../../core/formula/types';
import { dayOf } from '../../../core/quantities/day';
import { stockSaid } from '../../../core/quantities/say';
import { LIBRARY } from '../../../library';
import type { House } from '../../house';
import { batchesDrawing } from '../../repositories/batches';
import { allLots, lotCodes } from '../../repositories/lots';
import { barsAbout, everyKeptRow } from '../../repositories/overviews';
import { productNames } from '../../repositories/products';
import { listBatches } from '../../store/batches';
import { BLANK, overviewsOf } from '../../store/overviews';
import { snapshotOf, type StoreSnapshot } from '../../store/snapshot';

/** Rows that are shown. */
const MOST_ROWS = 40;
/** Bars that are looked at, before those put away. */
const MOST_BARS = 5000;

const materialsKnown = new WeakMap<StoreSnapshot, Named['materials']>();

/** Every material by all its names; made once for a store. */
function materialsNamed(snapshot: StoreSnapshot): Named['materials'] {
  const known = materialsKnown.get(snapshot);
  if (known) return known;
  const shipped = LIBRARY.filter(({ id }) => !snapshot.own.has(id));
  const all: (Material & { alsoNamed?: readonly string[] })[] = [...snapshot.own.values(), ...shipped];
  const made = all.map(({ id, name, alsoNamed = [] }) => ({ id, names: [name, ...alsoNamed] }));
  materialsKnown.set(snapshot, made);
  return made;
}

async function named({ db }: House, snapshot: StoreSnapshot): Promise<Named> {
  return {
    bars: await productNames(db),
    materials: materialsNamed(snapshot),
    lots: await lotCodes(db),
  };
}

async function askedBars(house: House): Promise<(BarAsked & { name: string; isAway: boolean })[]> {
  const kept = await everyKeptRow(house.db, 0, MOST_BARS);
  const overviews = await overviewsOf(house, kept);
  const about = await barsAbout(house.db);
  return kept.map(({ id, product, putAwayOn }) => {
    const { verdict, markets, pour } = overviews.get(id) ?? BLANK;
    const isAway = putAwayOn !== null;
    const massG = pour?.massG ?? null;
    return { id, name: product.name, isAway, verdict, markets, massG, ready: about.get(id)?.ready ?? 0 };
  });
}

type Row = Hit & { answer: Answer };
type Judge = (one: Understood) => Answer;

const judged = (asked: Asked, judge: Judge) => together(asked.filters.map(judge));

async function barRows(house: House, asked: Asked, find: Find): Promise<Row[]> {
  return (await askedBars(house))
    .filter(({ isAway }) => !isAway)
    .map((bar) => ({
      ...{ kind: 'bar' as const, id: bar.id, title: bar.name, href: `/bars/${encodeURIComponent(bar.id)}` },
      words: bar.ready > 0 ? `${bar.ready} ready` : '',
      answer: judged(asked, ({ filter, not }) => barAnswers(filter, not, bar, find)),
    }));
}

/** Whether anything is asked that only a batch's bar tells. */
const asksOfBar = ({ filters }: Asked) =>
  filters.some(({ filter }) => ['holds', 'stands', 'soldIn', 'fact'].includes(filter.kind));

async function batchRows(house: House, asked: Asked, find: Find): Promise<Row[]> {
  const bars = new Map(asksOfBar(asked) ? (await askedBars(house)).map((bar) => [bar.id, bar]) : []);
  const codes = asked.filters.flatMap(({ filter }) => (filter.kind === 'lot' ? [filter.code] : []));
  const lotsOf = new Map<string, Set<string>>();
  // A code may have been given twice: each of its lots counts.
  for (const { id, code } of codes.length > 0 ? await lotCodes(house.db) : [])
    if (codes.includes(code))
      for (const batch of await batchesDrawing(house.db, id))
        lotsOf.set(code, (lotsOf.get(code) ?? new Set()).add(batch));
  return (await listBatches(house, { state: null, product: null })).map((one) => {
    const { id, code, productName, product, state, isQuarantined, pouredAt } = one;
    const day = pouredAt === null ? null : dayOf(pouredAt, house.zone);
    const batch = {
      ...{ product, state, isHeld: isQuarantined, left: one.bars.left, day },
      lots: codes.filter((lot) => lotsOf.get(lot)?.has(id)),
    };
    return {
      ...{
        kind: 'batch' as const,
        id,
        title: `${code}, ${productName}`,
        href: `/rack/${encodeURIComponent(id)}`,
      },
      words: day === null ? 'not poured yet' : `poured ${day}, ${one.bars.left} bars left`,
      answer: judged(asked, ({ filter, not }) => batchAnswers(filter, not, batch, bars.get(product), find)),
    };
  });
}

async function lotRows(house: House, asked: Asked, find: Find): Promise<Row[]> {
  return (await allLots(house.db)).map((lot) => {
    const material = find(lot.material);
    return {
      ...{ kind: 'lot' as const, id: lot.id, title: `${lot.code}, ${material?.name ?? lot.material}` },
      href: `/cupboard?material=${encodeURIComponent(lot.material)}`,
      words: `${stockSaid(lot.leftG, 'g')} left, came ${lot.receivedOn}`,
      answer: judged(asked, ({ filter, not }) => lotAnswers(filter, not, { ...lot, material })),
    };
  });
}

const ROWS = { bars: barRows, batches: batchRows, lots: lotRows } as const;

/** What answers to a question; null where it is none that the grammar reads. */
export async function answerTo(house: House, text: string): Promise<AskAnswer | null> {
  const snapshot = await snapshotOf(house.db, house.today);
  const asked = readAsk(text, await named(house, snapshot), house.today);
  if (!asked) return null;
  const { subject, filters, unread } = asked;
  const rows = await ROWS[subject](house, asked, (id) => snapshot.material(id));
  const sure = rows.filter(({ answer }) => answer.is === 'yes');
  const open = rows.flatMap(({ answer, ...hit }) =>
    answer.is === 'open' ? [{ ...hit, words: `cannot be told: ${answer.why}` }] : [],
  );
  return {
    subject,
    understood: filters.map(({ filter, not, from, to }) => ({
      says: filterSaid(filter, not, subject),
      from,
      to,
    })),
    unread,
    rows: [...sure.map(({ answer: _, ...hit }) => hit), ...open].slice(0, MOST_ROWS),
    count: sure.length + open.length,
    open: open.length,
  };
}
