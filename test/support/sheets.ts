/** Makers' spreadsheets made up at random, with what they mean: written apart from what reads them. */
import type { Unit } from '../../src/core/quantities/units';
import { seeded } from './generate';

export interface TrueLine {
  /** Ids that the ingredient may be taken for. */
  ids: string[];
  value: number;
  unit: Unit;
}

export interface TrueBar {
  name: string;
  lines: TrueLine[];
  lyeG: number | null;
  superfatPct: number | null;
}

export interface MadeSheet {
  layout: string;
  rows: string[][];
  bars: TrueBar[];
}

type Random = () => number;
const one = <T>(random: Random, all: readonly T[]): T => all[Math.floor(random() * all.length)]!;
const shuffled = <T>(random: Random, all: readonly T[]): T[] =>
  all
    .map((value) => ({ value, key: random() }))
    .sort((a, b) => a.key - b.key)
    .map(({ value }) => value);

/** How makers write what they use. */
const FATS: [string[], string[]][] = [
  [
    ['Olive oil', 'olive oil (pomace)', 'Extra virgin olive oil', 'OLIVE OIL'],
    ['olive', 'olive-pomace'],
  ],
  [['Coconut oil', 'coconut oil 76', 'Coconut Oil (76 deg)', 'Organic coconut oil'], ['coconut']],
  [['Castor oil', 'castor', 'Castor Oil'], ['castor']],
  [['Shea butter', 'shea butter, refined', 'Raw shea butter'], ['shea']],
  [['Cocoa butter', 'cocoa butter'], ['cocoa-butter']],
  [['Sweet almond oil', 'sweet almond oil'], ['sweet-almond']],
  [
    ['Sunflower oil', 'sunflower oil'],
    ['sunflower', 'sunflower-high-oleic'],
  ],
  [['Rice bran oil', 'rice bran oil'], ['rice-bran']],
];
const ADDED: [string[], string[]][] = [
  [['Lavender EO', 'lavender essential oil', 'Lavender oil'], ['lavender-oil']],
  [['Peppermint EO', 'Peppermint essential oil'], ['peppermint-oil']],
  [['Kaolin clay', 'kaolin', 'Kaolin'], ['kaolin']],
];
const WATER = ['Water', 'Distilled water', 'water'];
const LYE = ['NaOH', 'Lye', 'Sodium hydroxide', 'Caustic soda (lye)'];
const NAMES = 'Harbour Lantern Meadow Slate Copper Gorse Thimble Juniper Rook Barley Pewter Heron'.split(' ');
const ENDS = 'Bar Block Soap Morning Evening Wash'.split(' ');

type Written = [label: string, cell: string];

interface Recipe extends TrueBar {
  written: Written[];
}

const UNITS = { g: [10, 400], oz: [0.5, 16] } as const;

function recipe(random: Random, number: number, bare: 'g' | 'oz' | null): Recipe {
  const unit = bare ?? one(random, ['g', 'oz'] as const);
  const cell = (value: number) =>
    bare ? String(value) : one(random, [`${value} ${unit}`, `${value}${unit}`]);
  const amount = () => {
    const [low, high] = UNITS[unit];
    return Number((low + (high - low) * random()).toFixed(unit === 'g' ? 0 : 1));
  };
  const lines: TrueLine[] = [];
  const written: Written[] = [];
  const put = (spellings: string[], ids: string[], value: number, text = cell(value), as: Unit = unit) => {
    lines.push({ ids, value, unit: as });
    written.push([one(random, spellings), text]);
  };
  for (const [spellings, ids] of shuffled(random, FATS).slice(0, 2 + Math.floor(random() * 4)))
    put(spellings, ids, amount());
  put(WATER, ['water'], amount());
  for (const [spellings, ids] of shuffled(random, ADDED).slice(0, Math.floor(random() * 3))) {
    const way = bare ? 0 : Math.floor(random() * 3);
    const small = Number((0.3 + random()).toFixed(2));
    if (way === 1)
      put(
        spellings,
        ids,
        small,
        one(random, [`${small} oz ppo`, `${small} oz per lb of oils`]),
        'ozPerLbFats',
      );
    else if (way === 2) put(spellings, ids, 2, one(random, ['2 tsp', '2 tsp.', '2 teaspoons']), 'tsp');
    else put(spellings, ids, amount());
  }
  const hasLye = random() < 0.7;
  const lye = amount();
  if (hasLye) written.push([one(random, LYE), cell(lye)]);
  return {
    name: `${one(random, NAMES)} ${one(random, ENDS)} ${number}`,
    lines,
    written,
    lyeG: hasLye ? (unit === 'g' ? lye : lye * 28.349523125) : null,
    superfatPct: null,
  };
}

const LAYOUTS = {
  /** A row an ingredient, the bar beside it, in every row or in the first. */
  list(random: Random, count: number): MadeSheet {
    const bare = one(random, ['g', 'oz', null] as const);
    const isSparse = random() < 0.5;
    const heads = bare
      ? ['Recipe', 'Ingredient', one(random, [`Amount (${bare})`, `Weight, ${bare}`, bare])]
      : ['Soap', 'Ingredient', 'Amount'];
    const bars = Array.from({ length: count }, (_, at) => recipe(random, at, bare));
    const rows = bars.flatMap(({ name, written }) =>
      written.map(([label, cell], at) => [isSparse && at > 0 ? '' : name, label, cell]),
    );
    const titled = random() < 0.4 ? [['My soaps, copied from the notebook'], ['']] : [];
    return { layout: 'list', rows: [...titled, heads, ...rows], bars };
  },
  /** The unit in a column of its own. */
  units(random: Random, count: number): MadeSheet {
    const bars = Array.from({ length: count }, (_, at) => recipe(random, at, null));
    const split = (cell: string): [string, string] => {
      const [, value, unit] = /^([\d.]+)\s*(.*)$/.exec(cell)!;
      return [value!, unit!];
    };
    const rows = bars.flatMap(({ name, written }) =>
      written.map(([label, cell]) => [label, ...split(cell), name]),
    );
    return { layout: 'units', rows: [['Material', 'Qty', 'Unit', 'Product'], ...rows], bars };
  },
  /** Each bar named above its rows, a blank row between. */
  blocks(random: Random, count: number): MadeSheet {
    const bars = Array.from({ length: count }, (_, at) => recipe(random, at, null));
    const isHeaded = random() < 0.5;
    const rows = bars.flatMap(({ name, written }) => [
      [random() < 0.5 ? name : `${name}:`, ''],
      ...(isHeaded ? [['Ingredient', 'Amount']] : []),
      ...written,
      ['', ''],
    ]);
    return { layout: 'blocks', rows, bars };
  },
  /** A row a bar, a column an ingredient. */
  rows(random: Random, count: number): MadeSheet {
    const bars = Array.from({ length: count }, (_, at) => recipe(random, at, 'g'));
    const labels = [...new Set(bars.flatMap(({ written }) => written.map(([label]) => label)))];
    const cells = bars.map(({ name, written }) => [
      name,
      ...labels.map((label) => written.find(([own]) => own === label)?.[1] ?? one(random, ['', '-'])),
    ]);
    return { layout: 'rows', rows: [['Recipe (g)', ...labels], ...cells], bars };
  },
  /** A column a bar, a row an ingredient, sums at the foot. */
  columns(random: Random, count: number): MadeSheet {
    const bars = Array.from({ length: count }, (_, at) => recipe(random, at, 'g'));
    const labels = [...new Set(bars.flatMap(({ written }) => written.map(([label]) => label)))];
    const cells = labels.map((label) => [
      label,
      ...bars.map(({ written }) => written.find(([own]) => own === label)?.[1] ?? ''),
    ]);
    const sums = bars.map(({ written }) => String(written.reduce((sum, [, cell]) => sum + Number(cell), 0)));
    return {
      layout: 'columns',
      rows: [['Ingredients, grams', ...bars.map(({ name }) => name)], ...cells, ['Total', ...sums]],
      bars,
    };
  },
};

/** One sheet of so many bars in one of five layouts. */
export function makeSheet(seed: number, count: number): MadeSheet {
  const random = seeded(seed);
  return one(random, Object.values(LAYOUTS))(random, count);
}
