/** What the maker sees of a reading and may correct, and what is filed of it in the end. */
import type { Constituent } from '../../core/formula/types';
import { readNumber } from '../../core/quantities/number';
import type { Taken } from '../../core/paperwork/labelled';
import { LESSON_FIELDS, lessonFrom, type Lesson } from '../../core/paperwork/lessons';
import { withDoubts } from '../../core/paperwork/doubts';
import { isUnsureLine, type Paper } from '../../core/paperwork/page';
import { BAR_SOAP_CATEGORY } from '../../core/paperwork/category-checks';
import type { PaperReading } from '../../core/paperwork/read';
import type { AcceptedPaper } from '../../core/records/papers';

/** A material that a paper may belong to; `maxPct` is what its paper on file says for category 9, percent. */
export interface KnownMaterial {
  id: string;
  name: string;
  maxPct?: number | null;
}

/** One field: its text, where it was taken from, what is asked about it and whether the maker looked. */
export interface DraftField {
  text: string;
  /** Line of the paper; null where nothing was found and the maker types. */
  line: number | null;
  question: string | null;
  isLooked: boolean;
  /** Other readings that fit as well. */
  others: string[];
  /** None of the readings is taken before the maker chose one or typed another. */
  isOpen?: boolean;
}

export const FIELD_WORDS = {
  number: 'Number',
  issuer: 'Issued by',
  issuedOn: 'Issued on',
  edition: 'Edition of the standard',
  maxPct: 'Most in a bar, category 9, %',
  flashPointC: 'Flash point, °C',
  vanillinPct: 'Vanillin, %',
} as const;
export type FieldKey = keyof typeof FIELD_WORDS;

export interface DraftRow {
  isTaken: boolean;
  name: string;
  cas: string;
  /** The constituent it is held as. */
  constituent: string | null;
  low: string;
  typical: string;
  high: string;
  lines: number[];
  question: string | null;
}

export interface Draft {
  material: string;
  materialQuestion: string | null;
  materialLine: number | null;
  fields: Record<FieldKey, DraftField>;
  takesCertificate: boolean;
  otherCategories: { category: string; maxPct: number }[];
  rows: DraftRow[];
  questions: string[];
}

const FROM_PICTURE = 'Read from a picture: compare it with the page.';

const UNSURE = 'Some of this line is read with little certainty: compare it letter by letter.';

/** What is asked of everything that was read from some lines of a picture; null where it is none. */
function askedOf(pictured: Paper | null, lines: readonly number[]): string | null {
  if (pictured === null) return null;
  return lines.some((line) => isUnsureLine(pictured.lines[line])) ? UNSURE : FROM_PICTURE;
}

function field(taken: Taken<string | number> | null | undefined, pictured: Paper | null): DraftField {
  if (!taken) return { text: '', line: null, question: null, isLooked: true, others: [] };
  const { value, line, others = [], isOpen = false } = taken;
  const question = taken.question ?? askedOf(pictured, [line]);
  // Where several readings fit, none stands in the field before it was chosen.
  if (isOpen)
    return { text: '', line, question, isLooked: false, others: [value, ...others].map(String), isOpen };
  return { text: String(value), line, question, isLooked: question === null, others: others.map(String) };
}

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, ' ')
    .trim();

/** Leads the name on the paper to a material in the cupboard; asks where it is not plainly the same. */
function findMaterial(
  reading: PaperReading,
  materials: readonly { id: string; name: string }[],
  wanted: string | null,
): Pick<Draft, 'material' | 'materialQuestion' | 'materialLine'> {
  const taken = reading.material;
  const same = taken && materials.find(({ name }) => plain(name) === plain(taken.value));
  const materialLine = taken?.line ?? null;
  if (same && (!wanted || wanted === same.id))
    return { material: same.id, materialQuestion: null, materialLine };
  const said = taken ? `The paper speaks of “${taken.value}”.` : 'The paper names no material.';
  if (wanted) return { material: wanted, materialQuestion: `${said} Is that this material?`, materialLine };
  return {
    material: same?.id ?? '',
    materialQuestion: `${said} Choose the material it belongs to.`,
    materialLine,
  };
}

type Level = PaperReading['categories'][number];

const isOfBars = ({ value }: Level) => value.category === BAR_SOAP_CATEGORY;

/** The field of the level of bar soap. */
const levelField = (level: Level | undefined, pictured: Paper | null): DraftField =>
  field(
    level && { ...level, value: level.value.maxPct, others: level.others?.map(({ maxPct }) => maxPct) },
    pictured,
  );

/** Nobody is asked about the other categories one by one: what may be ten times too high is not taken. */
const otherLevels = (levels: readonly Level[]) =>
  levels.filter((level) => !level.isOpen && !isOfBars(level)).map(({ value }) => value);

function draftRow(row: PaperReading['rows'][number], pictured: Paper | null): DraftRow {
  return {
    isTaken: row.question === null && row.constituent !== null && pictured === null,
    name: row.name,
    cas: row.cas.join(', '),
    constituent: row.constituent,
    low: String(row.lowPct),
    typical: String(row.typicalPct),
    high: String(row.highPct),
    lines: row.lines,
    question:
      row.question ??
      askedOf(pictured, row.lines) ??
      (row.constituent === null ? 'No rule here speaks of it; it need not be taken.' : null),
  };
}

/** A row that somebody keyed in: hers, and taken; its lines are none of the paper's. */
const keyedRow = (row: PaperReading['rows'][number]): DraftRow => ({
  ...draftRow(row, null),
  isTaken: true,
  lines: [],
});

/**
 * A draft of what might be filed, from a reading. Of a picture, `pictured` is its lines: levels whose point may have been
 * lost are held against their pixels, each other and the paper on file.
 */
export function draftFrom(
  read: PaperReading,
  materials: readonly KnownMaterial[],
  wanted: string | null,
  pictured: Paper | null = null,
): Draft {
  const belongs = findMaterial(read, materials, wanted);
  const known = materials.find(({ id }) => id === belongs.material)?.maxPct ?? null;
  const categories = pictured ? withDoubts(read.categories, pictured, known) : read.categories;
  const reading = { ...read, categories };
  const taken = (one: Taken<string | number> | null | undefined) => field(one, pictured);
  const bar = reading.categories.find(isOfBars);
  return {
    ...belongs,
    fields: {
      number: taken(reading.number),
      issuer: taken(reading.issuer),
      issuedOn: taken(reading.issuedOn),
      edition: taken(reading.edition),
      maxPct: levelField(bar, pictured),
      flashPointC: taken(reading.flashPointC),
      vanillinPct: taken(reading.vanillinPct),
    },
    takesCertificate: bar !== undefined,
    otherCategories: otherLevels(reading.categories),
    rows: reading.rows.map((row) => draftRow(row, pictured)),
    questions: [...reading.questions, ...leftOut(reading), ...unsureLevels(reading, pictured)],
  };
}

/** A draft that nothing was read for: a certificate until somebody says otherwise, and nothing asked about. */
export const byHand = (draft: Draft): Draft => ({
  ...draft,
  takesCertificate: true,
  materialQuestion: null,
  questions: [],
});

/** What only asks for a look at the page is looked at: all that is not doubtful besides is taken. */
export function withTheCertain({ fields, rows, ...draft }: Draft): Draft {
  const looked = Object.entries(fields).map(([key, field]) => [
    key,
    field.question === FROM_PICTURE ? { ...field, isLooked: true } : field,
  ]);
  return {
    ...draft,
    fields: Object.fromEntries(looked) as Draft['fields'],
    rows: rows.map((row) => {
      const isCertain = row.constituent !== null && (row.question === null || row.question === FROM_PICTURE);
      return isCertain ? { ...row, isTaken: true } : row;
    }),
  };
}

/**
 * Rows and levels that were keyed in, with what was there; a level of a category takes the place of the one before. What is
 * asked of the level of bar soap is asked here too; of another category only what is not doubtful is taken.
 */
export function withKeyed(draft: Draft, { categories, rows: keyed }: PaperReading): Draft {
  const { fields, otherCategories, rows } = draft;
  const bar = categories.find(isOfBars);
  const others = otherLevels(categories);
  const isNew = (category: string) => others.some((one) => one.category === category);
  return {
    ...draft,
    fields: bar ? { ...fields, maxPct: { ...levelField(bar, null), line: null } } : fields,
    otherCategories: [...otherCategories.filter(({ category }) => !isNew(category)), ...others],
    rows: [...rows, ...keyed.map(keyedRow)],
  };
}

/** Categories whose level may have lost its point, told because they are left out. */
function leftOut({ categories }: PaperReading): string[] {
  const open = categories.filter((level) => level.isOpen && !isOfBars(level));
  if (open.length === 0) return [];
  const words = open.map(
    ({ value, others = [] }) =>
      `category ${value.category} (${[value, ...others].map(({ maxPct }) => maxPct).join(' or ')} %)`,
  );
  return [`Left out, as a point may have been lost: ${words.join(', ')}.`];
}

/** Levels of other categories that were read with little certainty: taken, and told. */
function unsureLevels({ categories }: PaperReading, pictured: Paper | null): string[] {
  const unsure = categories.filter(
    (level) => !level.isOpen && !isOfBars(level) && isUnsureLine(pictured?.lines[level.line]),
  );
  if (unsure.length === 0) return [];
  const words = unsure.map(({ value }) => `category ${value.category} (${value.maxPct} %)`);
  return [`Read with little certainty, compare them: ${words.join(', ')}.`];
}

const constituentId = (row: DraftRow) =>
  row.constituent ??
  row.name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');

/** The ranges of the rows taken; rows of one constituent add up, as isomers do. */
function constituentsOf(rows: readonly DraftRow[]): Constituent[] {
  const byId = new Map<string, Constituent>();
  for (const row of rows.filter(({ isTaken }) => isTaken)) {
    const id = constituentId(row);
    const sum = byId.get(id) ?? { id, lowPct: 0, typicalPct: 0, highPct: 0 };
    sum.lowPct += readNumber(row.low);
    sum.typicalPct += readNumber(row.typical);
    sum.highPct += readNumber(row.high);
    byId.set(id, sum);
  }
  return [...byId.values()];
}

function rowFault({ name, low, typical, high }: DraftRow): string | null {
  const [a, b, c] = [readNumber(low), readNumber(typical), readNumber(high)];
  if ([a, b, c].some((value) => !Number.isFinite(value) || value < 0 || value > 100))
    return `${name}: give shares from 0 to 100 %.`;
  return a <= b && b <= c ? null : `${name}: the range runs from low to high.`;
}

/** What stands in the way of filing a draft, in words; empty where nothing does. */
export function faultsOf(draft: Draft): string[] {
  const faults: string[] = [];
  const takesRows = draft.rows.some(({ isTaken }) => isTaken);
  if (!draft.material) faults.push('Choose the material the paper belongs to.');
  if (!draft.takesCertificate && !takesRows) faults.push('Nothing is taken yet. Tick what should be filed.');
  for (const [key, label] of Object.entries(FIELD_WORDS) as [FieldKey, string][]) {
    const { question, isLooked, text, isOpen } = draft.fields[key];
    const belongs = draft.takesCertificate || key === 'number' || key === 'issuer' || key === 'issuedOn';
    if (belongs && isOpen && text.trim() === '') faults.push(`${label}: choose what the picture shows.`);
    else if (belongs && question !== null && !isLooked)
      faults.push(`${label}: tick that you have looked at it.`);
    const isNumber = key === 'maxPct' || key === 'flashPointC' || key === 'vanillinPct';
    if (belongs && isNumber && text.trim() !== '' && !Number.isFinite(readNumber(text)))
      faults.push(`${label}: give a number.`);
  }
  if (!draft.fields.number.text.trim()) faults.push('Number: the paper needs one to be told apart.');
  if (!draft.fields.issuer.text.trim()) faults.push('Issued by: say who issued it.');
  if (!/^\d{4}-\d{2}-\d{2}$/.test(draft.fields.issuedOn.text)) faults.push('Issued on: give the day.');
  if (draft.takesCertificate && draft.fields.maxPct.text.trim() === '')
    faults.push('Most in a bar: a certificate needs its maximum for category 9.');
  for (const row of draft.rows.filter(({ isTaken }) => isTaken)) faults.push(...[rowFault(row) ?? []].flat());
  const together = constituentsOf(draft.rows).reduce((sum, { lowPct }) => sum + lowPct, 0);
  if (together > 100.5) faults.push('The low ends of the rows taken add up to more than 100 %.');
  return faults;
}

/** What the maker's corrections teach about papers laid out like this one. */
export function lessonsFrom(paper: Paper, first: Draft, filed: Draft): Lesson[] {
  const from = filed.fields.number.text.trim();
  return LESSON_FIELDS.flatMap((field) => {
    const text = filed.fields[field].text.trim();
    const isCorrected = text !== '' && text !== first.fields[field].text;
    return isCorrected ? (lessonFrom(paper, field, text, from) ?? []) : [];
  });
}

/** The papers to file: a certificate, an allergen declaration, or both. */
export function papersFrom(draft: Draft, fileName: string): AcceptedPaper[] {
  const { fields } = draft;
  const optional = (key: FieldKey) =>
    fields[key].text.trim() === '' ? undefined : readNumber(fields[key].text);
  const common = {
    number: fields.number.text.trim(),
    issuer: fields.issuer.text.trim(),
    issuedOn: fields.issuedOn.text,
    fileName,
  };
  const papers: AcceptedPaper[] = [];
  if (draft.takesCertificate) {
    papers.push({
      ...common,
      type: 'certificate',
      edition: fields.edition.text.trim() || null,
      category: BAR_SOAP_CATEGORY,
      maxPct: optional('maxPct'),
      flashPointC: optional('flashPointC'),
      vanillinPct: optional('vanillinPct'),
      otherCategories: draft.otherCategories,
    });
  }
  const constituents = constituentsOf(draft.rows);
  if (constituents.length > 0) papers.push({ ...common, type: 'allergens', edition: null, constituents });
  return papers;
}
