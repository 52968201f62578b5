/** A product's file: what an authority or an assessor asks to see of a bar in a market, made of what is on file. */
import type { BatchRecord } from '../batch/record';
import type { Batch } from '../batch/types';
import type { Fact } from '../claims/facts';
import type { ClaimFinding } from '../claims/types';
import type { Assessment } from '../formula/answer';
import type { TraitMaterial } from '../formula/traits';
import type { Formula, Market } from '../formula/types';
import type { CheckedItem, AskedItem } from '../labels/checklist';
import type { Standing } from '../labels/standing';
import type { ConditionStand } from '../paperwork/conditions';
import type { RunSheet } from '../making/run-sheet-types';
import type { Complaint, DueTerm } from '../records/complaints';
import type { MaterialDocument, PapersStanding } from '../records/papers';
import type { IssuedLabel, Wrap } from '../records/wrap';

export interface FileTable {
  columns: readonly string[];
  /** Where columns begin, in parts of a hundred of the page's width. */
  at: readonly number[];
  rows: readonly (readonly string[])[];
}

export interface FileSection {
  id: string;
  title: string;
  lines: string[];
  tables: FileTable[];
  /** Lines below its tables. */
  closing: string[];
  /** What it lacks, each with what to do. */
  missing: string[];
}

/** A file that goes along: a paper, a label as it was issued, a record. */
export interface Attached {
  name: string;
  what: string;
}

export interface ProductFile {
  title: string;
  /** Which law asks for it, and what it is called there. */
  of: string;
  market: Market;
  onDate: string;
  rulebookEdition: string;
  /** What it is not. */
  isNot: string;
  missing: string[];
  sections: FileSection[];
  attached: Attached[];
}

/** A material of the formula with its papers. */
export interface FileMaterial {
  material: TraitMaterial;
  supplier: string | null;
  papers: PapersStanding;
  documents: readonly MaterialDocument[];
}

/** A batch with its record and how its bars lost weight. */
export interface FileBatch {
  record: BatchRecord;
  weighings: Batch['barWeighings'];
}

/** All that a file is made of. */
export interface FileInput {
  name: string;
  market: Market;
  onDate: string;
  /** The zone whose days are told. */
  zone: string;
  rulebookEdition: string;
  firstPlacedOn: string | null;
  standing: Standing;
  regimeWords: string;
  /** Name and address of who answers there. */
  responsible: readonly string[];
  wrap: Wrap;
  formula: Formula;
  assessment: Assessment;
  materials: readonly FileMaterial[];
  /** What only papers show, in this market. */
  conditions: readonly ConditionStand[];
  sheet: RunSheet | null;
  items: readonly CheckedItem<AskedItem>[];
  claims: readonly ClaimFinding[];
  facts: readonly Fact[];
  batches: readonly FileBatch[];
  issued: readonly IssuedLabel[];
  complaints: readonly (Complaint & { terms: DueTerm[] })[];
  /** How long records are kept there, in words; null where none was found. */
  keptWords: string | null;
  attached: readonly Attached[];
}

/** A section with nothing in it yet. */
export const section = (id: string, title: string): FileSection => ({
  id,
  title,
  lines: [],
  tables: [],
  closing: [],
  missing: [],
});

/** A share in percent with as many figures as it is known to. */
export const percent = (value: number): string => `${Number(value.toPrecision(4))} %`;
