/**
 * Reading a supplier's certificate or allergen declaration. Nothing is decided here: everything taken says from
 * which line, and what is unsure carries a question for the maker, who accepts or corrects it.
 */
import { readablePart } from './bounds';
import { readCategories, type CategoryMax } from './categories';
import { readFields, type PaperFields, type Taken } from './fields';
import type { Paper } from './page';
import { readRows, statesUnit, type Known, type TakenRow } from './rows';

export interface PaperReading extends PaperFields {
  categories: Taken<CategoryMax>[];
  rows: TakenRow[];
  /** What has to be asked about the paper as a whole. */
  questions: string[];
}

/** The category of the industry's standard that holds bar soap (rules by market). */
export const BAR_SOAP_CATEGORY = '9';
/** No natural or made scent adds up to more than itself, percent; a little is left for rounding. */
const MOST_TOGETHER_PCT = 101;

function questionsOf(paper: Paper, reading: Omit<PaperReading, 'questions'>): string[] {
  const { categories, rows, number, issuedOn } = reading;
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

/** Reads a paper. `known` leads CAS numbers and names to the constituents on file. */
export function readPaper(whole: Paper, known: Known): PaperReading {
  const { paper, questions } = readablePart(whole);
  const reading = {
    ...readFields(paper),
    categories: readCategories(paper),
    rows: readRows(paper, known),
  };
  // A line that states the vanillin among the paper's own figures is not a row of a table.
  const stated = reading.vanillinPct?.line;
  reading.rows = reading.rows.filter(({ cas, lines }) => cas.length > 0 || lines[0] !== stated);
  const vanillin = reading.rows.find(({ cas }) => cas.includes(VANILLIN_CAS));
  if (!reading.vanillinPct && vanillin) {
    const { highPct: value, said, question } = vanillin;
    reading.vanillinPct = { value, line: vanillin.lines[0]!, said, question };
  }
  return { ...reading, questions: [...questions, ...questionsOf(paper, reading)] };
}

const VANILLIN_CAS = '121-33-5';
