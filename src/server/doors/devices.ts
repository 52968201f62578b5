/** The doors of the stand-ins for devices. */
import { STAND_IN_DOES } from '../devices/scale-stand-in';
import { Id, NumberBetween, OneOf, Optional, Rule } from './fields';

const MOST_G = 10_000;
const LONGEST_S = 600;

export class StandInDoor {
  @OneOf([...STAND_IN_DOES, 'reset']) do!: string;
  @Optional() @NumberBetween(-MOST_G, MOST_G) g?: number;
  @Optional() @NumberBetween(0, LONGEST_S) seconds?: number;
}

export class DipDoor {
  @NumberBetween(-50, 300) c!: number;
}

const MOST_COPIES = 1000;

export class PrintDoor {
  @Id() label!: string;
  @Rule(
    'not-a-count',
    `Give a whole number from 1 to ${MOST_COPIES}.`,
    (value) => Number.isInteger(value) && (value as number) >= 1 && (value as number) <= MOST_COPIES,
  )
  copies!: number;
}
