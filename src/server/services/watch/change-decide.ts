/** Accepting a change writes it and its tasks in one transaction; declining keeps why. */
import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { swapped } from '../../../core/change/swap';
import { tasksOf, type NewTask } from '../../../core/change/tasks';
import type { Change } from '../../../core/change/types';
import type { ChangeDecision, Task } from '../../../core/records/watch';
import { dayOf } from '../../../core/quantities/day';
import type { House } from '../../house';
import { fault } from '../../http';
import { addTask, changeResult, decideChange, type StoredChange } from '../../repositories/changes';
import { findLot } from '../../repositories/lots';
import { findProduct, holdersOf, putFormula } from '../../repositories/products';
import { findHouseRules, putSetting } from '../../repositories/settings';
import { snapshotOf } from '../../store/snapshot';
import { writing } from '../../store/writing';
import { withEdition, withLimit } from './change-store';
import { requireChange, stampOf } from './changes';
import { filePapers } from '../../store/materials';
import { freeLot, holdLot } from '../../store/holding';
import { changeDetails, requireProduct } from '../../store/products';

/** Why batches are freed with a lot where nothing else was written. */
const FREED = 'The lot is free again.';

const STALE =
  'The cupboard, the rules or a bar changed since this was looked at. Look again, then accept what you see.';

async function writeSwap(house: House, change: Extract<Change, { kind: 'swap' }>): Promise<void> {
  const { db, today, now } = house;
  const snapshot = await snapshotOf(db, today);
  for (const id of await holdersOf(db, change.from)) {
    if (change.products && !change.products.includes(id)) continue;
    const found = await findProduct(db, id);
    if (!found || found.product.putAwayOn !== null) continue;
    const { product, version } = found;
    const { markets, firstPlacedOn } = product;
    const formula = swapped({ markets, firstPlacedOn }, version.formula, change, snapshot, today);
    await putFormula(db, id, { ...version, revision: version.revision + 1, savedAt: now, formula });
  }
}

async function writeMarket(house: House, change: Extract<Change, { kind: 'market' }>): Promise<void> {
  const { product } = await requireProduct(house.db, change.product);
  const placed = { [change.market]: change.firstPlacedOn ?? house.today };
  await changeDetails(house, product.id, product.revision, {
    ...product,
    markets: [...product.markets, change.market],
    firstPlacedOn: { ...product.firstPlacedOn, ...placed },
  });
}

/** Writes what a change says. A day that moves writes nothing: it comes by itself. */
async function write(house: House, change: Change, note: string | null): Promise<void> {
  const { db } = house;
  switch (change.kind) {
    case 'paper':
      await filePapers(house, change.material, [change.paper], change.inbox ?? null, []);
      return;
    case 'edition': {
      const { editions } = withEdition(await findHouseRules(db), change.edition);
      await putSetting(db, 'editions', editions);
      return;
    }
    case 'limit': {
      const { ownLimits } = withLimit(await findHouseRules(db), change.limit);
      await putSetting(db, 'ownLimits', ownLimits);
      return;
    }
    case 'lot': {
      if (change.quarantine !== null) await holdLot(house, change.lot, change.quarantine);
      else if ((await findLot(db, change.lot))?.quarantine != null)
        await freeLot(house, change.lot, note ?? FREED);
      return;
    }
    case 'swap':
      return writeSwap(house, change);
    case 'market':
      return writeMarket(house, change);
    case 'day':
      return;
  }
}

/** The change, as long as nothing is decided of it; 404, and 409 where something is. */
async function requireOpen(house: House, id: string): Promise<StoredChange> {
  const stored = await requireChange(house, id);
  if (stored.decision) {
    const message = `This was ${stored.decision.decision} on ${dayOf(stored.decision.at, house.zone)}. Look at it anew.`;
    throw fault(409, 'decided', message, 'id');
  }
  return stored;
}

/** Puts a task on file. */
export async function keepTask(trx: Knex, now: string, change: string | null, task: NewTask): Promise<Task> {
  const made: Task = { ...task, id: randomUUID(), change, at: now, doneAt: null, doneNote: null };
  await addTask(trx, made);
  return made;
}

/**
 * Accepts a change as it was previewed. 409 where it is not looked at to the end, where it is decided, and where the
 * store is no longer the one that was previewed; nothing is written then.
 */
export function acceptChange(
  house: House,
  id: string,
  note: string | null,
): Promise<{ decision: ChangeDecision; tasks: Task[] }> {
  return writing(house.db, async (trx) => {
    const inside = { ...house, db: trx };
    const stored = await requireOpen(inside, id);
    if (stored.state !== 'done')
      throw fault(409, 'not-done', 'This is not looked at to its end. Wait for it, or look again.', 'id');
    const snapshot = await snapshotOf(trx, house.today);
    if ((await stampOf(inside, snapshot)) !== stored.stamp) throw fault(409, 'stale', STALE, 'id');
    const { effects } = (await changeResult(trx, id))!;
    await write(inside, stored.change, note);
    const tasks: Task[] = [];
    for (const task of tasksOf(stored.change, effects)) tasks.push(await keepTask(trx, house.now, id, task));
    const decision: ChangeDecision = { decision: 'accepted', at: house.now, note };
    await decideChange(trx, id, decision);
    return { decision, tasks };
  });
}

/** Declines a change, with why; 409 where something is decided of it. */
export function declineChange(
  house: House,
  id: string,
  reason: string,
): Promise<{ decision: ChangeDecision }> {
  return writing(house.db, async (trx) => {
    await requireOpen({ ...house, db: trx }, id);
    const decision: ChangeDecision = { decision: 'declined', at: house.now, note: reason };
    await decideChange(trx, id, decision);
    return { decision };
  });
}
