/** What a made-up supplier means to say, drawn from a seed: the truth a reading is held against. */
import { rulebook } from '../../src/rulebook';

export const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl'] as const;
export type Language = (typeof LANGUAGES)[number];

export interface TrueRow {
  id: string;
  name: string;
  cas: string[];
  low: number;
  typical: number;
  high: number;
  /** Written as not detected, as traces or below a bound. */
  as: 'figure' | 'nd' | 'trace' | 'below';
}

export interface Truth {
  seed: number;
  language: Language;
  material: string;
  issuer: string;
  number: string;
  issuedOn: string;
  edition: number;
  /** Category and its maximum, percent; 100 not restricted, 0 not permitted. */
  levels: [category: string, maxPct: number][];
  rows: TrueRow[];
  flashC: number;
  vanillinPct: number | null;
  holds: 'certificate' | 'declaration' | 'both';
}

/** A small generator of its own kind, so that nothing of the product's tests shapes the draws. */
export class Draw {
  private state: number;
  constructor(seed: number) {
    this.state = (seed * 2654435761 + 97) >>> 0;
  }
  unit(): number {
    this.state ^= this.state << 13;
    this.state >>>= 0;
    this.state ^= this.state >>> 17;
    this.state ^= this.state << 5;
    this.state >>>= 0;
    return this.state / 4294967296;
  }
  int(from: number, to: number): number {
    return from + Math.floor(this.unit() * (to - from + 1));
  }
  of<T>(list: readonly T[]): T {
    return list[Math.floor(this.unit() * list.length)]!;
  }
  chance(share: number): boolean {
    return this.unit() < share;
  }
}

const FIRST = [
  'Harbour',
  'Paper',
  'Quiet',
  'Moss',
  'Copper',
  'Winter',
  'Orchard',
  'Lantern',
  'Salt',
  'Attic',
  'Rainy',
];
const LAST = [
  'Fig',
  'Gate',
  'Ribbon',
  'Cedar & Smoke',
  'Linen',
  'Meadow',
  'Sugarplum',
  'Tonic',
  'No. 7',
  'Iris',
  'Milk',
];
const OWN: Record<Language, string[]> = {
  en: ['Orange Oil Sweet', 'Lavender 40/42', 'Peppermint Supreme'],
  de: ['Orangenöl süß', 'Waldspaziergang', 'Bienenwachs & Honig', 'Kräutergarten'],
  fr: ['Fleur d’Oranger', 'Forêt Noire', 'Thé Blanc', 'Pêche de Vigne'],
  es: ['Naranja Dulce', 'Jabón de la Abuela', 'Flor de Azahar', 'Canela y Clavo'],
  it: ['Agrumi di Sera', 'Notte d’Estate', 'Fico Verde', 'Sapone Antico'],
  nl: ['Groene Thee', 'Zeebries', 'Sinaasappelbloesem', 'Warme Kaneel'],
};
const COMPANY: Record<Language, string[]> = {
  en: ['Fernhollow Fragrance Co. Ltd', 'Pennard & Sons', 'Millrace Aromatics', 'Three Gables Oils'],
  de: ['Duftwerk Ahrental GmbH', 'Gebrüder Lohmann KG', 'Aromen Seewald GmbH'],
  fr: ['Parfums du Vallon SARL', 'Maison Terrebel', 'Arômes de Lorvigne SAS'],
  es: ['Esencias del Tajuelo S.L.', 'Aromas Montiel S.A.'],
  it: ['Essenze Valdora S.r.l.', 'Profumi Castelbianco S.p.A.'],
  nl: ['Geurhuis De Linde B.V.', 'Aroma Veenstra B.V.'],
};

const ALL_CATEGORIES = [
  '1',
  '2',
  '3',
  '4',
  '5A',
  '5B',
  '5C',
  '5D',
  '6',
  '7A',
  '7B',
  '8',
  '9',
  '10A',
  '10B',
  '11A',
  '11B',
  '12',
];

function level(draw: Draw): number {
  const kind = draw.unit();
  if (kind < 0.1) return 100;
  if (kind < 0.16) return 0;
  const size = draw.of([0.05, 0.5, 2, 8, 30]);
  return Number((size * (0.4 + draw.unit())).toFixed(draw.of([1, 2, 2, 3])) || '0.1');
}

function levels(draw: Draw): Truth['levels'] {
  const wanted = draw.chance(0.75)
    ? ALL_CATEGORIES
    : ALL_CATEGORIES.filter((one) => one === '9' || draw.chance(0.6));
  return wanted.map((category) => {
    const max = level(draw);
    // Category 9 is rarely without any figure, or nothing would be tested.
    return [
      category,
      category === '9' && draw.chance(0.9)
        ? Number((0.2 + draw.unit() * 12).toFixed(draw.of([1, 2, 2])))
        : max,
    ];
  });
}

function rows(draw: Draw): TrueRow[] {
  const book = rulebook().allergens.filter(({ kind }) => kind === 'substance' || draw.chance(0.1));
  const count = draw.of([3, 6, 10, 18, 26]);
  const start = draw.int(0, book.length - 1);
  const chosen = Array.from({ length: count }, (_, at) => book[(start + at * 3) % book.length]!);
  const unique = [...new Map(chosen.map((one) => [one.id, one])).values()];
  const budget = 90 / unique.length;
  return unique.map(({ id, name, cas, alsoCas }): TrueRow => {
    const kind = draw.unit();
    const numbers = draw.chance(0.2) && alsoCas.length > 0 ? [cas, ...alsoCas.slice(0, 2)] : [cas];
    const plain = { id, name, cas: numbers };
    if (kind < 0.2) return { ...plain, low: 0, typical: 0, high: 0, as: 'nd' };
    if (kind < 0.24) return { ...plain, low: 0, typical: 0, high: 0, as: 'trace' };
    const value = Number((budget * draw.unit() ** 3).toFixed(draw.of([2, 3, 4]))) || 0.01;
    if (kind < 0.3) return { ...plain, low: 0, typical: value, high: value, as: 'below' };
    return { ...plain, low: value, typical: value, high: value, as: 'figure' };
  });
}

const day = (draw: Draw) =>
  new Date(Date.UTC(draw.int(2021, 2026), draw.int(0, 11), draw.int(1, 28))).toISOString().slice(0, 10);

const code = (draw: Draw) =>
  draw.of([
    () => `${draw.of(['FH', 'C', 'QA', 'IFC', 'ZD'])}-${draw.int(1000, 99999)}`,
    () => `${draw.int(10000, 999999)}`,
    () => `${draw.int(2021, 2026)}/${draw.int(100, 999)}`,
    () => `${draw.of(['CERT', 'DOC', 'AL'])}${draw.int(100, 9999)}-${draw.of(['A', 'B', 'R2'])}`,
    () => `${draw.int(100, 999)}.${draw.int(100, 999)}`,
  ])();

/** What one paper says. The same seed always gives the same. */
export function truthOf(seed: number): Truth {
  const draw = new Draw(seed);
  const language = draw.of(LANGUAGES);
  const isOwn = draw.chance(0.5);
  return {
    seed,
    language,
    material: isOwn ? draw.of(OWN[language]) : `${draw.of(FIRST)} ${draw.of(LAST)}`,
    issuer: draw.of(COMPANY[language]),
    number: code(draw),
    issuedOn: day(draw),
    edition: draw.of([48, 49, 49, 50, 51, 51, 51]),
    levels: levels(draw),
    rows: rows(draw),
    flashC: draw.int(45, 110),
    vanillinPct: draw.chance(0.25) ? Number((draw.unit() * 8).toFixed(1)) : null,
    holds: draw.of(['certificate', 'certificate', 'declaration', 'both']),
  };
}
