/** The door of who answers for the product. */
import { LONGEST, Name, Values } from './fields';
import { FirstRevision } from './revision';

const MOST_LINES = 8;
const isLine = (value: unknown) =>
  typeof value === 'string' && value.length <= LONGEST.name && !/\p{C}/u.test(value);

export class MakerDoor {
  @FirstRevision() revision!: number;
  @Name('the maker') name!: string;
  @Values(MOST_LINES, 'not-text', 'Give short lines of an address.', isLine) addressLines!: string[];
}
