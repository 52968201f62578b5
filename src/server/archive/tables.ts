/** What an archive holds: which tables, what belongs to which thing, and which columns are files of their own. */

export const ARCHIVE_FORMAT = 'proportia.archive/1';

/** Things a maker knows, as an archive is looked through: a row with the rows that belong to it. */
export const THINGS = [
  'material',
  'bar',
  'batch',
  'paper',
  'change',
  'task',
  'complaint',
  'setting',
  'picture',
] as const;
export type Thing = (typeof THINGS)[number];

interface Table {
  name: string;
  thing: Thing;
  /** SQL for the id of the thing that a row belongs to. */
  owner: string;
  /** Of the row that is the thing itself: SQL for what to call it. */
  title?: string;
  /** A blob that becomes a file, in a folder, with an ending. */
  file?: { column: string; folder: string; ending: (row: Record<string, unknown>) => string };
  /** Columns that say nothing of the thing itself: where it stands, numbers given by the database. */
  apart?: readonly string[];
}

const ENDINGS: Record<string, string> = {
  'application/pdf': 'pdf',
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/webp': 'webp',
  'image/svg+xml': 'svg',
  'text/plain': 'txt',
};
const byMime = ({ mime }: Record<string, unknown>) => ENDINGS[String(mime)] ?? 'bin';

/** In the order they are written, so that what is referred to is there before. */
export const TABLES: readonly Table[] = [
  { name: 'settings', thing: 'setting', owner: 'key', title: 'key', apart: ['revision'] },
  {
    name: 'logos',
    thing: 'picture',
    owner: 'id',
    title: 'id',
    file: { column: 'bytes', folder: 'pictures', ending: byMime },
  },
  { name: 'materials', thing: 'material', owner: 'id', title: 'name', apart: ['revision'] },
  { name: 'documents', thing: 'material', owner: 'material_id' },
  { name: 'lots', thing: 'material', owner: 'material_id', apart: ['revision'] },
  { name: 'products', thing: 'bar', owner: 'id', title: 'name', apart: ['position', 'revision'] },
  { name: 'formula_versions', thing: 'bar', owner: 'product_id', apart: ['id', 'revision'] },
  { name: 'product_materials', thing: 'bar', owner: 'product_id' },
  { name: 'wraps', thing: 'bar', owner: 'product_id', apart: ['revision'] },
  {
    name: 'issued_labels',
    thing: 'bar',
    owner: 'product_id',
    file: { column: 'pdf', folder: 'labels', ending: () => 'pdf' },
  },
  { name: 'batches', thing: 'batch', owner: 'id', title: 'code' },
  { name: 'batch_events', thing: 'batch', owner: 'batch_id' },
  {
    name: 'stock_movements',
    thing: 'batch',
    // What was counted on the shelf belongs to the lot's material.
    owner: "coalesce(batch_id, 'lot ' || lot_id)",
    apart: ['id'],
  },
  {
    name: 'batch_photos',
    thing: 'batch',
    owner: 'batch_id',
    file: { column: 'bytes', folder: 'photographs', ending: byMime },
  },
  {
    name: 'inbox',
    thing: 'paper',
    owner: 'id',
    title: 'file_name',
    file: { column: 'bytes', folder: 'papers', ending: byMime },
  },
  { name: 'changes', thing: 'change', owner: 'id', title: 'words' },
  { name: 'tasks', thing: 'task', owner: 'id', title: "json_extract(body, '$.words')" },
  {
    ...{ name: 'complaints', thing: 'complaint', owner: 'id', apart: ['revision'] },
    title: "json_extract(body, '$.productName') || ', ' || heard_on",
  },
];

/** Tables that a bar handed over alone is made of. */
export const BAR_TABLES: readonly string[] = [
  'materials',
  'documents',
  'products',
  'formula_versions',
  'product_materials',
  'wraps',
];

export interface Manifest {
  format: typeof ARCHIVE_FORMAT;
  madeAt: string;
  /** Everything, or the bar that is handed over. */
  of: 'everything' | 'bar';
  title: string;
  /** What the database was made by. */
  migrations: string[];
  tables: string[];
  files: { path: string; bytes: number; sha256: string }[];
}
