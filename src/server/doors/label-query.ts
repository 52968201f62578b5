/** The door of the label download: what is asked for in the address. */
import { MARKETS } from '../../core/formula/types';
import { NumberBetween, OneOf, Text } from './fields';

const SCHOOLS = ['added', 'formed'];

export class LabelQueryDoor {
  @OneOf(MARKETS) market!: string;
  @OneOf(SCHOOLS) school!: string;
  @NumberBetween(1, 5000) netMassG!: number;
  @Text() batchCode!: string;
}
