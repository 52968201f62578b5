/** The doors of the house: backups and what can be set. */
import { isZone } from '../../core/quantities/day';
import { CURRENCIES, DEGREES, SCENT_PERCENTS, WEIGHTS } from '../../core/records/house';
import { LANGUAGES } from '../../core/claims/types';
import { LONGEST, Markets, NotEmpty, NumberBetween, OneOf, Optional, Rule, Text, Values } from './fields';
import { FirstRevision } from './revision';

const isLanguage = (value: unknown) => (LANGUAGES as readonly unknown[]).includes(value);
const areDifferent = (values: unknown) => !Array.isArray(values) || new Set(values).size === values.length;

const MOST_HOURS = 24 * 7;

export class BackupSettingsDoor {
  @FirstRevision() revision!: number;
  @NumberBetween(1, MOST_HOURS) everyHours!: number;
  @Text(LONGEST.line) copyTo!: string;
}

export class TakeDoor {
  @OneOf(['new', 'all']) which!: string;
}

export class SettingsDoor {
  @FirstRevision() revision!: number;
  @OneOf(CURRENCIES, 'unknown-currency') currency!: string;
  @Markets() @NotEmpty('Choose at least one market.') markets!: string[];
  @Optional() @OneOf(DEGREES) degrees?: string;
  @Optional() @OneOf(WEIGHTS) weights?: string;
  @Optional() @OneOf(SCENT_PERCENTS) scentPercents?: string;
  @Optional()
  @Rule('unknown-zone', 'Give a zone by its IANA name, such as Europe/Berlin.', isZone)
  zone?: string;
  @Optional()
  @Values(LANGUAGES.length, 'unknown-language', 'Give languages of labels, each once.', isLanguage)
  @Rule('twice', 'Give each language once.', areDifferent)
  labelLanguages?: string[];
}

/** Said in words, so that nobody takes it out by a stray request. */
export const DEMO_OUT = 'take the demo out';

export class DemoOutDoor {
  @OneOf([DEMO_OUT]) sure!: string;
}
