/** The door of who answers for the product. */
import { MARKETS } from '../../core/formula/types';
import { ListOf, LONGEST, Name, OneOf, Optional, Values } from './fields';
import { FirstRevision } from './revision';

const MOST_LINES = 8;
const isLine = (value: unknown) =>
  typeof value === 'string' && value.length <= LONGEST.name && !/\p{C}/u.test(value);

class ElsewhereDoor {
  @OneOf(MARKETS, 'unknown-market') market!: string;
  @Name('who answers there') name!: string;
  @Values(MOST_LINES, 'not-text', 'Give short lines of an address.', isLine) addressLines!: string[];
}

export class MakerDoor {
  @FirstRevision() revision!: number;
  @Name('the maker') name!: string;
  @Values(MOST_LINES, 'not-text', 'Give short lines of an address.', isLine) addressLines!: string[];
  @Optional() @ListOf(() => ElsewhereDoor, MARKETS.length) elsewhere?: ElsewhereDoor[];
}
