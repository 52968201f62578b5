/** Fills an empty database with the made-up demo. */
import type { DemoThings } from '../core/records/house';
import type { Knex } from 'knex';
import { durabilityFrom } from '../core/labels/content';
import { dayAfter, momentOn } from '../core/quantities/day';
import type { Lot } from '../core/making/cost';
import { libraryMaterial } from '../library';
import { allBatches } from '../server/repositories/batches';
import { addToInbox } from '../server/repositories/inbox';
import type { House } from '../server/house';
import { addLot, addMovement, findLot } from '../server/repositories/lots';
import { addDocument, addMaterial, addMix } from '../server/repositories/materials';
import { addProduct, putFormula } from '../server/repositories/products';
import type { Wrap } from '../core/records/wrap';
import { findSetting, putSetting } from '../server/repositories/settings';
import { putWrap } from '../server/repositories/wraps';
import { holdLot } from '../server/store/holding';
import { requireProduct } from '../server/store/products';
import { issueLabel } from '../server/services/wrap/labels';
import { wrapData } from '../server/services/wrap/desk';
import { writing } from '../server/store/writing';
import { demoProducts } from './bars';
import { seedBatches } from './batches';
import { DEMO_MAKER, demoMaterials } from './materials';
import { demoPapers } from './papers';
import { DEMO_MIXES, DEMO_MOULDS, demoLots } from './stores';

const KEEPS_MONTHS = 24;

/** The durability the makers state: two years from the day, to the month. */
function keepsFrom(today: string): Wrap['durability'] {
  return durabilityFrom({ months: KEEPS_MONTHS, endsOn: null }, today);
}

/** What is left of a lot on the shelf: the batches took some, the rest went before they were kept here. */
async function countDown(trx: Knex, { id, leftG, receivedOn }: Lot, zone: string): Promise<void> {
  const massG = (await findLot(trx, id))!.leftG - leftG;
  if (massG <= 0) return;
  const reason = 'Poured before batches were kept here';
  const at = momentOn(receivedOn, zone);
  await addMovement(trx, { lot: id, massG, at, batch: null, event: null, reason });
}

/** Ids of all that is on file: what can be taken out again later. */
async function everythingHere(trx: Knex): Promise<DemoThings> {
  const idsOf = async (table: string) =>
    (await trx(table).select<{ id: string }[]>('id')).map(({ id }) => id);
  return {
    bars: await idsOf('products'),
    materials: await idsOf('materials'),
    batches: await idsOf('batches'),
    papers: await idsOf('inbox'),
  };
}

/** A bar whose label was issued before something came into it: the label reads otherwise today. */
const CHANGED_SINCE = {
  product: 'snow-plough',
  cameIn: 'rye-bran',
  issuedDaysAgo: 75,
  market: 'EU',
} as const;
/** A bar with a label of its last batch that was released. */
const LABELLED = { product: 'goods-yard', market: 'EU', daysAgo: 40 } as const;
/** A lot that its supplier asked to hold back. */
const HELD = {
  material: 'rye-bran',
  reason: 'Ninefold Botanicals asks to hold it: grit was found in a sack of the same milling.',
} as const;

/** A house as it stood at noon some days ago. */
const before = (house: House, days: number): House => {
  const today = dayAfter(house.today, -days);
  return { ...house, today, now: momentOn(today, house.zone, '12:00') };
};

/** Puts a bar on file; the one that was changed since has its label issued of what it was. */
async function seedBar(house: House, { product, formula }: ReturnType<typeof demoProducts>[number]) {
  const { db, today, zone } = house;
  const isChanged = product.id === CHANGED_SINCE.product;
  const savedAt = momentOn(today, zone, '08:00');
  const lines = formula.lines.filter(({ material }) => material !== CHANGED_SINCE.cameIn);
  await addProduct(db, product, isChanged ? { ...formula, lines } : formula, savedAt);
  const { wrap } = (await wrapData({ db, today, now: savedAt, zone }, product.id)).stored;
  const durability = keepsFrom(today);
  await putWrap(db, product.id, { revision: 1, savedAt, wrap: { ...wrap, durability } });
  if (!isChanged) return;
  await issueLabel(before(house, CHANGED_SINCE.issuedDaysAgo), product.id, CHANGED_SINCE.market);
  const { version } = await requireProduct(db, product.id);
  await putFormula(db, product.id, { ...version, revision: version.revision + 1, formula });
}

/** What a workshop has after some months: the label of a batch, and a lot that is held with what it went into. */
async function seedStanding(house: House): Promise<void> {
  const batches = await allBatches(house.db, LABELLED.product);
  const released = batches.find(({ state }) => state === 'released')!;
  const { product, market, daysAgo } = LABELLED;
  await issueLabel(before(house, daysAgo), product, market, null, { batch: released.id });
  const [held] = demoLots(house.today).filter(({ material }) => material === HELD.material);
  await holdLot(before(house, 1), held!.id, HELD.reason, 'Marit');
}

/** Seeds the demo as of a moment of a day unless there are products already. True when it seeded. */
export async function seedDemo({ db, today, now, zone }: House): Promise<boolean> {
  const [{ count }] = (await db('products').count({ count: '*' })) as [{ count: number }];
  if (count > 0) return false;
  // Taken out again by its maker: it does not come back by itself.
  if ((await findSetting(db, 'demo')).revision > 0) return false;
  const papers = await Promise.all(
    demoPapers(today).map(async (paper) => ({ ...paper, bytes: await paper.make() })),
  );
  await writing(db, async (trx) => {
    await putSetting(trx, 'maker', DEMO_MAKER);
    await putSetting(trx, 'moulds', [...DEMO_MOULDS]);
    for (const { material, supplier, documents } of demoMaterials(today, libraryMaterial)) {
      await addMaterial(trx, material, supplier);
      for (const document of documents) await addDocument(trx, document);
    }
    for (const { id, name, parts } of DEMO_MIXES) await addMix(trx, id, name, [...parts]);
    for (const lot of demoLots(today)) await addLot(trx, lot);
    for (const { id, fileName, mime, receivedOn, bytes } of papers) {
      await addToInbox(trx, { id, fileName, mime, receivedOn, filedOn: null }, bytes);
    }
    const house = { db: trx, today, now, zone };
    for (const bar of demoProducts(today)) await seedBar(house, bar);
    await seedBatches(house);
    await seedStanding(house);
    for (const lot of demoLots(today)) await countDown(trx, lot, zone);
    await putSetting(trx, 'demo', await everythingHere(trx));
  });
  return true;
}
