/** The maker's own settings. Each counts its changes; a change names the revision it was made from. */
import { NOT_LOOKED, type KeptSure } from '../../core/records/sure';
import type { Knex } from 'knex';
import type { InlineEdition } from '../../core/change/types';
import type { OwnPhrase } from '../../core/claims/types';
import type { Limit } from '../../core/formula/types';
import type { ShownCondition } from '../../core/paperwork/conditions';
import type { WrittenLetter } from '../../core/paperwork/supplier-letter';
import type { Lesson } from '../../core/paperwork/lessons';
import type { SheetLesson } from '../../core/sheets/sheet-lessons';
import { NO_PRICING, type Pricing } from '../../core/making/price';
import type { Mould } from '../../core/making/size';
import type { CraftFigures } from '../../core/records/cupboard';
import { USUAL_MIN_DAYS } from '../../core/curing/cure';
import { USUAL_SALE_DAYS } from '../../core/stock/pace';
import type { CuringDays } from '../../core/records/rack';
import type { BackupSettings, DemoThings, HouseSettings } from '../../core/records/house';
import type { RangeView } from '../../core/records/range';
import type { RuleNotes } from '../../core/records/rulebook';
import type { NextPlans } from '../../core/records/next';
import type { Maker } from '../../core/records/wrap';

/** What is kept under which key, and what counts before it is set. */
interface Settings {
  /** What papers show of conditions, by material. */
  shownConditions: Record<string, ShownCondition[]>;
  /** Letters to suppliers, by material, newest first. */
  letters: Record<string, WrittenLetter[]>;
  maker: Maker | null;
  craftFigures: CraftFigures;
  moulds: Mould[];
  currency: string;
  pricing: Pricing;
  ownPhrases: OwnPhrase[];
  paperLessons: Lesson[];
  /** What was said about sheets that were taken in, the newest first. */
  sheetLessons: SheetLesson[];
  /** Of the calendar's address; empty before there is one. */
  calendarKey: string;
  plans: NextPlans;
  curingDays: CuringDays;
  /** By how much the pace of sales is widened; found from what sold. */
  sure: KeptSure;
  /** The edition in force where it is not the newest that ships; and those that were taken in. */
  editions: { inForce: string | null; onFile: InlineEdition[] };
  ownLimits: Limit[];
  ruleNotes: RuleNotes;
  /** Ways of looking at the range, kept by name. */
  rangeViews: RangeView[];
  backups: BackupSettings;
  house: HouseSettings;
  /** What the demo brought; null where there is none, or it was taken out again. */
  demo: DemoThings | null;
}

const BEFORE: Settings = {
  shownConditions: {},
  letters: {},
  maker: null,
  craftFigures: {},
  moulds: [],
  currency: 'EUR',
  pricing: NO_PRICING,
  ownPhrases: [],
  paperLessons: [],
  sheetLessons: [],
  calendarKey: '',
  plans: { wanted: [], planned: [] },
  editions: { inForce: null, onFile: [] },
  ownLimits: [],
  ruleNotes: {},
  rangeViews: [],
  backups: { everyHours: 1, copyTo: '' },
  house: { markets: ['EU', 'UK'] },
  demo: null,
  curingDays: { least: USUAL_MIN_DAYS, usual: USUAL_SALE_DAYS },
  sure: NOT_LOOKED,
};

export interface Setting<T> {
  value: T;
  /** 0 before it is set for the first time. */
  revision: number;
}

/** A setting with its revision. */
export async function findSetting<K extends keyof Settings>(db: Knex, key: K): Promise<Setting<Settings[K]>> {
  const row: { value: string; revision: number } | undefined = await db('settings').where('key', key).first();
  return row
    ? { value: JSON.parse(row.value) as Settings[K], revision: row.revision }
    : { value: BEFORE[key], revision: 0 };
}

/** Sets a setting whatever its revision was; answers the new one. */
export async function putSetting<K extends keyof Settings>(
  trx: Knex,
  key: K,
  value: Settings[K],
): Promise<Setting<Settings[K]>> {
  const revision = (await findSetting(trx, key)).revision + 1;
  await trx('settings')
    .insert({ key, revision, value: JSON.stringify(value) })
    .onConflict('key')
    .merge();
  return { value, revision };
}

/** The maker on file, or null before any is set. */
export const findMaker = async (db: Knex): Promise<Maker | null> => (await findSetting(db, 'maker')).value;

/** The maker's own craft figures; empty before any is set. */
export const findCraftFigures = async (db: Knex): Promise<CraftFigures> =>
  (await findSetting(db, 'craftFigures')).value;

/** The rules of the house besides those that ship: own figures, own limits, the edition in force. */
export interface HouseRules {
  figures: CraftFigures;
  ownLimits: Limit[];
  editions: Settings['editions'];
}

/** The rules of the house. */
export async function findHouseRules(db: Knex): Promise<HouseRules> {
  const figures = await findCraftFigures(db);
  const { value: ownLimits } = await findSetting(db, 'ownLimits');
  const { value: editions } = await findSetting(db, 'editions');
  return { figures, ownLimits, editions };
}

/** The currency that prices are in, as its three letters. */
export const findCurrency = async (db: Knex): Promise<string> => (await findSetting(db, 'currency')).value;
