/** Kinds of files that people bring, by the ends of their names. Pure. */

const ending = (fileName: string) => /\.([a-z]+)$/i.exec(fileName)?.[1]?.toLowerCase() ?? '';

/** Whether a file is a spreadsheet’s workbook of a kind that is read. */
export const isWorkbook = (fileName: string): boolean => ['xlsx', 'xlsm', 'ods'].includes(ending(fileName));

/** What a field for workbooks and tables takes. */
export const TABLE_FILES = '.csv,.tsv,.txt,.xlsx,.xlsm,.ods,text/csv,text/plain';

const PHOTOGRAPH =
  'This kind of photograph is not read. Send it as JPEG, which most telephones can be told to take.';
const REMEDIES: Readonly<Record<string, string>> = {
  xls: 'This is a spreadsheet of the older kind. Save it as .xlsx, .ods or CSV, and bring that.',
  numbers: 'This kind of spreadsheet is not read. Export it as .xlsx or CSV, and bring that.',
  doc: 'This is a document of the older kind. Save it as .docx or PDF, and bring that.',
  rtf: 'This kind of document is not read. Save it as .docx or PDF, and bring that.',
  pages: 'This kind of document is not read. Export it as PDF, and bring that.',
  msg: 'This kind of mail is not read. Save it as .eml, or bring its attachment.',
  heic: PHOTOGRAPH,
  heif: PHOTOGRAPH,
  tif: 'This kind of picture is not read. Save it as PNG or PDF, and bring that.',
  tiff: 'This kind of picture is not read. Save it as PNG or PDF, and bring that.',
  zip: 'This is a packed folder. Unpack it, and bring the files in it.',
};

/**
 * What to do about a file of a kind that is known and not read; null for any other.
 *
 * @example remedyFor('recipes.csv') // null
 */
export const remedyFor = (fileName: string): string | null => {
  const kind = ending(fileName);
  return Object.hasOwn(REMEDIES, kind) ? REMEDIES[kind]! : null;
};
