/** The doors of the stand-ins for devices. */
import { STAND_IN_DOES } from '../devices/scale-stand-in';
import { NumberBetween, OneOf, Optional } from './fields';

const MOST_G = 10_000;
const LONGEST_S = 600;

export class StandInDoor {
  @OneOf([...STAND_IN_DOES, 'reset']) do!: string;
  @Optional() @NumberBetween(-MOST_G, MOST_G) g?: number;
  @Optional() @NumberBetween(0, LONGEST_S) seconds?: number;
}
