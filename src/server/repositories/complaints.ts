/** Complaints and unwanted effects on file. */
import type { Knex } from 'knex';
import { groupBy } from '../../core/group';
import type { Complaint } from '../../core/records/complaints';

interface Row {
  body: string;
  revision: number;
}

const fromRow = ({ body, revision }: Row): Complaint => ({
  ...(JSON.parse(body) as Omit<Complaint, 'revision'>),
  revision,
});

const toRow = ({ revision, ...complaint }: Complaint) => ({
  id: complaint.id,
  product_id: complaint.product,
  batch_id: complaint.batch,
  heard_on: complaint.heardOn,
  revision,
  body: JSON.stringify(complaint),
});

/** Which are wanted: of a bar, of a batch, or all. */
export interface WantedComplaints {
  product?: string;
  batch?: string;
}

/** Complaints, the newest first. */
export async function complaintsOf(
  db: Knex,
  { product, batch }: WantedComplaints = {},
): Promise<Complaint[]> {
  const query = db<Row>('complaints').orderBy('heard_on', 'desc').orderBy('id').select('body', 'revision');
  if (product !== undefined) void query.where('product_id', product);
  if (batch !== undefined) void query.where('batch_id', batch);
  return (await query).map(fromRow);
}

export interface ComplaintCount {
  all: number;
  open: number;
}

const countOf = (all: readonly Complaint[]): ComplaintCount => ({
  all: all.length,
  open: all.filter(({ closedOn }) => closedOn === null).length,
});

/** How many complaints there are, and how many of them are open. */
export const countComplaints = async (db: Knex, wanted: WantedComplaints): Promise<ComplaintCount> =>
  countOf(await complaintsOf(db, wanted));

/** The same for each of some batches. */
export async function countsByBatch(
  db: Knex,
  batches: readonly string[],
): Promise<(batch: string) => ComplaintCount> {
  const rows = await db<Row>('complaints').whereIn('batch_id', batches).select('body', 'revision');
  const found = groupBy(rows.map(fromRow), ({ batch }) => batch);
  return (batch) => countOf(found.get(batch) ?? []);
}

/** The complaint of that id, or null. */
export async function findComplaint(db: Knex, id: string): Promise<Complaint | null> {
  const row: Row | undefined = await db('complaints').where('id', id).select('body', 'revision').first();
  return row ? fromRow(row) : null;
}

/** Adds a complaint. */
export async function addComplaint(trx: Knex, complaint: Complaint): Promise<void> {
  await trx('complaints').insert(toRow(complaint));
}

/** Keeps a complaint as it stands. */
export async function putComplaint(trx: Knex, complaint: Complaint): Promise<void> {
  await trx('complaints').where('id', complaint.id).update(toRow(complaint));
}
