/** Field rules that the doors of several endpoints share, each with its error code and its remedy. */
import 'reflect-metadata';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  Min,
  ValidateBy,
  ValidateNested,
  type ValidationOptions,
} from 'class-validator';
import { Type } from 'class-transformer';
import { MARKETS } from '../../core/formula/types';

/** Largest amount taken in any unit: far beyond any pot, small enough that no sum overflows. */
const MOST = 1e9;
const LONGEST_ID = 200;
const LONGEST_TEXT = 2000;

/** Applies several property decorators at once. */
export function all(...decorators: PropertyDecorator[]): PropertyDecorator {
  return (target, key) => decorators.forEach((decorator) => decorator(target, key));
}

function code(value: string): Pick<ValidationOptions, 'context'> {
  return { context: { code: value } };
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

/** A name that other fields refer to: text that is not empty. */
export function Id(): PropertyDecorator {
  const message = `Give a text of 1 to ${LONGEST_ID} characters.`;
  return all(
    IsString({ message, ...code('not-text') }),
    Length(1, LONGEST_ID, { message, ...code('length') }),
  );
}

/** A name for something, not blank. */
export function Name(what: string): PropertyDecorator {
  return all(Matches(/\S/, { message: `Give ${what} a name.`, ...code('length') }), Id());
}

/** Free text, possibly empty. */
export function Text(): PropertyDecorator {
  const message = `Give a text of at most ${LONGEST_TEXT} characters.`;
  return all(
    IsString({ message, ...code('not-text') }),
    Length(0, LONGEST_TEXT, { message, ...code('length') }),
  );
}

/** One of some words. */
export function OneOf(choices: readonly string[], errorCode = 'not-allowed'): PropertyDecorator {
  return IsIn(choices, { message: `Choose one of: ${choices.join(', ')}.`, ...code(errorCode) });
}

/** May be left out or null. */
export function Optional(): PropertyDecorator {
  return IsOptional();
}

/** Whether a text is a day that exists, YYYY-MM-DD. */
export function isDay(value: unknown): value is string {
  if (typeof value !== 'string' || !/^\d{4}-\d{2}-\d{2}$/.test(value)) return false;
  const date = new Date(`${value}T00:00:00Z`);
  return !Number.isNaN(date.getTime()) && date.toISOString().startsWith(value);
}

/** A day that exists, YYYY-MM-DD. */
export function Day(): PropertyDecorator {
  return ValidateBy(
    { name: 'isDay', validator: { validate: isDay } },
    { message: 'Give a day that exists, as YYYY-MM-DD.', ...code('not-a-day') },
  );
}

/** One object of a class of its own. */
export function Nested(of: () => new () => object): PropertyDecorator {
  const message = 'Give an object here.';
  return all(
    ValidateBy(
      {
        name: 'isPlainObject',
        validator: {
          validate: (value) => typeof value === 'object' && value !== null && !Array.isArray(value),
        },
      },
      { message, ...code('not-an-object') },
    ),
    ValidateNested({ message, ...code('not-an-object') }),
    Type(of),
  );
}

/** A list of objects of a class of their own, at most `most` of them. */
export function ListOf(of: () => new () => object, most: number): PropertyDecorator {
  return all(
    IsArray({ message: 'Give a list here.', ...code('not-a-list') }),
    ArrayMaxSize(most, { message: `Give at most ${most} entries.`, ...code('too-many') }),
    ValidateBy(
      {
        name: 'holdsObjects',
        validator: {
          validate: (value) =>
            !Array.isArray(value) ||
            value.every((v) => typeof v === 'object' && v !== null && !Array.isArray(v)),
        },
      },
      { message: 'Every entry of this list has to be an object.', ...code('not-an-object') },
    ),
    ValidateNested({ each: true, message: 'Every entry has to be an object.', ...code('not-an-object') }),
    Type(of),
  );
}

function isMarketList(value: unknown): boolean {
  return Array.isArray(value) && value.every((entry) => (MARKETS as readonly unknown[]).includes(entry));
}

/** A list of known markets. */
export function Markets(): PropertyDecorator {
  const message = `List markets out of: ${MARKETS.join(', ')}.`;
  return ValidateBy(
    { name: 'isMarketList', validator: { validate: isMarketList } },
    { message, context: { code: 'unknown-market' } },
  );
}

function isMarketDays(value: unknown): boolean {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
  return Object.entries(value).every(
    ([market, day]) => (MARKETS as readonly string[]).includes(market) && (day === null || isDay(day)),
  );
}

/** A day for each of some known markets. */
export function MarketDays(): PropertyDecorator {
  return ValidateBy(
    { name: 'isMarketDays', validator: { validate: isMarketDays } },
    { message: 'Give a day (YYYY-MM-DD) for each known market.', ...code('not-a-day') },
  );
}
