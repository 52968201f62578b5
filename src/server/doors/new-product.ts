/** The door of a new bar. */
import { Matches } from 'class-validator';
import { Id } from './fields';

export class NewProductDoor {
  @Id()
  @Matches(/\S/, { message: 'Give the bar a name.', context: { code: 'length' } })
  name!: string;
}

export interface NewProduct {
  name: string;
}
