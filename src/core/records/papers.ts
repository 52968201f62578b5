/** Suppliers' papers as screens and server know them. */
import type { Constituent } from '../formula/types';
import type { Governing, PaperType } from '../paperwork/governing';

/** A certificate or an allergen declaration as it was taken in. */
export interface MaterialDocument {
  id: string;
  materialId: string;
  type: PaperType;
  number: string;
  /** Edition of the standard a certificate follows, e.g. "51st". */
  edition: string | null;
  issuedOn: string;
  issuer: string;
  /** Maximum in the finished bar for the category that covers bar soap, percent. */
  maxPct?: number;
  category?: string;
  /** The maxima of other categories, percent of the finished product. */
  otherCategories?: { category: string; maxPct: number }[];
  /** What the certificate says of single constituents in the finished bar, percent. */
  limits?: { constituent: string; maxPct: number }[];
  vanillinPct?: number;
  flashPointC?: number;
  constituents?: Constituent[];
  /** The file it was read from, and the day it was taken in. */
  fileName?: string;
  takenOn?: string;
}

/** What the maker accepted of a paper. */
export type AcceptedPaper = Omit<MaterialDocument, 'id' | 'materialId' | 'takenOn'>;

/** Which papers count for a material. */
export interface PapersStanding {
  certificate: Governing<MaterialDocument> | null;
  allergens: Governing<MaterialDocument> | null;
}

/** A paper that came in. */
export interface InboxEntry {
  id: string;
  fileName: string;
  mime: string;
  receivedOn: string;
  /** The day it was taken into the cupboard; null while it waits. */
  filedOn: string | null;
}

/** The largest paper that is read. */
export const LARGEST_PAPER_BYTES = 15 * 1024 * 1024;

/** A file of the folder that did not come in, and what to do about it. */
export interface LeftOut {
  fileName: string;
  why: string;
}

/** What came, the folder that is looked into, and what of it was left out. */
export interface Inbox {
  papers: InboxEntry[];
  folder: string;
  leftOut: LeftOut[];
}

/** The type of a paper's file by its name; null where such files are not read. */
export const typeOfPaper = (fileName: string): string | null =>
  PAPER_TYPES[/\.[a-z]+$/i.exec(fileName)?.[0].toLowerCase() ?? ''] ?? null;

/** Files that papers come as, by their ending: what the reader opens and what is kept. */
export const PAPER_TYPES: Readonly<Record<string, string>> = {
  '.pdf': 'application/pdf',
  '.txt': 'text/plain',
  '.csv': 'text/csv',
  '.tsv': 'text/tab-separated-values',
  '.png': 'image/png',
  '.jpg': 'image/jpeg',
  '.jpeg': 'image/jpeg',
  '.webp': 'image/webp',
  '.docx': 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  '.xlsx': 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
  '.odt': 'application/vnd.oasis.opendocument.text',
  '.ods': 'application/vnd.oasis.opendocument.spreadsheet',
  // A page is given out again as its text: nothing in it is ever shown as a page.
  '.html': 'text/plain',
  '.htm': 'text/plain',
};
