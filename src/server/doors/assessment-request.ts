/** The door of `POST /api/v1/assess`: the shape of a request, field by field. */
import { ArrayMinSize, Equals, IsArray, IsBoolean, ValidateBy } from 'class-validator';
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
} from '../../core/formula/types';
import { UNITS } from '../../core/quantities/units';
import {
  all,
  Day,
  Id,
  ListOf,
  MarketDays,
  Markets,
  Nested,
  NumberBetween,
  OneOf,
  Optional,
  Percent,
  Quantity,
  Text,
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

function isMarketNames(value: unknown): boolean {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
  return Object.entries(value).every(
    ([market, name]) => (MARKETS as readonly string[]).includes(market) && typeof name === 'string',
  );
}

function isPercentMap(value: unknown): boolean {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
  return Object.values(value).every((part) => typeof part === 'number' && part >= 0 && part <= 100);
}

class AmountDoor {
  @Quantity() value!: number;
  @OneOf(UNITS, 'unknown-unit') unit!: string;
}

class LineDoor {
  @Id() id!: string;
  @Id() material!: string;
  @OneOf(STAGES) stage!: string;
  @Nested(() => AmountDoor) amount!: AmountDoor;
  @Optional() @OneOf(MEASURES) measuredBy?: string;
  @Optional() @NumberBetween(0, 1000) uncertaintyPct?: number;
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
  return all(
    Quantity(),
    ValidateBy(
      {
        name: 'isConcentration',
        validator: {
          validate: (value, args) =>
            (args?.object as LiquidDoor).basis !== 'alkaliConcentration' || (value > 0 && value <= 100),
        },
      },
      {
        message: 'An alkali concentration lies above 0 and up to 100 %.',
        context: { code: 'concentration' },
      },
    ),
  );
}

class CureDoor {
  @Optional() @NumberBetween(0, 99) residualWaterPct?: number;
  @Optional() @NumberBetween(0.01, 1) massRatio?: number;
}

/** A formula, on its own or in a request. */
export class FormulaDoor {
  @Optional() @Format(FORMULA_FORMAT) format?: string;
  @Optional() @Text() name?: string;
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
  @Optional() @Text() formedInci?: string;
}

class InciDoor {
  @Id() name!: string;
  @Percent() sharePct!: number;
  @Optional() @OneOf(INCI_ROLES) role?: string;
  @Optional()
  @ValidateBy(
    { name: 'isMarketNames', validator: { validate: isMarketNames } },
    { message: 'Give a name for each known market.', context: { code: 'not-text' } },
  )
  names?: object;
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

class LimitDoor {
  @Id() id!: string;
  @Nested(() => SubjectDoor) subject!: SubjectDoor;
  @Percent() maxPct!: number;
  @OneOf(LIMIT_BASES) basis!: string;
  @OneOf(FORCES) force!: string;
  @Optional() @Markets() markets?: string[];
  @Optional() @Day() from?: string;
  @Optional() @Day() to?: string;
  @Optional() @Text() source?: string;
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
  @Optional() @Nested(() => SaponificationDoor) saponification?: SaponificationDoor;
  @Optional() @Percent() fatPct?: number;
  @Optional() @Nested(() => SaponificationDoor) fatSaponification?: SaponificationDoor;
  @Optional() @Percent() waterPct?: number;
  @Optional() @NumberBetween(0, MOST_UPTAKE) alkaliUptake?: number;
  @Optional() @Text() formedInci?: string;
  @Optional() @NumberBetween(0, 25) bulkDensity?: number;
  @Optional() @NumberBetween(0, 25) density?: number;
  @Optional() @ListOf(() => InciDoor, MOST_PARTS) inci?: InciDoor[];
  @Optional() @ListOf(() => ConstituentDoor, MOST_PARTS) constituents?: ConstituentDoor[];
  @Optional() @ListOf(() => LimitDoor, MOST_PARTS) limits?: LimitDoor[];
  @Optional()
  @ValidateBy(
    { name: 'isPercentMap', validator: { validate: isPercentMap } },
    { message: 'Give a percent for each fatty acid.', context: { code: 'not-a-percent' } },
  )
  fattyAcids?: object;
  @Optional() @ListOf(() => MadeOfDoor, MOST_PARTS) madeOf?: MadeOfDoor[];
}

/** A material as a request sends it. */
export class MaterialDoor extends MaterialBodyDoor {
  @Id() id!: string;
}

class DeclarableDoor {
  @Id() id!: string;
  @Id() name!: string;
  @Markets() markets!: string[];
  @Percent() thresholdPct!: number;
  @Optional() @Day() newFrom?: string;
  @Optional() @Day() allFrom?: string;
}

class RulesDoor {
  @Optional()
  @IsBoolean({ message: 'Give true or false.', context: { code: 'not-a-boolean' } })
  replace?: boolean;
  @Optional() @ListOf(() => LimitDoor, MOST_RULES) limits?: LimitDoor[];
  @Optional() @ListOf(() => DeclarableDoor, MOST_RULES) declarables?: DeclarableDoor[];
}

export class AssessmentRequestDoor {
  @Format(REQUEST_FORMAT) format!: string;
  @Nested(() => FormulaDoor) formula!: FormulaDoor;
  @Optional() @ListOf(() => MaterialDoor, MOST_MATERIALS) materials?: MaterialDoor[];
  @Optional() @Nested(() => RulesDoor) rules?: RulesDoor;
  @IsArray({ message: 'Give a list of markets.', context: { code: 'not-a-list' } })
  @ArrayMinSize(1, { message: 'Name at least one market.', context: { code: 'empty' } })
  @Markets()
  markets!: string[];
  @Day() onDate!: string;
  @Optional()
  @MarketDays()
  firstPlacedOn?: object;
  @Optional()
  @IsBoolean({ message: 'Give true or false.', context: { code: 'not-a-boolean' } })
  explain?: boolean;
}
