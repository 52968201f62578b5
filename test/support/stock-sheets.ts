/** Makers' lists of what stands in the cupboard, made up at random, with what they mean: written apart from what reads them. */
import { seeded } from './generate';

export interface TrueStock {
  ids: string[];
  supplier: string;
  code: string | null;
  boughtG: number;
  leftG: number;
  price: number | null;
  receivedOn: string | null;
  bestBefore: string | null;
}

export interface MadeStock {
  layout: string;
  rows: string[][];
  stock: TrueStock[];
}

type Random = () => number;
const pick = <T>(random: Random, all: readonly T[]): T => all[Math.floor(random() * all.length)]!;
const between = (random: Random, low: number, high: number) => low + Math.floor(random() * (high - low + 1));

/** A name as it is written, the ids it may be taken for, and what a millilitre weighs where it is bought by volume. */
const GOODS: Record<'en' | 'de' | 'fr', [string, string[]][]> = {
  en: [
    ['Olive oil', ['olive', 'olive-pomace']],
    ['Coconut oil 76', ['coconut']],
    ['Castor oil', ['castor']],
    ['Shea butter', ['shea']],
    ['Cocoa butter', ['cocoa-butter']],
    ['Lavender essential oil', ['lavender-oil']],
    ['Peppermint EO', ['peppermint-oil']],
    ['Kaolin clay', ['kaolin']],
    ['Sweet almond oil', ['sweet-almond']],
    ['Rice bran oil', ['rice-bran']],
  ],
  de: [
    ['Olive', ['olive', 'olive-pomace']],
    ['Kaolin', ['kaolin']],
    ['Shea', ['shea']],
    ['Babassu', ['babassu']],
  ],
  fr: [
    ['Kaolin', ['kaolin']],
    ['Babassu', ['babassu']],
    ['Jojoba', ['jojoba']],
  ],
};
const SHOPS = ['Ninefold Botanicals', 'Brackwater Aromatics', 'Tollen Mill', 'Quayside Supply'];
const OUNCE = 28.349523125;
const POUND = 453.59237;

const two = (value: number) => String(value).padStart(2, '0');
interface Day {
  y: number;
  m: number;
  d: number;
}
const day = (random: Random): Day => ({
  y: 2025 + between(random, 0, 1),
  m: between(random, 1, 12),
  d: between(random, 1, 28),
});
const iso = ({ y, m, d }: Day) => `${y}-${two(m)}-${two(d)}`;
const lastOf = (y: number, m: number) => `${y}-${two(m)}-${two(new Date(Date.UTC(y, m, 0)).getUTCDate())}`;
const code = (random: Random) =>
  pick(random, [
    `L${between(random, 100, 9999)}`,
    `${between(random, 10, 99)}-${between(random, 100, 999)}`,
    `B${between(random, 1, 99)}/26`,
  ]);
const american = ({ y, m, d }: Day) => `${m}/${d}/${y}`;
const german = (value: number, decimals: number) => {
  const [whole, rest] = value.toFixed(decimals).split('.');
  return `${whole!.replace(/\B(?=(\d{3})+$)/g, '.')}${rest ? `,${rest}` : ''}`;
};
const MONTHS = 'January February March April May June July August September October November December'.split(
  ' ',
);

/** Pounds and ounces, a price for all of it, the month first. */
function dollars(random: Random, count: number): MadeStock {
  const rows = [['Item', 'Vendor', 'Lot #', 'Qty', 'UOM', 'Cost', 'Purchase date', 'Expiration date']];
  const stock: TrueStock[] = [];
  for (let at = 0; at < count; at++) {
    const [name, ids] = GOODS.en[at % GOODS.en.length]!;
    const [unit, grams] = pick(random, [
      ['lb', POUND],
      ['oz', OUNCE],
      ['LBS', POUND],
    ] as const);
    const quantity = between(random, 1, 40);
    const [came, ends] = [
      { ...day(random), d: 13 + (at % 15) },
      { ...day(random), y: 2027 },
    ];
    const shop = pick(random, SHOPS);
    const price = between(random, 500, 9000) / 100;
    const lot = code(random);
    rows.push([
      name,
      shop,
      lot,
      String(quantity),
      unit,
      `$${price.toFixed(2)}`,
      american(came),
      american(ends),
    ]);
    const massG = quantity * grams;
    stock.push({
      ids,
      supplier: shop,
      code: lot,
      boughtG: massG,
      leftG: massG,
      price,
      receivedOn: iso(came),
      bestBefore: iso(ends),
    });
  }
  return { layout: 'dollars', rows, stock };
}

/** A German list: kilograms in the head, a price a kilogram, commas, what is left beside what was bought. */
function kilos(random: Random, count: number): MadeStock {
  const rows = [
    ['Lagerliste'],
    [],
    ['Rohstoff', 'Lieferant', 'Charge', 'Menge (g)', 'Bestand (g)', 'Preis/kg', 'Gekauft am', 'MHD'],
  ];
  const stock: TrueStock[] = [];
  for (let at = 0; at < count; at++) {
    const [name, ids] = GOODS.de[at % GOODS.de.length]!;
    const bought = between(random, 3, 60) * 100 + 0.5;
    const left = Math.floor(bought * random());
    const perKg = between(random, 300, 4000) / 100;
    const came = day(random);
    const until = { y: 2027, m: between(random, 1, 12) };
    const [shop, lot] = [pick(random, SHOPS), `${code(random)}-${at}`];
    rows.push([
      name,
      shop,
      lot,
      german(bought, 1),
      german(left, 0),
      `${german(perKg, 2)} €`,
      `${two(came.d)}.${two(came.m)}.${came.y}`,
      `${two(until.m)}/${until.y}`,
    ]);
    stock.push({
      ids,
      supplier: shop,
      code: lot,
      boughtG: bought,
      leftG: left,
      price: (perKg * bought) / 1000,
      receivedOn: iso(came),
      bestBefore: lastOf(until.y, until.m),
    });
  }
  rows.push(['Summe', '', '', '99', '', '', '', '']);
  return { layout: 'kilos', rows, stock };
}

/** Headings of kinds, amounts with their units in the cell, several lots below one name. */
function headed(random: Random, count: number): MadeStock {
  const rows = [['Material', 'Amount left', 'Batch', 'Use by', 'From'], ['OILS & BUTTERS']];
  const stock: TrueStock[] = [];
  const lots = (name: string, ids: string[]) => {
    const times = between(random, 1, 3);
    for (let at = 0; at < times; at++) {
      const [text, grams] = pick(random, [
        ['500 g', 500],
        ['1.5 kg', 1500],
        ['2 x 250g', 500],
        ['~750 g', 750],
        ['12 oz', 12 * OUNCE],
      ] as const);
      const ends = { ...day(random), y: 2028 };
      const [shop, lot] = [pick(random, SHOPS), `${code(random)}-${at}`];
      const written = pick(random, [`${ends.d} ${MONTHS[ends.m - 1]} ${ends.y}`, iso(ends)]);
      rows.push([at === 0 ? name : '', text, lot, written, at === 0 ? shop : '']);
      stock.push({
        ids,
        supplier: at === 0 ? shop : stock.at(-1)!.supplier,
        code: lot,
        boughtG: grams,
        leftG: grams,
        price: null,
        receivedOn: null,
        bestBefore: iso(ends),
      });
    }
  };
  const half = Math.ceil(count / 2);
  for (let at = 0; at < half; at++) lots(...GOODS.en[at % 5]!);
  rows.push([], ['Essential oils:']);
  lots('Lavender', ['lavender-oil']);
  rows.push(['Clays']);
  lots('Kaolin', ['kaolin']);
  return { layout: 'headed', rows, stock };
}

/** What is on hand and nothing more. */
function onHand(random: Random, count: number): MadeStock {
  const rows = [['Ingredient', 'On hand (oz)', 'Supplier']];
  const stock = Array.from({ length: count }, (_, at): TrueStock => {
    const [name, ids] = GOODS.en[at % GOODS.en.length]!;
    const ounces = between(random, 1, 400) / 10;
    const shop = pick(random, SHOPS);
    rows.push([name, String(ounces), shop]);
    return {
      ids,
      supplier: shop,
      code: null,
      boughtG: ounces * OUNCE,
      leftG: ounces * OUNCE,
      price: null,
      receivedOn: null,
      bestBefore: null,
    };
  });
  return { layout: 'onHand', rows, stock };
}

/** A French list with the price before the amount, and decimals behind commas. */
function french(random: Random, count: number): MadeStock {
  const rows = [['Fournisseur', 'Matière première', 'N° de lot', 'Prix', 'Quantité', 'Date d’achat', 'DDM']];
  const stock = Array.from({ length: count }, (_, at): TrueStock => {
    const [name, ids] = GOODS.fr[at % GOODS.fr.length]!;
    const kg = between(random, 1, 99) / 10;
    const price = between(random, 100, 8000) / 100;
    const [came, ends] = [
      { ...day(random), d: 20 },
      { ...day(random), y: 2027, d: 21 },
    ];
    const [shop, lot] = [pick(random, SHOPS), `${code(random)}.${at}`];
    const written = ({ y, m, d }: Day) => `${two(d)}/${two(m)}/${y}`;
    rows.push([
      shop,
      name,
      lot,
      `${price.toFixed(2).replace('.', ',')} EUR`,
      `${String(kg).replace('.', ',')} kg`,
      written(came),
      written(ends),
    ]);
    return {
      ids,
      supplier: shop,
      code: lot,
      boughtG: kg * 1000,
      leftG: kg * 1000,
      price,
      receivedOn: iso(came),
      bestBefore: iso(ends),
    };
  });
  return { layout: 'french', rows, stock };
}

const LAYOUTS = [dollars, kilos, headed, onHand, french];

/** A list by seed, in one of the layouts. */
export function makeStockSheet(seed: number, count: number): MadeStock {
  const random = seeded(seed);
  random();
  return LAYOUTS[seed % LAYOUTS.length]!(random, count);
}
