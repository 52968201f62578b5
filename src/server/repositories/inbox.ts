/** The inbox of suppliers' papers. The demo fills it; it stands in for a mailbox. */
import type { Knex } from 'knex';
import type { InboxEntry } from '../../core/records/papers';

interface InboxRow {
  id: string;
  file_name: string;
  mime: string;
  received_on: string;
  filed_on: string | null;
}

/** Every paper, newest first, without its bytes. */
export async function inboxEntries(db: Knex): Promise<InboxEntry[]> {
  const rows: InboxRow[] = await db('inbox')
    .select('id', 'file_name', 'mime', 'received_on', 'filed_on')
    .orderBy([{ column: 'received_on', order: 'desc' }, 'file_name']);
  return rows.map((row) => ({
    id: row.id,
    fileName: row.file_name,
    mime: row.mime,
    receivedOn: row.received_on,
    filedOn: row.filed_on,
  }));
}

/** Whether a paper of that id came in already. */
export async function isInInbox(db: Knex, id: string): Promise<boolean> {
  return (await db('inbox').where('id', id).first('id')) !== undefined;
}

/** A paper's bytes with their type, or null. */
export async function inboxBytes(
  db: Knex,
  id: string,
): Promise<{ fileName: string; mime: string; bytes: Uint8Array } | null> {
  const row: { file_name: string; mime: string; bytes: Uint8Array } | undefined = await db('inbox')
    .select('file_name', 'mime', 'bytes')
    .where('id', id)
    .first();
  return row ? { fileName: row.file_name, mime: row.mime, bytes: row.bytes } : null;
}

/** Puts a paper into the inbox. */
export async function addToInbox(db: Knex, entry: InboxEntry, bytes: Uint8Array): Promise<void> {
  await db('inbox').insert({
    id: entry.id,
    file_name: entry.fileName,
    mime: entry.mime,
    received_on: entry.receivedOn,
    filed_on: entry.filedOn,
    bytes: Buffer.from(bytes),
  });
}

/** Notes that a paper was taken in on a day; false where there is no such paper. */
export async function markFiled(db: Knex, id: string, day: string): Promise<boolean> {
  return (await db('inbox').where('id', id).update({ filed_on: day })) > 0;
}
