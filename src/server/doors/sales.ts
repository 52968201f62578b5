/** The door of what went out. */
import { MOVED_HOW } from '../../core/batch/types';
import { MARKETS } from '../../core/formula/types';
import type { SaleRow } from '../../core/stock/sales';
import { Day, ListOf, LONGEST, Name, OneOf, Optional, OrNull, Rule, Text, YesNo } from './fields';

const MOST_ROWS = 5000;
const MOST_BARS = 100_000;

class SaleRowDoor {
  @Day() day!: string;
  @Name('the bar or batch') what!: string;
  @Rule(
    'not-a-count',
    `Give a whole number from 1 to ${MOST_BARS}.`,
    (value) => Number.isInteger(value) && (value as number) >= 1 && (value as number) <= MOST_BARS,
  )
  bars!: number;
  @OneOf(MOVED_HOW) how!: string;
  @OrNull() @Text(LONGEST.line) to!: string | null;
  @OrNull() @OneOf(MARKETS) market!: string | null;
  @OrNull() @Text(LONGEST.line) note!: string | null;
  @OrNull() @Text(LONGEST.name) ref!: string | null;
  @OrNull() @Text(LONGEST.line) despite!: string | null;
}

/** A list of what went out; `preview` writes nothing and says what would be. */
export class SalesDoor {
  @ListOf(() => SaleRowDoor, MOST_ROWS) rows!: SaleRowDoor[];
  @Optional() @YesNo() preview?: boolean;
  @OrNull() @Text(LONGEST.name) by!: string | null;
}

export interface Sales {
  rows: SaleRow[];
  preview?: boolean;
  by: string | null;
}
