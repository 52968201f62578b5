/** The doors of what comes from a maker's own spreadsheet. */
import { FormulaDoor } from './assessment-request';
import { KINDS } from '../../core/formula/types';
import { MOST_NAOH } from '../../core/sheets/stock';
import { LotDoor } from './cupboard';
import {
  Id,
  ListOf,
  LONGEST,
  Name,
  Nested,
  NumberBetween,
  OneOf,
  OrNull,
  Text,
  Values,
  YesNo,
} from './fields';

const MOST_NAMES = 800;
const MOST_BARS = 300;
const isName = (value: unknown) =>
  typeof value === 'string' && value.length > 0 && value.length <= LONGEST.line;

export class NamesDoor {
  @Values(MOST_NAMES, 'not-text', 'Give names of materials.', isName) names!: string[];
}

class ImportedBarDoor {
  @Name('the bar') name!: string;
  @Text(LONGEST.line) note!: string;
  @Nested(() => FormulaDoor) formula!: FormulaDoor;
}

export class ImportDoor {
  @YesNo() preview!: boolean;
  @ListOf(() => ImportedBarDoor, MOST_BARS) bars!: ImportedBarDoor[];
}

const MOST_ROWS = 1000;

class OwnStockDoor {
  @Name('the material') name!: string;
  @OneOf(KINDS) kind!: string;
  @Text(LONGEST.line) inci!: string;
  @OrNull() @NumberBetween(0, MOST_NAOH) naohPerGram!: number | null;
}

class StockRowDoor {
  @NumberBetween(0, 1e6) row!: number;
  @Name('the material') name!: string;
  @OrNull() @Id() material!: string | null;
  @OrNull() @Nested(() => OwnStockDoor) own!: OwnStockDoor | null;
  @Text(LONGEST.name) supplier!: string;
  @OrNull() @Nested(() => LotDoor) lot!: LotDoor | null;
}

export class ImportStockDoor {
  @YesNo() preview!: boolean;
  @ListOf(() => StockRowDoor, MOST_ROWS) rows!: StockRowDoor[];
}
