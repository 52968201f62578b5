/** Field rules that the doors of several endpoints share, each with its error code and its remedy. */
import {
  IsIn,
  IsNumber,
  IsOptional,
  Max,
  Min,
  ValidateBy,
  ValidateNested,
  type ValidationOptions,
} from 'class-validator';
import { MARKETS } from '../../core/formula/types';
import { realDay } from '../../core/quantities/day';
import { Built, Missing, type Cleaned, type Door } from './structure';

/** Largest amount taken in any unit: far beyond any pot, small enough that no sum overflows. */
const MOST = 1e9;
const LONGEST_ID = 200;

/** Longest texts, in letters, by what they are for. */
export const LONGEST = {
  /** A bar, a material, a mould, a version: what stands in a heading or a list. */
  name: 120,
  /** A code, a number, a few words. */
  short: 80,
  /** A line or two that says what something is or comes from. */
  line: 400,
  /** A paragraph. */
  text: 2000,
} as const;

/** Applies several property decorators at once. */
export function all(...decorators: PropertyDecorator[]): PropertyDecorator {
  return (target, key) => decorators.forEach((decorator) => decorator(target, key));
}

function code(value: string): Pick<ValidationOptions, 'context'> {
  return { context: { code: value } };
}

/** A rule of our own with its code and remedy. */
export function Rule(
  errorCode: string,
  message: string,
  validate: (value: unknown, door: object) => boolean,
): PropertyDecorator {
  return ValidateBy(
    { name: errorCode, validator: { validate: (value, args) => validate(value, args?.object ?? {}) } },
    { message, ...code(errorCode) },
  );
}

/** A finite number between two bounds. */
export function NumberBetween(least: number, most: number): PropertyDecorator {
  const message = `Give a number from ${least} to ${most}.`;
  return all(
    IsNumber({ allowNaN: false, allowInfinity: false }, { message, ...code('not-a-number') }),
    Min(least, { message, ...code(least === 0 ? 'negative' : 'too-small') }),
    Max(most, { message, ...code('too-large') }),
  );
}

/** A mass, amount or density: finite and not negative. */
export function Quantity(): PropertyDecorator {
  return NumberBetween(0, MOST);
}

/** A percent from 0 to 100. */
export function Percent(): PropertyDecorator {
  return NumberBetween(0, 100);
}

/** Control characters; line ends and tabs may stand in longer texts. */
// eslint-disable-next-line no-control-regex
const CONTROLS = /[\u0000-\u001f\u007f-\u009f\u2028\u2029]/;
// eslint-disable-next-line no-control-regex
const CONTROLS_BUT_BREAKS = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f]/;

/** Marks that turn the direction of what comes after them, and ones of no width: nobody types them, pasting brings them. */
const UNSEEN = /[\u202a-\u202e\u2066-\u2069\u200b\u2060\ufeff]/g;

/** A text without marks that cannot be seen. */
const seen = (value: unknown) => (typeof value === 'string' ? value.replace(UNSEEN, '') : value);

/** What is wrong with a text of so many letters at most; null where nothing is. */
function textFault(value: unknown, least: number, most: number, breaks: boolean): Cleaned | null {
  if (typeof value !== 'string') return { code: 'not-text', message: 'Give a text here.' };
  if (value.length < least || value.length > most) {
    const message =
      least > 0 ? `Give a text of ${least} to ${most} characters.` : `Give at most ${most} characters.`;
    return { code: 'length', message };
  }
  // A lone half of a pair cannot be written as UTF-8, and controls break what shows it.
  if (/\p{Surrogate}/u.test(value) || (breaks ? CONTROLS_BUT_BREAKS : CONTROLS).test(value))
    return { code: 'characters', message: 'Take out characters that cannot be written or printed.' };
  return null;
}

function Letters(
  least: number,
  most: number,
  breaks: boolean,
  more: (text: string) => Cleaned | null = () => null,
): PropertyDecorator {
  const clean = (given: unknown): Cleaned => {
    const value = seen(given);
    return (
      (typeof value === 'string' ? more(value) : null) ?? textFault(value, least, most, breaks) ?? { value }
    );
  };
  return all(Given('not-text', 'Give a text here.'), Built({ kind: 'clean', clean }));
}

/** Something has to be there; what it is, the door's structure tells. */
function Given(errorCode: string, message: string): PropertyDecorator {
  return Rule(errorCode, message, (value) => value !== undefined && value !== null);
}

/** A name that other fields refer to: text that is not empty. */
export function Id(): PropertyDecorator {
  return Letters(1, LONGEST_ID, false);
}

/** A name for something, not blank. */
export function Name(what: string, most: number = LONGEST.name): PropertyDecorator {
  const blank = { code: 'length', message: `Give ${what} a name.` };
  return Letters(1, most, false, (text) => (text.length <= most && text.trim() === '' ? blank : null));
}

/** Free text, possibly empty. */
export function Text(most: number = LONGEST.text): PropertyDecorator {
  return Letters(0, most, true);
}

/** One of some words. */
export function OneOf(choices: readonly string[], errorCode = 'not-allowed'): PropertyDecorator {
  return IsIn(choices, { message: `Choose one of: ${choices.join(', ')}.`, ...code(errorCode) });
}

/** True or false. */
export function YesNo(): PropertyDecorator {
  return Rule('not-a-boolean', 'Give true or false.', (value) => typeof value === 'boolean');
}

/** May be left out; null counts as left out. */
export function Optional(): PropertyDecorator {
  return all(IsOptional(), Missing('left-out'));
}

/** May be null; left out counts as null. */
export function OrNull(): PropertyDecorator {
  return all(IsOptional(), Missing('null'));
}

/** May be left out, and then stays as it was; null takes away what there was. */
export function Clearable(): PropertyDecorator {
  return all(IsOptional(), Missing('as-given'));
}

/** Whether a text is a day that exists, YYYY-MM-DD. */
export function isDay(value: unknown): value is string {
  const [, year, month, date] = (typeof value === 'string' && /^(\d{4})-(\d{2})-(\d{2})$/.exec(value)) || [];
  return year !== undefined && realDay(Number(year), Number(month), Number(date)) !== null;
}

/** A day that exists, YYYY-MM-DD. */
export function Day(): PropertyDecorator {
  return Rule('not-a-day', 'Give a day that exists, as YYYY-MM-DD.', isDay);
}

/** One object of a class of its own. */
export function Nested(of: () => Door): PropertyDecorator {
  const message = 'Give an object here.';
  return all(
    Given('not-an-object', message),
    ValidateNested({ message, ...code('not-an-object') }),
    Built({ kind: 'object', of }),
  );
}

/** A list of objects of a class of their own, at most `most` of them. */
export function ListOf(of: () => Door, most: number): PropertyDecorator {
  const message = 'Give a list here.';
  return all(
    Given('not-a-list', message),
    ValidateNested({ each: true, message, ...code('not-a-list') }),
    Built({ kind: 'list', of, most }),
  );
}

/** A list of plain values, at most `most` of them, each of which holds. */
export function Values(
  most: number,
  errorCode: string,
  message: string,
  holds: (value: unknown) => boolean,
): PropertyDecorator {
  const clean = (value: unknown): Cleaned => {
    if (!Array.isArray(value)) return { code: 'not-a-list', message: 'Give a list here.' };
    if (value.length > most) return { code: 'too-many', message: `Give at most ${most} entries.` };
    return value.every(holds) ? { value: [...(value as unknown[])] } : { code: errorCode, message };
  };
  return all(Given('not-a-list', 'Give a list here.'), Built({ kind: 'clean', clean }));
}

/**
 * An object of known names, each of whose values holds; null counts as left out. Other names are refused, or
 * dropped where a rule says so.
 */
export function RecordOf(
  names: readonly string[],
  errorCode: string,
  message: string,
  holds: (value: unknown) => boolean,
  others: 'refused' | 'dropped' = 'refused',
): PropertyDecorator {
  const clean = (value: unknown): Cleaned => {
    if (typeof value !== 'object' || value === null || Array.isArray(value))
      return { code: 'not-an-object', message: 'Give an object here.' };
    const given = value as Record<string, unknown>;
    if (others === 'refused' && Object.keys(given).some((name) => !names.includes(name)))
      return { code: errorCode, message };
    const entries = names.flatMap((name) =>
      Object.hasOwn(given, name) && given[name] !== null ? [[name, given[name]] as const] : [],
    );
    return entries.every(([, entry]) => holds(entry))
      ? { value: Object.fromEntries(entries) }
      : { code: errorCode, message };
  };
  return all(Given('not-an-object', 'Give an object here.'), Built({ kind: 'clean', clean }));
}

/** Markets named more than once count once; a list much longer than there are markets is no list of markets. */
const MOST_MARKETS_NAMED = 20;

/** A list of known markets, each once. */
export function Markets(): PropertyDecorator {
  const message = `List markets out of: ${MARKETS.join(', ')}.`;
  const clean = (value: unknown): Cleaned => {
    const isList =
      Array.isArray(value) &&
      value.length <= MOST_MARKETS_NAMED &&
      value.every((entry) => (MARKETS as readonly unknown[]).includes(entry));
    return isList ? { value: [...new Set(value as string[])] } : { code: 'unknown-market', message };
  };
  return all(Given('not-a-list', 'Give a list of markets.'), Built({ kind: 'clean', clean }));
}

/** A list that may not be empty. */
export function NotEmpty(message: string): PropertyDecorator {
  return Rule('empty', message, (value) => !Array.isArray(value) || value.length > 0);
}

/** A day for each of some known markets. */
export function MarketDays(): PropertyDecorator {
  return RecordOf(MARKETS, 'not-a-day', 'Give a day (YYYY-MM-DD) for each known market.', isDay);
}
