/** Words of amounts in the six languages that makers' sheets are in: English, German, French, Italian, Spanish, Dutch. */
import type { Measure } from '../formula/types';
import type { Unit } from './units';

/** What a word counts in: so many of a unit, and how it is measured where the word itself says so. */
export interface CountedIn {
  unit: Unit;
  times: number;
  measuredBy?: Measure;
}

/**
 * Pfund and pond are half a kilogram; the English and the Spanish pound are not. What is two things in two places is left out
 * and asked about: a livre in France and in Canada, a Tasse or taza of any size, cc for a spoon or a cubic centimetre.
 */
const GRAMS_PER_METRIC_POUND = 500;
/** Twenty drops to the millilitre, sixteen pinches and eight dashes to the teaspoon: by eye all of them. */
const DROPS_PER_ML = 20;
const PINCHES_PER_TSP = 16;
const DASHES_PER_TSP = 8;

/** Each pattern is held against the whole of a unit's words, lower case, without dots at the end of shortened words. */
const UNIT_WORDS: readonly (readonly [string, CountedIn])[] = [
  ['g|gr|gramm?s?|grammes?|grammi|grammo|gramos?', { unit: 'g', times: 1 }],
  ['mg|milligrammes?|milligramm?s?', { unit: 'g', times: 0.001 }],
  ['kg|kgs|kilos?|kilogramm?s?|kilogrammes?|chil[oi]|chilogramm[oi]|kilogramos?', { unit: 'kg', times: 1 }],
  ['oz|ozs|ounces?|onces?|unzen?|once|oncia|onzas?|onsen?', { unit: 'oz', times: 1 }],
  ['lbs?|pounds?|libras?|libbr[ae]', { unit: 'lb', times: 1 }],
  ['pfund|pond(?:en)?', { unit: 'g', times: GRAMS_PER_METRIC_POUND }],
  ['ml|millilit(?:er|re)s?|millilitr[oi]|mililitros?', { unit: 'mL', times: 1 }],
  ['cl|centilit(?:er|re)s?', { unit: 'mL', times: 10 }],
  ['dl|decilit(?:er|re)s?|deziliter', { unit: 'mL', times: 100 }],
  ['l|lit(?:er|re)s?|litr[oi]|litros?', { unit: 'L', times: 1 }],
  [
    'tsps?|teaspoon(?:ful)?s?|teaspoonsful|tl|teel(?:ö|oe?)ffel|c ?à ?c|c ?à ?café|cuill(?:è|e)res? (?:à|a) (?:café|cafe)|cuill(?:è|e)res? (?:à|a) thé|cucchiain[oi](?: da (?:tè|te|caffè))?|cucharaditas?|cdtas?|theelepel(?:tje)?s?',
    { unit: 'tsp', times: 1 },
  ],
  [
    'tbsps?|tbs|tablespoon(?:ful)?s?|tablespoonsful|el|essl(?:ö|oe?)ffel|c ?à ?s|c ?à ?soupe|cs|cuill(?:è|e)res? (?:à|a) soupe|cucchiai[oi]?(?: da (?:tavola|minestra))?|cucharadas?|cdas?|eetlepels?',
    { unit: 'tbsp', times: 1 },
  ],
  ['cups?|cupfuls?', { unit: 'cup', times: 1 }],
  ['fl ?oz|fluid ounces?|fl ounces?', { unit: 'flOz', times: 1 }],
  ['(?:metric ?tsps?|tsps? ?metric|metric teaspoons?)', { unit: 'tspMetric', times: 1 }],
  ['(?:metric ?tbsps?|tbsps? ?metric|metric tablespoons?)', { unit: 'tbspMetric', times: 1 }],
  ['(?:au ?tbsps?|tbsps? ?au|australian tablespoons?)', { unit: 'tbspAU', times: 1 }],
  [
    'drops?|gtt|tropfen|tr|gouttes?|gocc(?:ia|e)|gotas?|druppels?',
    { unit: 'mL', times: 1 / DROPS_PER_ML, measuredBy: 'eye' },
  ],
  [
    'pinch(?:es)?|prisen?|pinc(?:é|e)es?|pizzic(?:o|hi)|pizcas?|snuf(?:jes?|fen)?',
    { unit: 'tsp', times: 1 / PINCHES_PER_TSP, measuredBy: 'eye' },
  ],
  ['dash(?:es)?', { unit: 'tsp', times: 1 / DASHES_PER_TSP, measuredBy: 'eye' }],
];

/** Words of a unit, read whole; they must be lower case. Undefined where they name none. */
export function countedIn(words: string): CountedIn | undefined {
  return UNIT_PATTERNS.find(([pattern]) => pattern.test(words))?.[1];
}
const UNIT_PATTERNS = UNIT_WORDS.map(([words, counted]) => [new RegExp(`^(?:${words})$`), counted] as const);

const FATS =
  '(?:base )?(?:oils?|fats?)(?: weight)?|öle?n?|oele?n?|fette?n?|fettmenge|gesamtfettmenge|gfm|huiles?|graisses?|corps gras|oli[oi]?|grassi|aceites?|grasas?|oli(?:e|ën|en)|vet(?:ten)?';
const OF =
  "(?:of|in|on|d'|der|des|dem|den|die|vom|von|im|an|auf|an den|du|de|di|del|della|degli|dei|van|à|sur)";
const THE = "(?:the|total|all|los|las|la|le|les|l'|il|lo|i|gli|de|het|den|der)";
const of = (words: string) => new RegExp(`^(?:${OF}\\s*)?(?:${THE}\\s*)*(?:${words})$`);

/** What a percent is of, by the words behind it. */
const PERCENT_OF: readonly (readonly [RegExp, Unit])[] = [
  [of(FATS), '%fats'],
  [
    of(
      'bar|cured(?: bar| soap)?|finished (?:bar|soap|product)|fertigen? seife|reifen seife|savon fini|sapone finito|jab(?:ó|o)n curado',
    ),
    '%cured',
  ],
  [
    of(
      'liquids?|water|lye water|fl(?:ü|ue)ssigkeit|wassers?|liquides?|eau|liquid[oi]|acqua|l(?:í|i)quidos?|agua|vloeistof',
    ),
    '%liquid',
  ],
  [
    of(
      'batch|fresh batch|whole|total|pour|batter|whole batch|everything|gesamt(?:menge)?|gesamten|ganzen|seifenleims?|tout|lot|totale?|impasto|todo|masa|totaal|geheel|beslag',
    ),
    '%pour',
  ],
];

const PERCENT =
  /^(?:%|percent|per cent|pct|prozent|pour cent|per cento|por ciento|procent)(?!\p{L})\s*(.*)$/u;

/**
 * Whether words say a percent, and of what: the unit, 'open' where nothing says of what, undefined for what it cannot be of;
 * null where they say no percent. "Of the soap" may be the fresh pour or the cured bar: it is none of them.
 */
export function percentIn(words: string): Unit | 'open' | undefined | null {
  const match = PERCENT.exec(words);
  if (!match) return null;
  return match[1] === '' ? 'open' : PERCENT_OF.find(([pattern]) => pattern.test(match[1]!))?.[1];
}

const RATE_OF = `(?:\\s*(?:${OF}\\s*)?(?:${THE}\\s*)*(?:${FATS}))?$`;
const PER = '(?:per|pro|je|par|por|al|a|à|aan|/)\\s*(?:a |one |1 ?)?';
const PER_POUND = new RegExp(`\\s*(?:ppo|${PER}(?:lbs?|pounds?|libras?|libbr[ae])${RATE_OF})$`);
const PER_METRIC_POUND = new RegExp(`\\s*${PER}(?:pfund|pond)${RATE_OF}`);
const PER_KILO = new RegExp(`\\s*${PER}(?:kg|kilos?|kilogramm?|kilogramme|chilo|kilogramo)${RATE_OF}`);
/** Grams of fats that a rate is for. */
const RATES: readonly (readonly [RegExp, number])[] = [
  [PER_POUND, 453.59237],
  [PER_METRIC_POUND, GRAMS_PER_METRIC_POUND],
  [PER_KILO, 1000],
];

/** Parts "per pound of oils" and the like from what stands before it; `perG` in grams of fats, null where it is no rate. */
export function rateIn(words: string): { rest: string; perG: number | null } {
  for (const [pattern, perG] of RATES)
    if (pattern.test(words)) return { rest: words.replace(pattern, '').trim(), perG };
  return { rest: words, perG: null };
}

const HEAPED =
  /(?<![\p{L}])(?:heap(?:ed|ing)|rounded|geh(?:ä|ae)uft\p{L}*|geh(?![\p{L}])|bomb(?:é|e)\p{L}*|colm[oiae]|colmad[oa]s?|(?:op)?gehoopte?|bolle)(?![\p{L}])/u;
const LEVEL =
  /(?<![\p{L}])(?:level(?:l?ed)?|scant|gestrichen\p{L}*|gestr(?![\p{L}])|rases?|ras|ras[oiae]|afgestreken)(?![\p{L}])/u;

/** How a spoon was filled, by the words beside it, and the text without them. */
export function filled(text: string): { rest: string; measuredBy: Measure | undefined } {
  const measuredBy = HEAPED.test(text) ? 'heaped' : LEVEL.test(text) ? 'spoon' : undefined;
  return { rest: text.replace(HEAPED, ' ').replace(LEVEL, ' ').replace(/\s+/g, ' ').trim(), measuredBy };
}

const ABOUT =
  /^(?:[~≈]|(?:about|approx(?:imately)?|approx|roughly|circa|ca|ungef(?:ä|ae)hr|etwa|environ|env|alrededor de|unos|aproximadamente|ongeveer)(?![\p{L}])\.?)\s*/u;
const HALF =
  '(?:half(?: an?| of an?)?|(?:ein|eine|einen) halbe[rns]?|halbe[rns]?|une? demi(?:e)?|demi(?:e)?|mezz[oa]|medi[oa]|(?:een )?halve?)[\\s-]*';
const ONE = "(?:an?|one|eine?[nr]?|une?|un[oa]?|un'|een|één)";
const TWO = '(?:two|zwei|deux|due|dos|twee)';
const THREE = '(?:three|drei|trois|tre|tres|drie)';
const FOUR = '(?:four|vier|quatre|quattro|cuatro)';
/** Numbers in words where a word of a unit follows. */
const SPOKEN: readonly (readonly [RegExp, string])[] = [
  [new RegExp(`^${HALF}(?=\\p{L})`, 'u'), '1/2 '],
  ...([ONE, TWO, THREE, FOUR] as const).map(
    (words, at) => [new RegExp(`^${words}(?![\\p{L}])\\s*(?=\\p{L})`, 'u'), `${at + 1} `] as const,
  ),
];
/** Fractions as one letter. */
const FRACTIONS: Record<string, string> = {
  '½': '1/2',
  '⅓': '1/3',
  '⅔': '2/3',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
};

/** A text in one spelling: lower case but for a lone T, fractions as figures, numbers as figures, no "about". */
export function inOneSpelling(text: string): string {
  const figures = text
    .trim()
    .replace(/[½⅓⅔¼¾⅛⅜⅝⅞]/g, (letter) => ` ${FRACTIONS[letter]}`)
    .replace(/[\u2018\u2019]/g, "'")
    .replace(/(?<![\p{L}])T(?![\p{L}])/gu, 'tbsp')
    .replace(/(?<![\p{L}'])t(?![\p{L}'])/gu, 'tsp')
    .toLowerCase()
    // Points of words cut short, never of figures.
    .replace(/(?<=\p{L})\.(?!\d)/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .replace(ABOUT, '');
  return SPOKEN.reduce((all, [pattern, figure]) => all.replace(pattern, figure), figures);
}

/** What joins a pound and its ounces. */
const JOINT = '(?:and|und|et|e|y|en|\\+|&|,)';
const JOINT_BEFORE = new RegExp(`^${JOINT}\\s*`);
const JOINT_AFTER = new RegExp(`\\s*${JOINT}$`);
/** Words up to the next number: "lb 8 oz", not "tsp / 1 lb". */
const UP_TO_NUMBER = /^([^\d/%]+?)\s*(?=\d|[.,]\d)/;

/** Where an amount goes on in a smaller unit, the words of this piece and the text of the next: "lb 8 oz"; null where it ends. */
export function pieceOf(rest: string): { words: string; next: string } | null {
  const match = UP_TO_NUMBER.exec(rest);
  const words = match?.[1]!.replace(JOINT_AFTER, '') ?? '';
  if (!match || !countedIn(words)) return null;
  return { words, next: rest.slice(match[0].length).replace(JOINT_BEFORE, '') };
}

/** Measures that only the hand knows. */
export const BY_HAND =
  /handfuls?|handvoll|poign(?:é|e)e|manciat[ae]|pu(?:ñ|n)ados?|handen ?vol|handvol|glug|splash|spritzer|schuss|looks right/;
/** What parts the two ends of a range. */
export const RANGE = /^[\d.,/ ]+\s*(?:-|–|—|to|bis|à|a|tot)\s*\d/;
