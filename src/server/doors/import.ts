/** The doors of what comes from a maker's own spreadsheet. */
import { FormulaDoor } from './assessment-request';
import { KINDS } from '../../core/formula/types';
import { UNITS } from '../../core/quantities/units';
import { SHEET_KINDS, type SheetColumns } from '../../core/sheets/cells';
import { POINTED_ROLES } from '../../core/sheets/sheet-lessons';
import { MOST_NAOH } from '../../core/sheets/stock';
import { AtLeastOne } from './batch';
import { LotDoor } from './cupboard';
import {
  Clearable,
  Day,
  Id,
  ListOf,
  LONGEST,
  Name,
  Nested,
  NumberBetween,
  OneOf,
  Optional,
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

const MOST_BATCHES = 200;
const MOST_WEIGHINGS = 80;
const MOST_GRAMS = 1e7;
const COARSEST_G = 1000;

class LoggedWeighingDoor {
  @Id() line!: string;
  @NumberBetween(0, MOST_GRAMS) massG!: number;
  @NumberBetween(0, COARSEST_G) readabilityG!: number;
}

/** A batch that was made before, as its log says it. */
class LoggedBatchDoor {
  @Text(LONGEST.name) code!: string;
  @Day() day!: string;
  @OrNull() @AtLeastOne() bars!: number | null;
  @ListOf(() => LoggedWeighingDoor, MOST_WEIGHINGS) weighed!: LoggedWeighingDoor[];
}

class ImportedBarDoor {
  @Name('the bar') name!: string;
  @Text(LONGEST.line) note!: string;
  @Nested(() => FormulaDoor) formula!: FormulaDoor;
  @Optional() @ListOf(() => LoggedBatchDoor, MOST_BATCHES) batches?: LoggedBatchDoor[];
}

const MOST_COLUMNS = 400;
const MOST_LESSONS = 60;
const isHead = (value: unknown) => typeof value === 'string' && value.length <= LONGEST.line;

class SheetColumnsDoor implements SheetColumns {
  @OrNull() @NumberBetween(0, MOST_COLUMNS) bar!: number | null;
  @OrNull() @NumberBetween(0, MOST_COLUMNS) what!: number | null;
  @OrNull() @NumberBetween(0, MOST_COLUMNS) amount!: number | null;
  @OrNull() @NumberBetween(0, MOST_COLUMNS) unit!: number | null;
  @OrNull() @NumberBetween(0, MOST_COLUMNS) note!: number | null;
  @Optional() @OrNull() @NumberBetween(0, MOST_COLUMNS) stage?: number | null;
  @Optional() @OrNull() @NumberBetween(0, MOST_COLUMNS) portion?: number | null;
  @Optional() @OrNull() @NumberBetween(0, MOST_COLUMNS) weighed?: number | null;
  @Optional() @OrNull() @NumberBetween(0, MOST_COLUMNS) larger?: number | null;
}

class SheetLayoutDoor {
  @OneOf(SHEET_KINDS) kind!: string;
  @NumberBetween(-1, 1e5) head!: number;
  @Nested(() => SheetColumnsDoor) columns!: SheetColumnsDoor;
  @OrNull() @OneOf(['%', ...UNITS]) unit!: string | null;
}

class ChosenDoor {
  @Name('the name in the sheet') name!: string;
  @Id() id!: string;
  @Name('the material') title!: string;
  @OneOf(KINDS) kind!: string;
}

class SheetSaidDoor {
  @OneOf(['fats', 'whole']) percentOf!: string;
  @NumberBetween(0, 1e6) batchG!: number;
  @NumberBetween(0, 100) superfatPct!: number;
}

class PointedDoor {
  @Name('the name in the sheet') name!: string;
  @OneOf(POINTED_ROLES) role!: string;
}

/** What was said about a sheet, for those laid out alike. */
class SheetLessonDoor {
  @Values(MOST_COLUMNS, 'not-text', 'Give the heads of the sheet.', isHead) heads!: string[];
  @Nested(() => SheetLayoutDoor) layout!: SheetLayoutDoor;
  @Nested(() => SheetSaidDoor) said!: SheetSaidDoor;
  @ListOf(() => ChosenDoor, MOST_NAMES) chosen!: ChosenDoor[];
  @Optional() @ListOf(() => PointedDoor, MOST_NAMES) roles?: PointedDoor[];
  @Name('the sheet') learntFrom!: string;
  @Day() learntOn!: string;
}

export class SheetLessonsDoor {
  @ListOf(() => SheetLessonDoor, MOST_LESSONS) lessons!: SheetLessonDoor[];
}

export class ImportDoor {
  @YesNo() preview!: boolean;
  @ListOf(() => ImportedBarDoor, MOST_BARS) bars!: ImportedBarDoor[];
  @Clearable() @Nested(() => SheetLessonDoor) lesson?: SheetLessonDoor | null;
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
