/** The doors of a bar's wrap: what is saved, previewed and issued. */
import {
  IsArray,
  ArrayMaxSize,
  IsBoolean,
  IsString,
  Length,
  Matches,
  Min,
  IsInt,
  ValidateBy,
} from 'class-validator';
import { MARKETS } from '../../core/formula/types';
import { SHAPES } from '../../core/labels/formats';
import { CLAIM_CLASSES, LANGUAGES } from '../../core/claims/types';
import { ListOf, Name, Nested, NumberBetween, OneOf, Optional, Text } from './fields';

const SCHOOLS = ['added', 'formed'];
const FACES = ['display', 'text', 'strong'];
const BARCODES = ['none', 'gtin', 'batch'];
const MOST_BARS = 500;
const MOST_TICKS = 300;
const LONGEST_SIDE_MM = 2000;
const LONGEST_KEEPING_MONTHS = 240;

class WordsDoor {
  @Optional() @Text() en?: string;
  @Optional() @Text() fr?: string;
}

class FormatDoor {
  @OneOf(SHAPES) shape!: string;
  @NumberBetween(1, LONGEST_SIDE_MM) widthMm!: number;
  @NumberBetween(1, LONGEST_SIDE_MM) heightMm!: number;
  @Optional() @NumberBetween(1, LONGEST_SIDE_MM) depthMm?: number;
  @NumberBetween(0, 100) marginMm!: number;
}

class MarketWrapDoor {
  @OneOf(SCHOOLS) school!: string;
  @Nested(() => FormatDoor) format!: FormatDoor;
}

/** A wrap for each of some markets. */
class MarketWrapsDoor {
  @Optional() @Nested(() => MarketWrapDoor) EU?: MarketWrapDoor;
  @Optional() @Nested(() => MarketWrapDoor) UK?: MarketWrapDoor;
  @Optional() @Nested(() => MarketWrapDoor) US?: MarketWrapDoor;
  @Optional() @Nested(() => MarketWrapDoor) CA?: MarketWrapDoor;
  @Optional() @Nested(() => MarketWrapDoor) AU?: MarketWrapDoor;
}

const COLOUR = { message: 'Give a colour as # and six digits.', context: { code: 'not-a-colour' } };

class LookDoor {
  @Matches(/^#[0-9a-f]{6}$/i, COLOUR) paper!: string;
  @Matches(/^#[0-9a-f]{6}$/i, COLOUR) ink!: string;
  @OneOf(FACES) nameFace!: string;
  @IsBoolean({ message: 'Give true or false.', context: { code: 'not-a-boolean' } }) logo!: boolean;
}

class DurabilityDoor {
  @NumberBetween(1, LONGEST_KEEPING_MONTHS) months!: number;
  @Optional()
  @Matches(/^\d{4}-(0[1-9]|1[0-2])$/, {
    message: 'Give a month as YYYY-MM.',
    context: { code: 'not-a-month' },
  })
  endsOn?: string | null;
}

function areNumbers(value: unknown): boolean {
  return Array.isArray(value) && value.every((one) => typeof one === 'number' && one >= 0 && one <= 5000);
}

export class WrapDoor {
  @Text() description!: string;
  @Text() back!: string;
  @Nested(() => WordsDoor) identity!: WordsDoor;
  @Nested(() => WordsDoor) use!: WordsDoor;
  @Nested(() => WordsDoor) cautions!: WordsDoor;
  @Nested(() => MarketWrapsDoor) markets!: MarketWrapsDoor;
  @Nested(() => LookDoor) look!: LookDoor;
  @OneOf(BARCODES) barcode!: string;
  @Text() gtin!: string;
  @ArrayMaxSize(MOST_BARS, { message: `Give at most ${MOST_BARS} weights.`, context: { code: 'too-many' } })
  @ValidateBy(
    { name: 'areWeights', validator: { validate: areNumbers } },
    { message: 'Give weights of bars in grams, from 0 to 5000.', context: { code: 'not-a-number' } },
  )
  weighedG!: number[];
  @Optional() @NumberBetween(1, 5000) netMassG?: number | null;
  @Text() batchCode!: string;
  @Optional() @Nested(() => DurabilityDoor) durability?: DurabilityDoor | null;
  @IsArray({ message: 'Give a list.', context: { code: 'not-a-list' } })
  @ArrayMaxSize(MOST_TICKS, { message: `Give at most ${MOST_TICKS} entries.`, context: { code: 'too-many' } })
  @IsString({ each: true, message: 'Give texts.', context: { code: 'not-text' } })
  @Length(1, 80, { each: true, message: 'Give short texts.', context: { code: 'length' } })
  ticked!: string[];
}

const REVISION = {
  message: 'Give the revision that the change was made from.',
  context: { code: 'revision' },
};

export class SaveWrapDoor {
  /** 0 before the first save. */
  @IsInt(REVISION) @Min(0, REVISION) revision!: number;
  @Nested(() => WrapDoor) wrap!: WrapDoor;
}

export class PreviewDoor {
  @OneOf(MARKETS) market!: string;
  @Nested(() => WrapDoor) wrap!: WrapDoor;
}

export class IssueDoor {
  @OneOf(MARKETS) market!: string;
}

export class LabelQueryDoor {
  @OneOf(MARKETS) market!: string;
  @OneOf(['pdf', 'a4', 'letter', 'svg', 'text', 'html', 'sheet', 'sheet-ranges']) as!: string;
}

class OwnPhraseDoor {
  @Name('the phrase')
  @Length(1, 80, { message: 'Give a phrase of up to 80 letters.', context: { code: 'length' } })
  say!: string;
  @OneOf(CLAIM_CLASSES) class!: string;
  @OneOf(LANGUAGES) language!: string;
}

export class OwnPhrasesDoor {
  @ListOf(() => OwnPhraseDoor, 200) phrases!: OwnPhraseDoor[];
}
