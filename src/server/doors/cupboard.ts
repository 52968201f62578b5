/** The doors of the cupboard: materials, papers, lots, mixes and moulds. */
import { CONCERNS, FOODS, ORIGINS } from '../../core/formula/traits';
import { MOULD_FORMS, MOULD_WALLS } from '../../core/heat/types';
import { LESSON_FIELDS, LESSON_PLACES, LONGEST_LABEL } from '../../core/paperwork/lessons';
import { MaterialBodyDoor } from './assessment-request';
import {
  Clearable,
  Day,
  Id,
  ListOf,
  LONGEST,
  Name,
  Nested,
  NumberBetween,
  OneOf,
  Optional,
  OrNull,
  Percent,
  Rule,
  Text,
  Values,
  YesNo,
} from './fields';
import { FirstRevision, Revision } from './revision';

const MOST_ROWS = 500;
const MOST_PAPERS = 4;
const MOST_GRAMS = 1e7;
const MOST_PRICE = 1e7;
const HOTTEST_C = 400;

const LARGEST_GRAIN_UM = 20_000;
const isGrain = (value: unknown) => typeof value === 'number' && value >= 0 && value <= LARGEST_GRAIN_UM;
const MOST_TIMES = 100;
const isTimes = (value: unknown) => typeof value === 'number' && value >= 0 && value <= MOST_TIMES;
const isConcern = (value: unknown) => (CONCERNS as readonly unknown[]).includes(value);
const isFood = (value: unknown) => (FOODS as readonly unknown[]).includes(value);

class BehaviourDoor {
  @Optional()
  @Values(2, 'not-a-number', 'Give the smallest and the largest grain, micrometres.', isGrain)
  grainUm?: number[];
  @Optional() @YesNo() sharp?: boolean;
  @Optional() @Text(LONGEST.line) colour?: string;
  @Optional() @YesNo() stains?: boolean;
  @Optional() @YesNo() swells?: boolean;
  @Optional()
  @Values(2, 'not-a-number', 'Give how many times its weight wets it, low and high.', isTimes)
  wettingTimes?: number[];
  @Optional() @YesNo() drawsWater?: boolean;
  @Optional() @YesNo() speeds?: boolean;
  @Optional() @YesNo() rices?: boolean;
  @Optional() @Percent() sugarPct?: number;
}

/** What a maker's own material holds and how it behaves. */
class OwnBodyDoor extends MaterialBodyDoor {
  @Clearable() @OneOf(ORIGINS) origin?: string;
  @Clearable()
  @Values(FOODS.length, 'not-allowed', `Choose of: ${FOODS.join(', ')}.`, isFood)
  foods?: string[];
  @Clearable() @NumberBetween(0, 5) poreClogging?: number;
  @Clearable() @Nested(() => BehaviourDoor) behaviour?: BehaviourDoor;
  @Clearable()
  @Values(CONCERNS.length, 'not-allowed', `Choose of: ${CONCERNS.join(', ')}.`, isConcern)
  concerns?: string[];
}

/** A material of the maker's own, as a whole; what the door does not name is not taken. */
export class OwnMaterialDoor {
  @Nested(() => OwnBodyDoor) material!: OwnBodyDoor;
  @Clearable() @Text(LONGEST.name) supplier?: string | null;
}

export class ChangedMaterialDoor extends OwnMaterialDoor {
  @Revision() revision!: number;
}

/** Takes a material of the starter library into the cupboard. */
export class FromLibraryDoor {
  @Id() library!: string;
  @Optional() @Text(LONGEST.name) supplier?: string;
}

class ConstituentRangeDoor {
  @Id() id!: string;
  @Percent() lowPct!: number;
  @Percent() typicalPct!: number;
  @Percent() highPct!: number;
}

class CategoryDoor {
  @Id() category!: string;
  @Percent() maxPct!: number;
}

class ConstituentLimitDoor {
  @Id() constituent!: string;
  @Percent() maxPct!: number;
}

export class PaperDoor {
  @OneOf(['certificate', 'allergens']) type!: string;
  @Name('the paper') number!: string;
  @OrNull() @Text(LONGEST.short) edition!: string | null;
  @Day() issuedOn!: string;
  @Name('the issuer') issuer!: string;
  @Optional() @Percent() maxPct?: number;
  @Optional() @Text(LONGEST.short) category?: string;
  @Optional() @ListOf(() => CategoryDoor, MOST_ROWS) otherCategories?: CategoryDoor[];
  @Optional() @ListOf(() => ConstituentLimitDoor, MOST_ROWS) limits?: ConstituentLimitDoor[];
  @Optional() @Percent() vanillinPct?: number;
  @Optional() @NumberBetween(-100, HOTTEST_C) flashPointC?: number;
  @Optional() @ListOf(() => ConstituentRangeDoor, MOST_ROWS) constituents?: ConstituentRangeDoor[];
  @Optional() @Text(LONGEST.line) fileName?: string;
}

const isMark = (value: unknown) =>
  typeof value === 'string' && value.length > 0 && value.length <= LONGEST_LABEL && !/\p{C}/u.test(value);
const MOST_MARKS = 100;
const FARTHEST_CELL = 50;

class LessonDoor {
  @OneOf(LESSON_FIELDS) field!: string;
  @Values(MOST_MARKS, 'not-text', 'Give short texts.', isMark) marks!: string[];
  @OneOf(LESSON_PLACES) place!: string;
  @Name('the label') label!: string;
  @NumberBetween(0, FARTHEST_CELL) step!: number;
  @Name('the paper') learntFrom!: string;
}

/** What the reader of papers was taught, as a whole. */
export class LessonsDoor {
  @ListOf(() => LessonDoor, MOST_ROWS) lessons!: LessonDoor[];
}

export class FilePapersDoor {
  @ListOf(() => PaperDoor, MOST_PAPERS) papers!: PaperDoor[];
  @OrNull() @Id() inbox!: string | null;
  @Optional() @ListOf(() => LessonDoor, LESSON_FIELDS.length) lessons?: LessonDoor[];
}

/** mmol per litre; far past any oil that could still be sold. */
const MOST_PEROXIDE = 1000;

export class LotDoor {
  @Text(LONGEST.name) supplier!: string;
  @Name('the lot') code!: string;
  @Day() receivedOn!: string;
  @OrNull() @Day() openedOn!: string | null;
  @OrNull() @Day() bestBefore!: string | null;
  @NumberBetween(0, MOST_GRAMS) quantityG!: number;
  @NumberBetween(0, MOST_GRAMS) leftG!: number;
  @OrNull() @NumberBetween(0, MOST_PRICE) price!: number | null;
  @Clearable() @NumberBetween(0, MOST_PEROXIDE) peroxideMmolPerL?: number | null;
  @Clearable() @Day() peroxideOn?: string | null;
  @Clearable() @Text(LONGEST.line) quarantine?: string | null;
}

export class ChangedLotDoor extends LotDoor {
  @Revision() revision!: number;
}

class MixPartDoor {
  @Id() material!: string;
  @NumberBetween(0, 1e6) parts!: number;
}

/** Parts of one mix; nobody weighs more into one. */
const MOST_MIX_PARTS = 100;

function areDifferent(parts: unknown): boolean {
  if (!Array.isArray(parts)) return true;
  const ids = parts.map((part: MixPartDoor) => part.material);
  return new Set(ids).size === ids.length;
}

export class MixDoor {
  @Name('the mix') name!: string;
  @ListOf(() => MixPartDoor, MOST_MIX_PARTS)
  @Rule('twice', 'A material stands twice in this mix. Put its parts together in one row.', areDifferent)
  parts!: MixPartDoor[];
}

export class MixChangeDoor extends MixDoor {
  @Revision() revision!: number;
}

/** Wall and inside of a mould; mm. */
class MouldMakeDoor {
  @OneOf(MOULD_WALLS) wall!: string;
  @OneOf(MOULD_FORMS) form!: string;
  @NumberBetween(10, 5000) widthMm!: number;
  @NumberBetween(10, 5000) lengthMm!: number;
}

class MouldDoor {
  @Id() id!: string;
  @Name('the mould') name!: string;
  @NumberBetween(1, 1e6) volumeMl!: number;
  @NumberBetween(1, 10_000) cavities!: number;
  @Optional() @YesNo() isSingle?: boolean;
  @Optional() @Nested(() => MouldMakeDoor) make?: MouldMakeDoor | null;
}

export class MouldsDoor {
  @FirstRevision() revision!: number;
  @ListOf(() => MouldDoor, MOST_ROWS) moulds!: MouldDoor[];
}
