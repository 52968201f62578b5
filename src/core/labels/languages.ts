/** Languages of labels: their fixed words, how far these can be leant on, and which of them a country asks for. */
import words from './label-words.json';

/** Every official language of the European Union, with Norwegian, Icelandic and Turkish. */
export const LABEL_LANGUAGES = [
  ...['bg', 'cs', 'da', 'de', 'el', 'en', 'es', 'et', 'fi', 'fr', 'ga', 'hr', 'hu', 'is'],
  ...['it', 'lt', 'lv', 'mt', 'nl', 'no', 'pl', 'pt', 'ro', 'sk', 'sl', 'sv', 'tr'],
] as readonly LabelLanguage[];

export type LabelLanguage = keyof typeof words;

/** What they are called in English. */
export const LABEL_LANGUAGE_NAMES: Record<LabelLanguage, string> = {
  bg: 'Bulgarian',
  cs: 'Czech',
  da: 'Danish',
  de: 'German',
  el: 'Greek',
  en: 'English',
  es: 'Spanish',
  et: 'Estonian',
  fi: 'Finnish',
  fr: 'French',
  ga: 'Irish',
  hr: 'Croatian',
  hu: 'Hungarian',
  is: 'Icelandic',
  it: 'Italian',
  lt: 'Lithuanian',
  lv: 'Latvian',
  mt: 'Maltese',
  nl: 'Dutch',
  no: 'Norwegian',
  pl: 'Polish',
  pt: 'Portuguese',
  ro: 'Romanian',
  sk: 'Slovak',
  sl: 'Slovenian',
  sv: 'Swedish',
  tr: 'Turkish',
};

/** Cautions that are proposed by what is in a bar. */
export type UsualCaution = keyof (typeof words)['en']['usual'];

/** How a month is written there. */
type MonthStyle = 'mm/yyyy' | 'mm.yyyy' | 'yyyy-mm' | 'yyyy.mm';

/** The fixed words of a label in a language. */
export interface LabelWords {
  /** What such a bar is. */
  soap: string;
  /** Best used before the end of `{date}`. */
  best: string;
  month: string;
  /** Headings. */
  batch: string;
  use: string;
  cautions: string;
  usual: Record<UsualCaution, string>;
}

export const LABEL_WORDS: Record<LabelLanguage, LabelWords> = words;

/** Of whom they were read: of nobody whose language it is, so far; of some that is told where a label is issued. */
export type WordsStanding = 'readByNative' | 'notYet';
export const wordsStanding = (_language: LabelLanguage): WordsStanding => 'notYet';

/** Languages whose words are those of many such labels; of all others it is said at issue that nobody read them yet. */
const WELL_KNOWN: ReadonlySet<LabelLanguage> = new Set(['en', 'fr', 'de', 'es', 'it', 'nl'] as const);
export const isTold = (language: LabelLanguage): boolean => !WELL_KNOWN.has(language);

/** Fixed words that a maker can put her own in the place of. */
export const OWN_WORDS = ['best', 'batch', 'use', 'cautions'] as const;
export type OwnWord = (typeof OWN_WORDS)[number];

/** A maker's own words, by language. */
export type OwnLabelWords = Partial<Record<LabelLanguage, Partial<Record<OwnWord, string>>>>;

/** The words of a language, the maker's own in their place. */
export function wordsIn(language: LabelLanguage, own: OwnLabelWords = {}): LabelWords {
  const mine = Object.fromEntries(
    Object.entries(own[language] ?? {}).filter(([, text]) => text !== undefined && text.trim() !== ''),
  );
  return { ...LABEL_WORDS[language], ...mine };
}

/**
 * A month as it is written in a language.
 *
 * @example monthIn('sv', '2028-11') // '2028-11'
 * @example monthIn('en', '2028-11') // '11/2028'
 */
export function monthIn(language: LabelLanguage, month: string): string {
  const [year, number] = month.split('-') as [string, string];
  const style = LABEL_WORDS[language].month as MonthStyle;
  return style.replace('yyyy', year).replace('mm', number);
}

/**
 * "Best used before the end of" in some languages, with the month: once behind all of them where they write it alike and at
 * their end, else in each.
 *
 * @example bestBefore(['en', 'fr'], '2028-11') // 'Best used before the end of / À utiliser de préférence avant fin 11/2028'
 */
export function bestBefore(
  languages: readonly LabelLanguage[],
  month: string,
  own: OwnLabelWords = {},
): string {
  const all = languages.map((language) => ({
    pattern: wordsIn(language, own).best,
    date: monthIn(language, month),
  }));
  const [first] = all;
  const isAlike = all.every(({ pattern, date }) => pattern.endsWith('{date}') && date === first!.date);
  const once = (texts: readonly string[]) => [...new Set(texts)].join(' / ');
  if (!isAlike) return once(all.map(({ pattern, date }) => pattern.replace('{date}', date)));
  return first ? `${once(all.map(({ pattern }) => pattern.replace('{date}', '').trim()))} ${first.date}` : '';
}

interface CountryAsks {
  name: string;
  languages: readonly LabelLanguage[];
  /** What is to be known of it. */
  note?: string;
}

const EEA = 'Of the European Economic Area: the EU’s rule on cosmetics holds there as well.';

/** Which languages countries ask for on cautions, what it is for and how long it keeps; as commonly told, to be confirmed. */
export const COUNTRIES = {
  AT: { name: 'Austria', languages: ['de'] },
  BE: {
    name: 'Belgium',
    languages: ['nl', 'fr', 'de'],
    note: 'The language of the region at least; all three are usual.',
  },
  BG: { name: 'Bulgaria', languages: ['bg'] },
  HR: { name: 'Croatia', languages: ['hr'] },
  CY: { name: 'Cyprus', languages: ['el'] },
  CZ: { name: 'Czechia', languages: ['cs'] },
  DK: { name: 'Denmark', languages: ['da'] },
  EE: { name: 'Estonia', languages: ['et'] },
  FI: { name: 'Finland', languages: ['fi', 'sv'] },
  FR: { name: 'France', languages: ['fr'] },
  DE: { name: 'Germany', languages: ['de'] },
  GR: { name: 'Greece', languages: ['el'] },
  HU: { name: 'Hungary', languages: ['hu'] },
  IE: { name: 'Ireland', languages: ['en'] },
  IT: { name: 'Italy', languages: ['it'] },
  LV: { name: 'Latvia', languages: ['lv'] },
  LT: { name: 'Lithuania', languages: ['lt'] },
  LU: {
    name: 'Luxembourg',
    languages: ['fr', 'de'],
    note: 'French, German or Luxembourgish; both of these are usual.',
  },
  MT: { name: 'Malta', languages: ['en'], note: 'Maltese or English.' },
  NL: { name: 'Netherlands', languages: ['nl'] },
  PL: { name: 'Poland', languages: ['pl'] },
  PT: { name: 'Portugal', languages: ['pt'] },
  RO: { name: 'Romania', languages: ['ro'] },
  SK: { name: 'Slovakia', languages: ['sk'] },
  SI: { name: 'Slovenia', languages: ['sl'] },
  ES: { name: 'Spain', languages: ['es'] },
  SE: { name: 'Sweden', languages: ['sv'] },
  XI: {
    name: 'Northern Ireland',
    languages: ['en'],
    note: 'The EU’s rule on cosmetics holds there, not that of Great Britain.',
  },
  NO: { name: 'Norway', languages: ['no'], note: EEA },
  IS: { name: 'Iceland', languages: ['is'], note: EEA },
  LI: { name: 'Liechtenstein', languages: ['de'], note: EEA },
} satisfies Record<string, CountryAsks>;

export type Country = keyof typeof COUNTRIES;
export const COUNTRY_CODES = Object.keys(COUNTRIES) as Country[];

/** What a country asks for. */
export const countryAsks = (country: Country): CountryAsks => COUNTRIES[country];

/** Where makers look for a market that is none here. */
export const NOT_COVERED: readonly { name: string; why: string }[] = [
  { name: 'Switzerland', why: 'its own ordinance on cosmetics, near the EU’s but not it; not covered' },
  { name: 'New Zealand', why: 'its own group standard for cosmetics; not covered' },
  {
    name: 'Turkey',
    why: 'its own regulation, modelled on the EU’s; labels speak Turkish, limits are not covered',
  },
];

/** The languages of some countries, each once, in their order. */
export const languagesOf = (countries: readonly Country[]): LabelLanguage[] => [
  ...new Set(countries.flatMap((country) => [...countryAsks(country).languages])),
];
