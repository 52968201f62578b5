/**
 * What comes in from an archive, row by row, held against the same shapes as at its door: what a screen would refuse, a
 * file does not bring either.
 */
import { foldBatch } from '../../core/batch/fold';
import type { BatchEvent } from '../../core/batch/types';
import { TASK_KINDS } from '../../core/change/tasks';
import { VERDICTS } from '../../core/formula/answer';
import { MARKETS } from '../../core/formula/types';
import { PAPER_TYPES } from '../../core/records/papers';
import { CHANGE_STATES } from '../../core/records/watch';
import { DeclarableDoor, FormulaDoor, LimitDoor, MaterialDoor } from './assessment-request';
import { checkEvents } from './batch';
import { checkChange } from './change';
import { LetterFiledDoor, ShownFiledDoor } from './conditions';
import { ComplaintFiledDoor } from './complaints';
import { LessonsDoor, LotDoor, MixDoor, MouldsDoor, PaperDoor } from './cupboard';
import {
  Day,
  Id,
  isDay,
  ListOf,
  LONGEST,
  Name,
  Nested,
  OneOf,
  OrNull,
  RecordOf,
  Text,
  Values,
} from './fields';
import { SettingsDoor } from './house';
import { MakerDoor } from './maker';
import { PlansDoor } from './next';
import { PricingDoor } from './pricing';
import { ProductDetailsDoor } from './product';
import { SheetLessonsDoor } from './import';
import { CuringDaysDoor } from './rack';
import { RangeViewsDoor } from './range';
import { checkShape, hostilePlace } from './shape';
import type { Door } from './structure';
import { FormatDoor, OwnPhrasesDoor, WrapDoor } from './wrap';

/** A row with its JSON columns read. */
export type ArchiveRow = Readonly<Record<string, unknown>>;
/** What is wrong with a row, in words; null where nothing is. */
type Check = (row: ArchiveRow) => string | null;

/** Settings of a house that no archive carries: where its backups go, what its demo brought, its secret address. */
export const OWN_SETTINGS: readonly string[] = ['backups', 'demo', 'calendarKey', 'sure'];

const MOST = 5000;
const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isText = (value: unknown): value is string => typeof value === 'string';
const isNumber = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);
const first = (...checks: (string | null)[]) => checks.find((one) => one !== null) ?? null;
const where = (holds: boolean, why: string) => (holds ? null : why);

function shape(door: Door, value: unknown): string | null {
  const shaped = checkShape(door, value);
  if (shaped.ok) return null;
  const { path, message } = shaped.errors[0]!;
  return `${path}: ${message}`;
}

/** With the revision that its door asks for. */
const revised = (door: Door, value: object) => shape(door, { revision: 1, ...value });

class EditionFiledDoor {
  @Name('the edition') edition!: string;
  @Day() dated!: string;
  @Name('its title', LONGEST.line) title!: string;
  @ListOf(() => LimitDoor, MOST) limits!: LimitDoor[];
  @ListOf(() => DeclarableDoor, MOST) declarables!: DeclarableDoor[];
}

class EditionsDoor {
  @OrNull() @Id() inForce!: string | null;
  @ListOf(() => EditionFiledDoor, 100) onFile!: EditionFiledDoor[];
}

class OwnLimitsDoor {
  @ListOf(() => LimitDoor, MOST) limits!: LimitDoor[];
}

class ElementDoor {
  @Id() id!: string;
  @Text(20_000) text!: string;
}

class FrontDoor {
  @Text() name!: string;
  @Text() identity!: string;
  @Text() net!: string;
}

class ContentDoor {
  @OneOf(MARKETS) market!: string;
  @Nested(() => FrontDoor) front!: FrontDoor;
  @ListOf(() => ElementDoor, 100) info!: ElementDoor[];
}

class PaperNamedDoor {
  @Text(LONGEST.name) material!: string;
  @Text(LONGEST.name) number!: string;
  @Text(LONGEST.name) issuer!: string;
  @Day() issuedOn!: string;
}

/** A label as it was issued. */
class IssuedDoor {
  @Id() id!: string;
  @Id() productId!: string;
  @OneOf(MARKETS) market!: string;
  @Day() issuedOn!: string;
  @Text(LONGEST.name) product!: string;
  @Nested(() => ContentDoor) content!: ContentDoor;
  @OneOf(['added', 'formed']) school!: string;
  @OneOf(['soap', 'cosmetic', 'medicine']) regime!: string;
  @Nested(() => FormatDoor) format!: FormatDoor;
  @Text(LONGEST.short) batchCode!: string;
  @Nested(() => FormulaDoor) formula!: FormulaDoor;
  @ListOf(() => PaperNamedDoor, MOST) papers!: PaperNamedDoor[];
  @Text(LONGEST.name) rulebookEdition!: string;
  @OneOf(VERDICTS) verdict!: string;
}

class TaskFiledDoor {
  @Id() id!: string;
  @OneOf(TASK_KINDS) kind!: string;
  @Text(LONGEST.line) what!: string;
  @Text(LONGEST.line) subject!: string;
  @OrNull() @OneOf(MARKETS) market!: string | null;
  @Text() words!: string;
  @OrNull() @Day() dueOn!: string | null;
  @Text(LONGEST.short) at!: string;
  @OrNull() @Text(LONGEST.short) doneAt!: string | null;
  @OrNull() @Text() doneNote!: string | null;
}

const isCount = (value: unknown) => isNumber(value) && value >= 0;

class WeighedDoor {
  @Nested(() => FormulaDoor) formula!: FormulaDoor;
  @RecordOf(MARKETS, 'not-a-day', 'Give a day for each market.', isDay) releasedOn!: object;
  @Values(MOST * 10, 'not-text', 'Give names.', isText) buyers!: string[];
}

/** Lists of one door by the material they are of. */
const listsByMaterial = (door: Door, value: unknown): string | null =>
  isObject(value) && Object.values(value).every(Array.isArray)
    ? first(...Object.values(value).flatMap((all) => (all as unknown[]).map((one) => shape(door, one))))
    : 'what papers show and letters are lists by material.';

/** Settings by their key; a key that is not here comes from no house. */
const SETTINGS: Readonly<Record<string, (value: unknown) => string | null>> = {
  maker: (value) => (value === null ? null : revised(MakerDoor, value as object)),
  craftFigures: (value) =>
    where(
      isObject(value) && Object.values(value).every((one) => isNumber(one) && one >= 0 && one <= 100),
      'craft figures are percents.',
    ),
  moulds: (moulds) => revised(MouldsDoor, { moulds }),
  currency: (currency) => revised(SettingsDoor, { currency, markets: ['EU'] }),
  ownPhrases: (phrases) => revised(OwnPhrasesDoor, { phrases }),
  paperLessons: (lessons) => shape(LessonsDoor, { lessons }),
  pricing: (value) => shape(PricingDoor, value),
  sheetLessons: (lessons) => shape(SheetLessonsDoor, { lessons }),
  shownConditions: (value) => listsByMaterial(ShownFiledDoor, value),
  letters: (value) => listsByMaterial(LetterFiledDoor, value),
  plans: (value) => revised(PlansDoor, value as object),
  curingDays: (value) => revised(CuringDaysDoor, value as object),
  editions: (value) => shape(EditionsDoor, value),
  ownLimits: (limits) => shape(OwnLimitsDoor, { limits }),
  ruleNotes: (value) =>
    where(
      isObject(value) && Object.values(value).every((one) => isText(one) && one.length <= LONGEST.line),
      'notes are texts.',
    ),
  rangeViews: (views) => revised(RangeViewsDoor, { views }),
  house: (value) => revised(SettingsDoor, { currency: 'EUR', ...(value as object) }),
};

/** Files that are kept: papers as they come in, pictures. */
const FILE_TYPES: readonly string[] = [...Object.values(PAPER_TYPES), 'image/svg+xml'];
const hasFileType: Check = ({ mime }) =>
  where(isText(mime) && FILE_TYPES.includes(mime), 'its file is of no kind that is kept.');

function checkEvent({ id, body }: ArchiveRow): string | null {
  if (!isObject(body) || body.id !== id) return 'its id is another one.';
  if (body.type !== 'started') {
    const checked = checkEvents({ events: [body] });
    return checked.ok ? null : `${checked.errors[0]!.path}: ${checked.errors[0]!.message}`;
  }
  const { formula, materials, product, code, sheet } = body;
  if (!Array.isArray(materials) || !isText(product) || !isText(code) || !isObject(sheet))
    return 'its plan is not what it has to be.';
  return first(
    shape(FormulaDoor, formula),
    ...materials.map((one) => shape(MaterialDoor, one)),
    where(foldBatch([body as unknown as BatchEvent]) !== null, 'it cannot be followed.'),
  );
}

const bodyOf = ({ body }: ArchiveRow) => (isObject(body) ? body : {});
const isOf = (row: ArchiveRow, column: string, key: string) =>
  where(bodyOf(row)[key] === row[column], `its ${key} is another one.`);

const CHECKS: Readonly<Record<string, Check>> = {
  settings: ({ key, value }) =>
    isText(key) && Object.hasOwn(SETTINGS, key)
      ? isObject(value) || ['plans', 'curingDays', 'editions', 'house'].every((one) => one !== key)
        ? SETTINGS[key]!(value)
        : 'it is not what it has to be.'
      : 'there is no such setting.',
  logos: hasFileType,
  materials: (row) =>
    first(
      isOf(row, 'id', 'id'),
      shape(MaterialDoor, row.body),
      row.mix === null || row.mix === undefined ? null : shape(MixDoor, { name: 'a mix', parts: row.mix }),
    ),
  documents: (row) =>
    first(isOf(row, 'id', 'id'), isOf(row, 'material_id', 'materialId'), shape(PaperDoor, row.body)),
  lots: (row) =>
    first(
      isOf(row, 'id', 'id'),
      isOf(row, 'material_id', 'material'),
      shape(LotDoor, { leftG: 0, ...bodyOf(row) }),
    ),
  products: (row) => first(isOf(row, 'id', 'id'), revised(ProductDetailsDoor, bodyOf(row))),
  formula_versions: ({ formula }) => shape(FormulaDoor, formula),
  wraps: ({ body }) => shape(WrapDoor, body),
  issued_labels: (row) =>
    first(
      isOf(row, 'id', 'id'),
      isOf(row, 'product_id', 'productId'),
      shape(IssuedDoor, row.body),
      where(isNumber(bodyOf(row).netMassG), 'its net weight is no number.'),
    ),
  batches: ({ summary, weighed }) =>
    first(
      where(
        isObject(summary) && isObject(summary.bars) && Object.values(summary.bars).every(isCount),
        'what it holds is no count of bars.',
      ),
      weighed === null || weighed === undefined ? null : shape(WeighedDoor, weighed),
    ),
  batch_events: checkEvent,
  batch_photos: hasFileType,
  inbox: hasFileType,
  changes: ({ body, state, result, decision }) => {
    const checked = checkChange({ change: body });
    return first(
      checked.ok ? null : checked.errors[0]!.message,
      where((CHANGE_STATES as readonly unknown[]).includes(state), 'its state is none.'),
      where(result === null || isObject(result), 'what was found is not what it has to be.'),
      where(
        decision === null || (isObject(decision) && isText(decision.decision) && isText(decision.at)),
        'what was decided is not what it has to be.',
      ),
    );
  },
  tasks: (row) => first(isOf(row, 'id', 'id'), shape(TaskFiledDoor, row.body)),
  complaints: (row) => first(isOf(row, 'id', 'id'), shape(ComplaintFiledDoor, row.body)),
};

/**
 * What is wrong with a row of an archive's table, in words; null where nothing is.
 *
 * @example
 * archiveFault('settings', { key: 'moulds', value: 7 }) // 'moulds: Give a list here.'
 */
export function archiveFault(table: string, row: ArchiveRow): string | null {
  for (const value of Object.values(row)) {
    const hostile = hostilePlace(value);
    if (hostile) return `${hostile.path}: ${hostile.message}`;
  }
  return CHECKS[table]?.(row) ?? null;
}
