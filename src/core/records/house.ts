/** The house as screens and server know it: backups, this installation, what can be set. */
import type { Country, LabelLanguage, OwnLabelWords } from '../labels/languages';
import type { Market } from '../formula/types';

export const BACKUP_REASONS = [
  'byTime',
  'byHand',
  'beforeRestore',
  'beforeMigration',
  'beforeImport',
] as const;
export type BackupReason = (typeof BACKUP_REASONS)[number];

export interface Backup {
  /** Its file's name without the ending. */
  id: string;
  at: string;
  reason: BackupReason;
  bytes: number;
  sha256: string;
  /** Null where it was opened and holds together; else what is wrong with it. */
  fault: string | null;
}

export interface BackupSettings {
  /** A backup is made when something changed and the last one is so old. */
  everyHours: number;
  /** Another folder that copies go into; empty for none. */
  copyTo: string;
}

export interface ListedBackup extends Backup {
  /** Its moment is still to come: it was made while the clock was ahead. */
  isAhead: boolean;
}

export interface BackupsData {
  backups: ListedBackup[];
  settings: BackupSettings;
  revision: number;
  /** The newest that holds together and is not ahead of the clock; null where there is none. */
  lastGood: string | null;
  isOld: boolean;
  /** What went wrong with the last copy into the other folder; null where nothing did. */
  copyFault: string | null;
  /** Where they lie. */
  folder: string;
}

/** An archive that waits to be taken: what of it is new here, the same, or different. */
export interface ArchivePreview {
  id: string;
  of: 'everything' | 'bar';
  title: string;
  madeAt: string;
  things: { thing: string; id: string; title: string; state: 'new' | 'same' | 'different' }[];
}

export const DEGREES = ['C', 'F'] as const;
export const WEIGHTS = ['g', 'oz'] as const;
/** What a bare percent of a scent is of. */
export const SCENT_PERCENTS = ['%fats', '%pour'] as const;

/** What this house is used to: how warmth is said, and what a new line is weighed in. */
export interface Habits {
  degrees: (typeof DEGREES)[number];
  weights: (typeof WEIGHTS)[number];
  /** The zone whose days and clock the house goes by, by its IANA name. */
  zone: string;
  /** What a bare percent of a scent is of; null until it was said once. */
  scentPercents: (typeof SCENT_PERCENTS)[number] | null;
}

export const USUAL_HABITS: Omit<Habits, 'zone'> = { degrees: 'C', weights: 'g', scentPercents: null };

/** Habits may be missing from settings of an earlier make: then the usual ones. */
export interface HouseSettings extends Partial<Habits> {
  /** Where a new bar is sold until something else is said. */
  markets: Market[];
  /** What labels in the EU speak; none for whatever words are given. */
  labelLanguages?: LabelLanguage[];
  /** Countries that labels in the EU are made for; their languages come first. */
  labelCountries?: Country[];
  /** The maker's own in the place of fixed words on labels. */
  labelWords?: OwnLabelWords;
  /** Where the pages of batches stand on the maker's own site; empty or absent for nowhere. */
  cardsAt?: string;
}

/** Ids of what the demo brought. */
export interface DemoThings {
  bars: string[];
  materials: string[];
  batches: string[];
  papers: string[];
}

/** Currencies of the markets and their neighbours, as three letters. */
export const CURRENCIES = [
  'EUR',
  'GBP',
  'USD',
  'CAD',
  'AUD',
  'CHF',
  'SEK',
  'NOK',
  'DKK',
  'PLN',
  'CZK',
  'NZD',
] as const;

export interface SettingsData extends HouseSettings {
  /** As it was set, else the machine's. */
  zone: string;
  currency: string;
  revision: number;
  /** How much of the demo is still here. */
  demo: { bars: number; materials: number; batches: number } | null;
}

/** This installation. */
export interface Installation {
  version: string;
  node: string;
  folder: string;
  databaseBytes: number;
  backupBytes: number;
  counts: { bars: number; materials: number; batches: number; papers: number };
  /** What is wrong with the database, or null where it holds together. */
  fault: string | null;
  /** The moment it was looked over; null where that still goes on. */
  lookedAt: string | null;
  lastGood: string | null;
  rulebook: string;
}
