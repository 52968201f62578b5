/** The doors of what papers show. */
import { Day, Id, LONGEST, Name, NumberBetween, OrNull } from './fields';

const MOST_FIGURE = 1e6;

/** What a paper shows of a condition. */
export class ShownDoor {
  @OrNull() @NumberBetween(0, MOST_FIGURE) value!: number | null;
  @Name('the paper', LONGEST.name) paper!: string;
  @Day() on!: string;
  @OrNull() @Day() until!: string | null;
}

export class ShownFiledDoor extends ShownDoor {
  @Id() condition!: string;
}
