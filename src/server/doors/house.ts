/** The doors of the house: backups and what can be set. */
import { isZone } from '../../core/quantities/day';
import { CURRENCIES, DEGREES, SCENT_PERCENTS, WEIGHTS } from '../../core/records/house';
import { COUNTRY_CODES, LABEL_LANGUAGES, OWN_WORDS } from '../../core/labels/languages';
import { LONGEST, Markets, NotEmpty, NumberBetween, OneOf, Optional, Rule, Text, Values } from './fields';
import { FirstRevision } from './revision';

const isLanguage = (value: unknown) => (LABEL_LANGUAGES as readonly unknown[]).includes(value);
const isCountry = (value: unknown) => (COUNTRY_CODES as readonly unknown[]).includes(value);

/** The longest of a label's fixed words, letters. */
const LONGEST_FIXED = 120;

/** Words by language and place; those of durability hold the month. */
function areOwnWords(value: unknown): boolean {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
  return Object.entries(value).every(
    ([language, words]) =>
      isLanguage(language) &&
      typeof words === 'object' &&
      words !== null &&
      Object.entries(words as object).every(
        ([key, text]) =>
          (OWN_WORDS as readonly string[]).includes(key) &&
          typeof text === 'string' &&
          text.length <= LONGEST_FIXED &&
          (key !== 'best' || text.trim() === '' || text.split('{date}').length === 2),
      ),
  );
}
const areDifferent = (values: unknown) => !Array.isArray(values) || new Set(values).size === values.length;

/** A longer one makes a code too fine for a label. */
const LONGEST_ADDRESS = 80;

/** An address of the web that a code can lead to; empty for none. */
function isAddress(value: unknown): boolean {
  if (value === '') return true;
  if (typeof value !== 'string' || value.length > LONGEST_ADDRESS || !/^https?:\/\/[^\s?#]+$/.test(value))
    return false;
  return URL.canParse(value);
}

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
  @Values(LABEL_LANGUAGES.length, 'unknown-language', 'Give languages of labels, each once.', isLanguage)
  @Rule('twice', 'Give each language once.', areDifferent)
  labelLanguages?: string[];
  @Optional()
  @Values(
    COUNTRY_CODES.length,
    'unknown-country',
    'Give countries of the EU and beside it, each once.',
    isCountry,
  )
  @Rule('twice', 'Give each country once.', areDifferent)
  labelCountries?: string[];
  @Optional()
  @Rule(
    'own-words',
    `Give your own words by language (best, batch, use, cautions), up to ${LONGEST_FIXED} letters; those of durability with {date} once.`,
    areOwnWords,
  )
  labelWords?: object;
  @Optional()
  @Rule(
    'not-an-address',
    `Give an address that begins with https:// or http://, up to ${LONGEST_ADDRESS} letters, or leave it empty.`,
    isAddress,
  )
  cardsAt?: string;
}

/** Said in words, so that nobody takes it out by a stray request. */
export const DEMO_OUT = 'take the demo out';

export class DemoOutDoor {
  @OneOf([DEMO_OUT]) sure!: string;
}
