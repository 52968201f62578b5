/** The doors of a bar's wrap: what is saved, previewed and issued. */
import { Matches } from 'class-validator';
import { MARKETS } from '../../core/formula/types';
import { PANELS, SHAPES } from '../../core/labels/formats';
import { CLAIM_CLASSES, LANGUAGES } from '../../core/claims/types';
import { CARD_PARTS } from '../../core/labels/card';
import { COUNTRY_CODES, type LabelLanguage } from '../../core/labels/languages';
import {
  Clearable,
  Id,
  ListOf,
  LONGEST,
  Name,
  Nested,
  NumberBetween,
  OneOf,
  Optional,
  OrNull,
  Rule,
  Text,
  Values,
  YesNo,
} from './fields';
import { FirstRevision } from './revision';

const SCHOOLS = ['added', 'formed'];
const FACES = ['display', 'text', 'strong'];
const BARCODES = ['none', 'gtin', 'batch', 'page'];
const MOST_BARS = 500;
const MOST_TICKS = 300;
const LONGEST_SIDE_MM = 2000;
const LONGEST_KEEPING_MONTHS = 240;

/** Longest words for what a bar is, its use or its cautions, letters; more fits no label. */
const LONGEST_WORDS = 600;

/** Words in every language of labels; one more is asked for here by the compiler. */
class WordsDoor implements Record<LabelLanguage, string | undefined> {
  @Optional() @Text(LONGEST_WORDS) bg: string | undefined;
  @Optional() @Text(LONGEST_WORDS) cs: string | undefined;
  @Optional() @Text(LONGEST_WORDS) da: string | undefined;
  @Optional() @Text(LONGEST_WORDS) de: string | undefined;
  @Optional() @Text(LONGEST_WORDS) el: string | undefined;
  @Optional() @Text(LONGEST_WORDS) en: string | undefined;
  @Optional() @Text(LONGEST_WORDS) es: string | undefined;
  @Optional() @Text(LONGEST_WORDS) et: string | undefined;
  @Optional() @Text(LONGEST_WORDS) fi: string | undefined;
  @Optional() @Text(LONGEST_WORDS) fr: string | undefined;
  @Optional() @Text(LONGEST_WORDS) ga: string | undefined;
  @Optional() @Text(LONGEST_WORDS) hr: string | undefined;
  @Optional() @Text(LONGEST_WORDS) hu: string | undefined;
  @Optional() @Text(LONGEST_WORDS) is: string | undefined;
  @Optional() @Text(LONGEST_WORDS) it: string | undefined;
  @Optional() @Text(LONGEST_WORDS) lt: string | undefined;
  @Optional() @Text(LONGEST_WORDS) lv: string | undefined;
  @Optional() @Text(LONGEST_WORDS) mt: string | undefined;
  @Optional() @Text(LONGEST_WORDS) nl: string | undefined;
  @Optional() @Text(LONGEST_WORDS) no: string | undefined;
  @Optional() @Text(LONGEST_WORDS) pl: string | undefined;
  @Optional() @Text(LONGEST_WORDS) pt: string | undefined;
  @Optional() @Text(LONGEST_WORDS) ro: string | undefined;
  @Optional() @Text(LONGEST_WORDS) sk: string | undefined;
  @Optional() @Text(LONGEST_WORDS) sl: string | undefined;
  @Optional() @Text(LONGEST_WORDS) sv: string | undefined;
  @Optional() @Text(LONGEST_WORDS) tr: string | undefined;
}

class FaceDoor {
  @NumberBetween(1, LONGEST_SIDE_MM) widthMm!: number;
  @NumberBetween(1, LONGEST_SIDE_MM) heightMm!: number;
}

export class FormatDoor {
  @OneOf(SHAPES) shape!: string;
  @NumberBetween(1, LONGEST_SIDE_MM) widthMm!: number;
  @NumberBetween(1, LONGEST_SIDE_MM) heightMm!: number;
  @Optional() @NumberBetween(1, LONGEST_SIDE_MM) depthMm?: number;
  @Optional() @NumberBetween(PANELS.least, PANELS.most) panels?: number;
  @NumberBetween(0, 100) marginMm!: number;
  @Clearable() @Nested(() => FaceDoor) face?: FaceDoor | null;
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
  @YesNo() logo!: boolean;
}

class DurabilityDoor {
  @NumberBetween(1, LONGEST_KEEPING_MONTHS) months!: number;
  @OrNull()
  @Matches(/^\d{4}-(0[1-9]|1[0-2])$/, {
    message: 'Give a month as YYYY-MM.',
    context: { code: 'not-a-month' },
  })
  endsOn!: string | null;
  @Optional() @NumberBetween(1, LONGEST_KEEPING_MONTHS) openMonths?: number | null;
}

const HEAVIEST_BAR_G = 5000;
const isBarWeight = (value: unknown) => typeof value === 'number' && value >= 0 && value <= HEAVIEST_BAR_G;
const isTick = (value: unknown) =>
  typeof value === 'string' && value.length > 0 && value.length <= LONGEST.short && !/\p{C}/u.test(value);

const isPart = (value: unknown) => (CARD_PARTS as readonly unknown[]).includes(value);

/** Claims that a wrap notes evidence for, and the longest words of one and of where it is, letters. */
const MOST_EVIDENCE = 100;
const LONGEST_EVIDENCE = 200;

class EvidenceDoor {
  @Name('the words of the claim', LONGEST_EVIDENCE) words!: string;
  @Text(LONGEST_EVIDENCE) says!: string;
}

class CardDoor {
  @Values(CARD_PARTS.length, 'unknown-part', 'Give parts of the page, each once.', isPart) shown!: string[];
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
  @Text(LONGEST.short) gtin!: string;
  @Values(MOST_BARS, 'not-a-number', 'Give weights of bars in grams, from 0 to 5000.', isBarWeight)
  weighedG!: number[];
  @OrNull() @NumberBetween(1, HEAVIEST_BAR_G) netMassG!: number | null;
  @Text(LONGEST.short) batchCode!: string;
  @OrNull() @Nested(() => DurabilityDoor) durability!: DurabilityDoor | null;
  @Values(MOST_TICKS, 'not-text', 'Give short texts.', isTick) ticked!: string[];
  @Optional() @ListOf(() => EvidenceDoor, MOST_EVIDENCE) evidence?: EvidenceDoor[];
  @Optional() @Nested(() => CardDoor) card?: CardDoor;
}

export class SaveWrapDoor {
  @FirstRevision() revision!: number;
  @Nested(() => WrapDoor) wrap!: WrapDoor;
}

/** The school of the list in one market. */
export class SchoolDoor {
  @OneOf(MARKETS) market!: string;
  @OneOf(SCHOOLS) school!: string;
}

export class PreviewDoor {
  @OneOf(MARKETS) market!: string;
  @Optional() @Id() batch?: string;
  @Nested(() => WrapDoor) wrap!: WrapDoor;
}

export class IssueDoor {
  @OneOf(MARKETS) market!: string;
  @Optional() @Id() batch?: string;
  @Optional() @OneOf(COUNTRY_CODES) country?: string;
}

export class LabelQueryDoor {
  @OneOf(MARKETS) market!: string;
  @OneOf([
    ...['pdf', 'a4', 'letter', 'svg', 'text', 'html', 'sheet', 'sheet-ranges'],
    ...['card', 'price', 'card-text', 'card-csv', 'card-data', 'qr'],
  ])
  as!: string;
  @Optional() @Id() batch?: string;
  @Optional() @OneOf(COUNTRY_CODES) country?: string;
}

/** More bars than a batch ever had. */
const MOST_COPIES = 5000;

export class ReprintQueryDoor {
  @Optional() @OneOf(['pdf', 'a4', 'letter']) as?: string;
  @Optional()
  @Rule(
    'not-a-count',
    `Say how many labels: a whole number from 1 to ${MOST_COPIES}.`,
    (value) => Number.isInteger(value) && (value as number) >= 1 && (value as number) <= MOST_COPIES,
  )
  copies?: number;
}

/** Gaps in one phrase; with more of them it would fit almost anything. */
const MOST_GAPS = 3;
/** Words of one phrase that may be left out, and words that may stand for one; each multiplies what has to be tried. */
const MOST_OPTIONAL = 4;
const MOST_FORMS = 12;

class OwnPhraseDoor {
  @Name('the phrase', LONGEST.short)
  @Rule(
    'gaps',
    `Give words, one of them at least not in brackets, with at most ${MOST_GAPS} gaps (..), ${MOST_OPTIONAL} words in brackets and ${MOST_FORMS} choices (|) for a word.`,
    isPhrase,
  )
  say!: string;
  @OneOf(CLAIM_CLASSES) class!: string;
  @OneOf(LANGUAGES) language!: string;
}

function isPhrase(value: unknown): boolean {
  if (typeof value !== 'string') return true;
  const parts = value.trim().split(/\s+/);
  const gaps = parts.filter((part) => part === '..').length;
  const optional = parts.filter((part) => /^\(.*\)$/.test(part)).length;
  const isRequired = (part: string) => /[\p{L}\p{N}]/u.test(part) && !/^\(.*\)$/.test(part);
  const hasFewForms = parts.every((part) => part.split('|').length <= MOST_FORMS);
  return gaps <= MOST_GAPS && optional <= MOST_OPTIONAL && hasFewForms && parts.some(isRequired);
}

export class OwnPhrasesDoor {
  @FirstRevision() revision!: number;
  @ListOf(() => OwnPhraseDoor, 200) phrases!: OwnPhraseDoor[];
}
