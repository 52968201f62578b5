/** The doors of what comes from a maker's own spreadsheet. */
import { FormulaDoor } from './assessment-request';
import { ListOf, LONGEST, Name, Nested, Text, Values, YesNo } from './fields';

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
