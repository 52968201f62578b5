/** The door of what is wanted by a day and what is planned to be poured. */
import { Day, Id, ListOf, Name, Rule } from './fields';
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
}
