/** The door of `POST /api/v1/assess`: the shape of a request, field by field. */
import { Equals } from 'class-validator';
import {
  FORCES,
  FORMULA_FORMAT,
  INCI_ROLES,
  KINDS,
  LIMIT_BASES,
  LIQUID_BASES,
  MARKETS,
  MEASURES,
  PROCESSES,
  REQUEST_FORMAT,
  SAPONIFIES_AS,
  SCENT_NAMINGS,
  STAGES,
  SUBJECT_TYPES,
  USED_ON,
  FATTY_ACIDS,
} from '../../core/formula/types';
import { UNITS } from '../../core/quantities/units';
import {
  all,
  Clearable,
  Day,
  Id,
  ListOf,
  LONGEST,
  MarketDays,
  Markets,
  Nested,
  NotEmpty,
  NumberBetween,
  OneOf,
  Optional,
  Percent,
  Quantity,
  RecordOf,
  Rule,
  Text,
  Values,
  YesNo,
} from './fields';

const MOST_LINES = 500;
const MOST_BARS = 10_000;
const MOST_PORTIONS = 50;
const MOST_MATERIALS = 2000;
const MOST_RULES = 5000;
const MOST_PARTS = 500;
/** Grams of sodium hydroxide one gram of anything can take up stay well under this. */
const MOST_UPTAKE = 5;

function Format(expected: string): PropertyDecorator {
  return Equals(expected, { message: `Send "${expected}" here.`, context: { code: 'format' } });
}

const PER = ['product', 'unit'];

const isShare = (value: unknown) => typeof value === 'number' && value >= 0 && value <= 100;
const isShortName = (value: unknown) =>
  typeof value === 'string' && value.length > 0 && value.length <= LONGEST.name && !/\p{C}/u.test(value);

class AmountDoor {
  @Quantity() value!: number;
  @OneOf(UNITS, 'unknown-unit') unit!: string;
}

class DoubtDoor {
  @NumberBetween(0, 1000) low!: number;
  @NumberBetween(0, 1000) high!: number;
}

class LineDoor {
  @Id() id!: string;
  @Id() material!: string;
  @OneOf(STAGES) stage!: string;
  @Nested(() => AmountDoor) amount!: AmountDoor;
  @Optional() @OneOf(MEASURES) measuredBy?: string;
  @Optional() @NumberBetween(0, 1000) uncertaintyPct?: number;
  @Optional() @Nested(() => DoubtDoor) doubtPct?: DoubtDoor;
  @Optional() @Id() portion?: string;
}

class PortionDoor {
  @Id() id!: string;
  @NumberBetween(0, 1) share!: number;
}

class AlkaliDoor {
  @Optional() @NumberBetween(-100, 100) superfatPct?: number;
  @Optional() @Quantity() massG?: number;
  @Optional() @NumberBetween(1, 100) purityPct?: number;
}

class LiquidDoor {
  @OneOf(LIQUID_BASES) basis!: string;
  @LiquidValue() value!: number;
}

/** An alkali concentration is a percent above 0; the other bases take any quantity. */
function LiquidValue(): PropertyDecorator {
  const message = 'An alkali concentration lies above 0 and up to 100 %.';
  return all(
    Quantity(),
    Rule('concentration', message, (value, door) => {
      const isConcentration = (door as LiquidDoor).basis === 'alkaliConcentration';
      return !isConcentration || typeof value !== 'number' || (value > 0 && value <= 100);
    }),
  );
}

class CureDoor {
  @Optional() @NumberBetween(0, 99) residualWaterPct?: number;
  @Optional() @NumberBetween(0.01, 1) massRatio?: number;
}

/** A formula, on its own or in a request. */
export class FormulaDoor {
  @Optional() @Format(FORMULA_FORMAT) format?: string;
  @Optional() @Text(LONGEST.name) name?: string;
  @Optional() @OneOf(PROCESSES) process?: string;
  @Optional() @Quantity() fatsMassG?: number;
  @Nested(() => AlkaliDoor) alkali!: AlkaliDoor;
  @Optional() @Nested(() => LiquidDoor) liquid?: LiquidDoor;
  @Optional() @Nested(() => CureDoor) cure?: CureDoor;
  @Optional() @Percent() marginPct?: number;
  @Optional() @ListOf(() => PortionDoor, MOST_PORTIONS) portions?: PortionDoor[];
  @Optional() @OneOf(SCENT_NAMINGS) scentNaming?: string;
  @Optional() @NumberBetween(1, MOST_BARS) bars?: number;
  @Optional() @OneOf(USED_ON) usedOn?: string;
  @ListOf(() => LineDoor, MOST_LINES) lines!: LineDoor[];
}

class SaponificationDoor {
  @NumberBetween(0, MOST_UPTAKE) naohPerGram!: number;
  @Optional() @OneOf(SAPONIFIES_AS) as?: string;
  @Optional() @Text(LONGEST.line) formedInci?: string;
}

class InciDoor {
  @Id() name!: string;
  @Percent() sharePct!: number;
  @Optional() @OneOf(INCI_ROLES) role?: string;
  @Optional()
  @RecordOf(MARKETS, 'not-text', 'Give a short name for each known market.', isShortName)
  names?: object;
  @Optional() @Id() colour?: string;
}

class ConstituentDoor {
  @Id() id!: string;
  @Percent() lowPct!: number;
  @Percent() typicalPct!: number;
  @Percent() highPct!: number;
}

class SubjectDoor {
  @OneOf(SUBJECT_TYPES) type!: string;
  @Id() id!: string;
}

export class LimitDoor {
  @Id() id!: string;
  @Nested(() => SubjectDoor) subject!: SubjectDoor;
  @Percent() maxPct!: number;
  @OneOf(LIMIT_BASES) basis!: string;
  @OneOf(FORCES) force!: string;
  @Optional() @Markets() markets?: string[];
  @Optional() @Day() from?: string;
  @Optional() @Day() to?: string;
  @Optional() @Text(LONGEST.line) source?: string;
  @Optional() @YesNo() onlyUnproven?: boolean;
}

class MadeOfDoor {
  @Id() material!: string;
  @OneOf(KINDS) kind!: string;
  @Percent() sharePct!: number;
}

/** What a material holds and how it behaves; its id goes beside it. */
export class MaterialBodyDoor {
  @Id() name!: string;
  @OneOf(KINDS) kind!: string;
  @Clearable() @Nested(() => SaponificationDoor) saponification?: SaponificationDoor;
  @Clearable() @Percent() fatPct?: number;
  @Clearable() @Nested(() => SaponificationDoor) fatSaponification?: SaponificationDoor;
  @Clearable() @Percent() waterPct?: number;
  @Clearable() @NumberBetween(0, MOST_UPTAKE) alkaliUptake?: number;
  @Clearable() @Text(LONGEST.line) formedInci?: string;
  @Clearable() @NumberBetween(0, 25) bulkDensity?: number;
  @Clearable() @NumberBetween(0, 25) density?: number;
  @Clearable() @Percent() spoonPct?: number;
  @Clearable() @ListOf(() => InciDoor, MOST_PARTS) inci?: InciDoor[];
  @Clearable()
  @Values(20, 'not-text', 'Give CAS, EC or colour index numbers, each as a short text.', isShortName)
  numbers?: string[];
  @Clearable() @ListOf(() => ConstituentDoor, MOST_PARTS) constituents?: ConstituentDoor[];
  @Clearable() @ListOf(() => LimitDoor, MOST_PARTS) limits?: LimitDoor[];
  @Clearable()
  @RecordOf(FATTY_ACIDS, 'not-a-percent', `Give percents of: ${FATTY_ACIDS.join(', ')}.`, isShare, 'dropped')
  fattyAcids?: object;
}

/** A material as a request sends it. */
export class MaterialDoor extends MaterialBodyDoor {
  @Id() id!: string;
  @Optional() @ListOf(() => MadeOfDoor, MOST_PARTS) madeOf?: MadeOfDoor[];
}

export class DeclarableDoor {
  @Id() id!: string;
  @Id() name!: string;
  @Markets() markets!: string[];
  @Percent() thresholdPct!: number;
  @Optional() @Day() newFrom?: string;
  @Optional() @Day() allFrom?: string;
  @Optional() @OneOf(PER) per?: string;
}

class RulesDoor {
  @Optional() @YesNo() replace?: boolean;
  @Optional() @ListOf(() => LimitDoor, MOST_RULES) limits?: LimitDoor[];
  @Optional() @ListOf(() => DeclarableDoor, MOST_RULES) declarables?: DeclarableDoor[];
}

export class AssessmentRequestDoor {
  @Format(REQUEST_FORMAT) format!: string;
  @Nested(() => FormulaDoor) formula!: FormulaDoor;
  @Optional() @ListOf(() => MaterialDoor, MOST_MATERIALS) materials?: MaterialDoor[];
  @Optional() @Nested(() => RulesDoor) rules?: RulesDoor;
  @Markets() @NotEmpty('Name at least one market.') markets!: string[];
  @Day() onDate!: string;
  @Optional()
  @MarketDays()
  firstPlacedOn?: object;
  @Optional()
  @MarketDays()
  placedOn?: object;
  @Optional() @YesNo() explain?: boolean;
}
