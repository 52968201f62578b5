/** The doors of the range: what is tried on many bars, and kept ways of looking. */
import { MARKETS } from '../../core/formula/types';
import { RANGE_GROUPS, RANGE_SHOWS } from '../../core/records/range';
import {
  Day,
  ListOf,
  LONGEST,
  Markets,
  Name,
  NotEmpty,
  NumberBetween,
  OneOf,
  Optional,
  OrNull,
  Text,
  Values,
} from './fields';
import { FirstRevision } from './revision';

const MOST_TRIED = 500;
const MOST_VIEWS = 60;
const isId = (value: unknown) => typeof value === 'string' && value.length > 0 && value.length <= 200;

export class TryBarsDoor {
  @Values(MOST_TRIED, 'not-an-id', 'Give ids of bars.', isId) bars!: string[];
  @Optional() @Day() onDate?: string;
  @Optional() @Markets() @NotEmpty('Choose at least one market.') markets?: string[];
}

export class RangeNamesDoor {
  @Optional() @Day() onDate?: string;
  @NumberBetween(1, 100) mostMovedPct!: number;
}

class RangeViewDoor {
  @Name('the view') name!: string;
  @Text(LONGEST.name) find!: string;
  @OneOf(RANGE_SHOWS) show!: string;
  @OrNull() @OneOf(MARKETS, 'unknown-market') market!: string | null;
  @OneOf(RANGE_GROUPS) group!: string;
}

export class RangeViewsDoor {
  @FirstRevision() revision!: number;
  @ListOf(() => RangeViewDoor, MOST_VIEWS) views!: RangeViewDoor[];
}
