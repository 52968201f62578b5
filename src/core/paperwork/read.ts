/**
 * Reading a supplier's certificate or allergen declaration. Nothing is decided here: everything taken says from
 * which line, and what is unsure carries a question for the maker, who accepts or corrects it.
 */
import { unstacked } from './stacked';
import { readablePart } from './bounds';
import { readCategories, type OpenLevel } from './categories';
import { BAR_SOAP_CATEGORY, type CategoryMax } from './category-checks';
import { readFields, type PaperFields } from './fields';
import type { Taken } from './labelled';
import { notesOfLine } from './footnotes';
import { withLessons, type Lesson } from './lessons';
import { lineText, type Paper, type PaperLine } from './page';
import { withoutRaised } from './raised';
import { decimalMarkOf } from './figures';
import { INVOICE_WORD, plainText, SDS_WORD } from './lexicon';
import { readRows, statesUnit, type Known, type TakenRow } from './rows';

/** What a paper is: what can be filed comes from the first two; the others say so and give little. */
export type PaperKind = 'certificate' | 'declaration' | 'safetySheet' | 'invoice' | 'unknown';

export interface PaperReading extends PaperFields {
  kind: PaperKind;
  categories: Taken<CategoryMax>[];
  rows: TakenRow[];
  /** What has to be asked about the paper as a whole. */
  questions: string[];
}

/** No natural or made scent adds up to more than itself, percent; a little is left for rounding. */
const MOST_TOGETHER_PCT = 101;

/** What papers of a kind cannot give; null of those that are read. */
const NOT_TAKEN: Record<PaperKind, string | null> = {
  certificate: null,
  declaration: null,
  unknown: null,
  safetySheet:
    'This is a safety data sheet. It gives the flash point and the words for its hazards; its ranges of composition are no certificate and no declaration, and none of them is taken.',
  invoice: 'This is an invoice or a delivery note. It says nothing that could be filed as a certificate.',
};

const NO_FIELDS: PaperFields = {
  material: null,
  number: null,
  issuer: null,
  edition: null,
  issuedOn: null,
  flashPointC: null,
  vanillinPct: null,
};

/** Lines in which a paper says what it is. */
const HEAD_LINES = 30;

function kindOf(paper: Paper, found: { categories: number; rows: number }): PaperKind {
  const head = plainText(paper.lines.slice(0, HEAD_LINES).map(lineText).join(' \n '));
  const isCertificate =
    /certificat|zertifikat|certificado|declarat|declarac|erklarung|verklaring|dichiaraz/.test(head);
  if (SDS_WORD.test(head) && found.categories === 0) return 'safetySheet';
  if (INVOICE_WORD.test(head) && found.categories === 0 && !isCertificate) return 'invoice';
  if (found.categories > 0) return 'certificate';
  return found.rows > 0 ? 'declaration' : 'unknown';
}

function questionsOf(paper: Paper, reading: Omit<PaperReading, 'questions'>): string[] {
  const { categories, rows, number, issuedOn, kind } = reading;
  const other = NOT_TAKEN[kind];
  if (other) return [other];
  const questions: string[] = [];
  if (categories.length === 0 && rows.length === 0) {
    questions.push(
      'Neither a maximum by category nor rows of constituents were found. Type in what the paper says.',
    );
  }
  if (categories.length > 0 && !categories.some(({ value }) => value.category === BAR_SOAP_CATEGORY)) {
    questions.push('No maximum for category 9, which holds bar soap, was found. Ask the supplier for one.');
  }
  if (rows.length > 0 && !statesUnit(paper)) {
    questions.push('No unit stands with the shares; they were read as percent.');
  }
  const together = rows.reduce((sum, { typicalPct }) => sum + typicalPct, 0);
  if (together > MOST_TOGETHER_PCT) {
    questions.push(
      `The shares add up to ${Number(together.toFixed(1))} %. Is a row read twice, or the unit another?`,
    );
  }
  if (!number) questions.push('No certificate or document number was found. Type it in.');
  if (!issuedOn) questions.push('No date was found. Type in the day it was issued.');
  return questions;
}

/** What stands beside the category of bar soap and is no level by itself. */
function openQuestions(open: readonly OpenLevel[]): string[] {
  const said = open.filter(({ category }) => category === BAR_SOAP_CATEGORY).map((one) => one.said);
  return [...new Set(said)].map(
    (words) =>
      `Category ${BAR_SOAP_CATEGORY} says “${words}”, which is no level by itself. Ask the supplier, and type in the answer.`,
  );
}

/** A line without the marks that lead to its notes, which stay beside it; a cell of nothing else stays as it is. */
const markless = (line: PaperLine): PaperLine => ({
  ...line,
  cells: line.cells.map((cell) => {
    const text = withoutRaised(cell.text).trim() || cell.text;
    return text === cell.text ? cell : { ...cell, text, raised: cell.text };
  }),
});

/** What the marks beside the level of bar soap lead to. */
function noteQuestions(paper: Paper, categories: readonly Taken<CategoryMax>[]): string[] {
  const own = categories.filter(({ value }) => value.category === BAR_SOAP_CATEGORY);
  return own
    .flatMap(({ line, said }) => notesOfLine(paper, line, said))
    .map(
      ({ mark, note }) =>
        `The level of category ${BAR_SOAP_CATEGORY} stands with a mark (${mark}): “${note}”. Is it met?`,
    );
}

/**
 * Reads a paper. `known` leads CAS numbers and names to the constituents on file; `lessons` are what the maker
 * taught on earlier papers.
 *
 * @example
 * readPaper({ lines: linesFromText(pasted) }, known); // fields and rows, each with how sure
 */
export function readPaper(whole: Paper, known: Known, lessons: readonly Lesson[] = []): PaperReading {
  const { paper, questions } = readablePart({ ...whole, lines: unstacked(whole.lines.map(markless)) });
  const mark = decimalMarkOf(paper.lines.flatMap(({ cells }) => cells.map(({ text }) => text)));
  const { found: categories, open } = readCategories(paper, mark);
  const rows = readRows(paper, known, mark);
  const kind = kindOf(paper, { categories: categories.length, rows: rows.length });
  const own = {
    kind,
    ...(kind === 'invoice' ? NO_FIELDS : readFields(paper, mark)),
    categories,
    rows: NOT_TAKEN[kind] ? [] : rows,
  };
  const taught = NOT_TAKEN[kind] ? own : withLessons(paper, own, lessons, BAR_SOAP_CATEGORY);
  const isCertificate = kind === 'certificate' || taught.categories.length > 0;
  const reading = { ...taught, kind: isCertificate ? ('certificate' as const) : kind };
  // A line that states the vanillin among the paper's own figures is not a row of a table.
  const stated = reading.vanillinPct?.line;
  reading.rows = reading.rows.filter(({ cas, lines }) => cas.length > 0 || lines[0] !== stated);
  const vanillin = reading.rows.find(({ cas }) => cas.includes(VANILLIN_CAS));
  if (!reading.vanillinPct && vanillin) {
    const { highPct: value, said, question } = vanillin;
    reading.vanillinPct = { value, line: vanillin.lines[0]!, said, question };
  }
  const asked = [...openQuestions(open), ...noteQuestions(paper, categories), ...questionsOf(paper, reading)];
  return { ...reading, questions: [...questions, ...asked] };
}

const VANILLIN_CAS = '121-33-5';
