/** The full text index over everything that has a name. */
import type { Knex } from 'knex';
import type { Hit } from '../../core/records/search';

/** Rows taken from the index to be ranked. */
const MOST = 400;

interface ItemRow {
  kind: Hit['kind'];
  ref: string;
  title: string;
  words: string;
  href: string;
}

const hit = ({ kind, ref, title, words, href }: ItemRow): Hit => ({ kind, id: ref, title, words, href });

/** Rows that share pieces of three letters with what was typed, those that share most first. */
export async function itemsSharing(db: Knex, pieces: readonly string[]): Promise<Hit[]> {
  // Letters and digits only, each piece in quotes: nothing of it is read as the index's own language.
  const query = pieces.map((piece) => `"${piece.replaceAll('"', '')}"`).join(' OR ');
  const rows: ItemRow[] = await db.raw(
    `select i.kind, i.ref, i.title, i.words, i.href from search_index as s join search_items as i on i.id = s.rowid
     where search_index match ? order by bm25(search_index, 3, 1) limit ${MOST}`,
    [query],
  );
  return rows.map(hit);
}

/** Rows with a word in their title that begins so; for what is too short for the index. */
export async function itemsBeginning(db: Knex, start: string): Promise<Hit[]> {
  const literal = start.replace(/[\\%_]/g, '\\$&');
  const rows: ItemRow[] = await db.raw(
    `select kind, ref, title, words, href from search_items
     where title like ? escape '\\' or title like ? escape '\\' order by length(title) limit ${MOST}`,
    [`${literal}%`, `% ${literal}%`],
  );
  return rows.map(hit);
}
