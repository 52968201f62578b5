/** Tables that come as text: as a file, or as cells that were pasted. */

/** Lines of a file of which so many hold a tab come apart by tabs, whatever else stands in them. */
const TABBED_SHARE = 0.5;

function isTabbed(text: string): boolean {
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  return lines.filter((line) => line.includes('\t')).length > TABBED_SHARE * lines.length;
}

/** The rows of a table's text; its separator is found. Cells that were pasted from a spreadsheet come apart by tabs wherever one stands. */
export async function rowsOfTable(text: string, isPasted = false): Promise<string[][]> {
  const { default: Papa } = await import('papaparse');
  const delimiter = (isPasted ? text.includes('\t') : isTabbed(text)) ? '\t' : '';
  return Papa.parse<string[]>(text, { skipEmptyLines: false, delimiter }).data;
}
