/** The door of the maker's own days of curing. */
import { Rule } from './fields';
import { FirstRevision } from './revision';

const MOST_DAYS = 730;

function Days(): PropertyDecorator {
  return Rule(
    'not-a-count',
    `Give whole days from 1 to ${MOST_DAYS}.`,
    (value) => Number.isInteger(value) && (value as number) >= 1 && (value as number) <= MOST_DAYS,
  );
}

export class CuringDaysDoor {
  @FirstRevision() revision!: number;
  @Days() least!: number;
  @Days() usual!: number;
}
