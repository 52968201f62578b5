/** The door of what is wanted by a day and what is planned to be poured. */
import { Day, Id, ListOf, Name, Optional, OrNull, Rule, Values } from './fields';
import { FirstRevision } from './revision';

const MOST = 500;
const MOST_BARS = 100_000;

function Bars(): PropertyDecorator {
  return Rule(
    'not-a-count',
    `Give a whole number from 1 to ${MOST_BARS}.`,
    (value) => Number.isInteger(value) && (value as number) >= 1 && (value as number) <= MOST_BARS,
  );
}

const DAYS_A_WEEK = 7;
const isWeekday = (value: unknown) =>
  Number.isInteger(value) && (value as number) >= 0 && (value as number) < DAYS_A_WEEK;

class WantedDoor {
  @Id() id!: string;
  @Id() product!: string;
  @Name('what it is for') name!: string;
  @Day() day!: string;
  @Bars() bars!: number;
}

class PlannedPourDoor {
  @Id() id!: string;
  @Id() product!: string;
  @Day() day!: string;
  @Bars() bars!: number;
}

export class PlansDoor {
  @FirstRevision() revision!: number;
  @ListOf(() => WantedDoor, MOST) wanted!: WantedDoor[];
  @ListOf(() => PlannedPourDoor, MOST) planned!: PlannedPourDoor[];
  @Optional()
  @Values(DAYS_A_WEEK, 'not-a-weekday', 'Give days of the week from 0, Sunday, to 6.', isWeekday)
  evenings?: number[];
  @Optional() @OrNull() @Bars() room?: number | null;
}
