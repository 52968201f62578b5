/** The door of a material made from a part of a batch. */
import { PART_KINDS } from '../../core/batch/part';
import { Name, NumberBetween, OneOf } from './fields';

const MOST_GRAMS = 1e6;

export class NewPartDoor {
  @OneOf(PART_KINDS) what!: string;
  @Name('the material') name!: string;
  @NumberBetween(0.1, MOST_GRAMS) massG!: number;
}
