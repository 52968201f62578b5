/** The doors of the house: backups and what can be set. */
import { LONGEST, NumberBetween, OneOf, Text } from './fields';
import { FirstRevision } from './revision';

const MOST_HOURS = 24 * 7;

export class BackupSettingsDoor {
  @FirstRevision() revision!: number;
  @NumberBetween(1, MOST_HOURS) everyHours!: number;
  @Text(LONGEST.line) copyTo!: string;
}

export class TakeDoor {
  @OneOf(['new', 'all']) which!: string;
}
