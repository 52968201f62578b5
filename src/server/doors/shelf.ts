/** The door of a shelf that was counted. */
import { Id, ListOf, LONGEST, Name, NotEmpty, NumberBetween } from './fields';

const MOST_GRAMS = 1e7;
const MOST_LOTS = 2000;

class CountedLotDoor {
  @Id() lot!: string;
  @NumberBetween(0, MOST_GRAMS) leftG!: number;
}

export class CountDoor {
  @NotEmpty('Count at least one lot.') @ListOf(() => CountedLotDoor, MOST_LOTS) rows!: CountedLotDoor[];
  @Name('the reason', LONGEST.line) reason!: string;
}

export interface ShelfCounted {
  rows: { lot: string; leftG: number }[];
  reason: string;
}
