/** Complaints and unwanted effects: written down, closed, and told where a market wants that. */
import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import {
  termsOf,
  type Complaint,
  type DueTerm,
  type StatedComplaint,
} from '../../../core/records/complaints';
import { TELLINGS } from '../../../rulebook/telling';
import type { House } from '../../house';
import { fault } from '../../http';
import { findBatch, findBatchByCode } from '../../repositories/batches';
import {
  addComplaint,
  complaintsOf,
  findComplaint,
  putComplaint,
  type WantedComplaints,
} from '../../repositories/complaints';
import { findProduct } from '../../repositories/products';
import { once, writing } from '../../store/writing';
import { keepTask } from './change-decide';

/** A complaint with what has to be told of it. */
export type ToldComplaint = Complaint & { terms: DueTerm[] };

const told = (complaint: Complaint): ToldComplaint => ({ ...complaint, terms: termsOf(complaint, TELLINGS) });

/** Complaints of a bar, of a batch, or all, the newest first. */
export const listComplaints = async (
  { db }: House,
  wanted: WantedComplaints = {},
): Promise<ToldComplaint[]> => (await complaintsOf(db, wanted)).map(told);

/** The batch that stands on a bar: its code, or that with the bar's number behind it. */
async function batchOfCode(db: Knex, code: string) {
  for (let end = code.length; end > 0; end = code.lastIndexOf('/', end - 1)) {
    const found = await findBatchByCode(db, code.slice(0, end));
    if (found) return found;
  }
  return null;
}

type About = Pick<Complaint, 'product' | 'productName' | 'batch' | 'batchCode'>;

/** What a complaint is about; 422 where neither code nor bar says so, or they speak of two bars. */
async function aboutOf(db: Knex, { code, product }: StatedComplaint): Promise<About> {
  const said = code?.trim() ?? '';
  const batch = said === '' ? null : await batchOfCode(db, said);
  if (batch) {
    if (product !== null && product !== batch.product)
      throw fault(
        422,
        'two-bars',
        `Code ${said} is of ${batch.productName}, not of the bar chosen.`,
        'product',
      );
    const { id, code: own, product: of, productName } = batch;
    return { product: of, productName, batch: id, batchCode: own };
  }
  if (product === null) {
    const message =
      said === ''
        ? 'Give the code that stands on the bar, or choose the bar.'
        : `No batch has the code "${said}". Choose the bar; the code is kept as it was said.`;
    throw fault(422, 'unknown-code', message, said === '' ? 'code' : 'product');
  }
  const found = await findProduct(db, product);
  if (!found) throw fault(422, 'unknown-product', `There is no bar "${product}".`, 'product');
  return { product, productName: found.product.name, batch: null, batchCode: null };
}

/** What has to be told and by when, as tasks: of what was not on file before. */
async function keepTerms(
  trx: Knex,
  now: string,
  complaint: Complaint,
  before: Complaint | null,
): Promise<void> {
  const known = new Set(before ? termsOf(before, TELLINGS).map(({ source }) => source) : []);
  for (const { market, words, dueOn, source } of termsOf(complaint, TELLINGS)) {
    if (known.has(source)) continue;
    const of = complaint.batchCode ? `batch ${complaint.batchCode}` : 'no batch on file';
    await keepTask(trx, now, null, {
      ...{
        kind: 'look',
        what: complaint.batch ? 'batch' : 'bar',
        subject: complaint.batch ?? complaint.product,
      },
      ...{ market, dueOn, words: `${complaint.productName} (${of}), a serious effect, ${market}: ${words}` },
    });
  }
}

/** Writes a complaint down, with tasks for what has to be told. `key` names the request. 422 as `aboutOf`. */
export function writeComplaint(
  house: House,
  stated: StatedComplaint,
  key: string | null = null,
): Promise<ToldComplaint> {
  return writing(house.db, (trx) =>
    once(trx, key, 'complaint', house.now, async () => {
      const complaint = { ...stated, ...(await aboutOf(trx, stated)), id: randomUUID(), revision: 1 };
      await addComplaint(trx, complaint);
      await keepTerms(trx, house.now, complaint, null);
      return told(complaint);
    }),
  );
}

/** Changes a complaint made from a revision; 404, and what stands on file now where that is newer. */
export function changeComplaint(
  house: House,
  id: string,
  revision: number,
  stated: StatedComplaint,
): Promise<{ complaint: ToldComplaint } | { stale: ToldComplaint }> {
  return writing(house.db, async (trx) => {
    const known = await findComplaint(trx, id);
    if (!known) throw fault(404, 'unknown-complaint', `There is no complaint "${id}".`, 'id');
    if (known.revision !== revision) return { stale: told(known) };
    // A batch that is gone since stays named.
    const isSame = known.code === stated.code && (stated.product ?? known.product) === known.product;
    const isGone = known.batch !== null && (await findBatch(trx, known.batch)) === null;
    const about = isSame && isGone ? {} : await aboutOf(trx, stated);
    const complaint = { ...known, ...stated, product: known.product, ...about, revision: revision + 1 };
    await putComplaint(trx, complaint);
    await keepTerms(trx, house.now, complaint, known);
    return { complaint: told(complaint) };
  });
}
