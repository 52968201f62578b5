/** The made-up range: ten bars, each showing something. */
import type { Formula, Line, Stage } from '../core/formula/types';
import type { Unit } from '../core/quantities/units';
import type { Product } from '../core/records/product';
import { dayAfter } from '../core/quantities/day';

interface DemoProduct {
  product: Product;
  formula: Formula;
}

type ShortLine = [material: string, stage: Stage, value: number, unit: Unit, more?: Partial<Line>];

function lines(short: ShortLine[]): Line[] {
  return short.map(([material, stage, value, unit, more], index) => ({
    id: `l${index + 1}`,
    material,
    stage,
    amount: { value, unit },
    measuredBy: 'scale',
    ...more,
  }));
}

function formula(name: string, superfatPct: number, more: Partial<Formula>, short: ShortLine[]): Formula {
  return {
    format: 'proportia.formula/1',
    name,
    process: 'cold',
    fatsMassG: 1000,
    alkali: { superfatPct, purityPct: 99 },
    liquid: { basis: 'ofFats', value: 33 },
    cure: { residualWaterPct: 8 },
    marginPct: 10,
    scentNaming: 'parfum',
    bars: 14,
    ...more,
    lines: lines(short),
  };
}

function product(id: string, name: string, identity: string, note: string, more: Partial<Product>): Product {
  return {
    id,
    name,
    identity,
    note,
    markets: ['EU', 'UK'],
    netMassG: null,
    batchCode: '',
    firstPlacedOn: {},
    revision: 1,
    putAwayOn: null,
    ...more,
  };
}

const EVERYDAY_FATS: ShortLine[] = [
  ['olive', 'fats', 45, '%fats'],
  ['coconut', 'fats', 25, '%fats'],
  ['shea', 'fats', 15, '%fats'],
  ['rapeseed', 'fats', 10, '%fats'],
  ['castor', 'fats', 5, '%fats'],
];
const EVERYDAY: ShortLine[] = [...EVERYDAY_FATS, ['water', 'liquid', 100, '%liquid']];

/** Bars that are mostly about their scent. */
function scentedBars(since: (days: number) => Product['firstPlacedOn']): DemoProduct[] {
  return [
    {
      product: product(
        'first-light',
        'First Light',
        'Soap with fennel, orange and oat',
        'The everyday bar.',
        {
          netMassG: 88,
          batchCode: 'FL-2611',
          firstPlacedOn: since(800),
        },
      ),
      formula: formula('First Light', 6, {}, [
        ...EVERYDAY,
        ['oat-flour', 'intoFats', 2, '%fats'],
        ['sweet-orange-oil', 'trace', 1.6, '%fats'],
        ['fennel-oil', 'trace', 0.6, '%fats'],
      ]),
    },
    {
      product: product(
        'night-mail',
        'Night Mail',
        'Soap with grey clay',
        'Dark, smoky, browns on the rack.',
        {
          netMassG: 86,
          batchCode: 'NM-2611',
          firstPlacedOn: since(45),
        },
      ),
      formula: formula('Night Mail', 5, { cure: { massRatio: 0.81 } }, [
        ...EVERYDAY,
        ['grey-clay', 'intoFats', 2, '%fats'],
        ['coal-and-violets', 'trace', 5.5, '%fats'],
      ]),
    },
    {
      product: product(
        'lamp-room',
        'Lamp Room',
        'Soap with clove and petitgrain',
        'Clove, cinnamon leaf, petitgrain.',
        {
          netMassG: 88,
          batchCode: 'LR-2611',
          firstPlacedOn: since(400),
        },
      ),
      formula: formula('Lamp Room', 6, {}, [
        ...EVERYDAY,
        ['clove-bud-oil', 'trace', 0.8, '%fats'],
        ['cinnamon-leaf-oil', 'trace', 0.6, '%fats'],
        ['petitgrain-oil', 'trace', 1.4, '%fats'],
      ]),
    },
    {
      product: product('branch-line', 'Branch Line', 'Soap', 'A new scent, its certificate not here yet.', {
        netMassG: 88,
        batchCode: 'BL-2611',
      }),
      formula: formula('Branch Line', 6, {}, [
        ...EVERYDAY,
        ['kaolin', 'intoFats', 1.5, '%fats'],
        ['wet-slate', 'trace', 4, '%fats'],
      ]),
    },
    {
      product: product(
        'ticket-office',
        'Ticket Office',
        'Soap with pink clay',
        'Verbena, palmarosa, pink clay.',
        {
          netMassG: 88,
          batchCode: 'TO-2611',
          firstPlacedOn: since(60),
        },
      ),
      formula: formula('Ticket Office', 6, {}, [
        ...EVERYDAY,
        ['pink-clay', 'intoFats', 2, '%fats'],
        ['verbena-lane', 'trace', 2, '%fats'],
        ['palmarosa-oil', 'trace', 0.9, '%fats'],
        ['litsea-cubeba-oil', 'trace', 0.4, '%fats'],
      ]),
    },
  ];
}

/** Bars that are mostly about what they hold. */
function texturedBars(since: (days: number) => Product['firstPlacedOn']): DemoProduct[] {
  return [
    {
      product: product(
        'level-crossing',
        'Level Crossing',
        'Salt soap with peppermint',
        'White and salted halves; cut within hours.',
        {
          netMassG: 92,
          batchCode: 'LC-2611',
          firstPlacedOn: since(300),
        },
      ),
      formula: formula(
        'Level Crossing',
        18,
        {
          bars: 16,
          portions: [
            { id: 'white', share: 0.55 },
            { id: 'salted', share: 0.45 },
          ],
        },
        [
          ['coconut', 'fats', 80, '%fats'],
          ['olive', 'fats', 15, '%fats'],
          ['castor', 'fats', 5, '%fats'],
          ['water', 'liquid', 100, '%liquid'],
          ['peppermint-oil', 'trace', 1.5, '%fats'],
          ['sea-salt-fine', 'trace', 32, '%fats', { portion: 'salted' }],
        ],
      ),
    },
    {
      product: product(
        'waiting-room',
        'Waiting Room',
        'Unscented soap',
        'The shortest list; petals on top.',
        {
          netMassG: 86,
          batchCode: 'WR-2611',
          firstPlacedOn: since(620),
        },
      ),
      formula: formula('Waiting Room', 7, {}, [
        ['olive', 'fats', 50, '%fats'],
        ['rice-bran', 'fats', 20, '%fats'],
        ['coconut', 'fats', 25, '%fats'],
        ['castor', 'fats', 5, '%fats'],
        ['water', 'liquid', 100, '%liquid'],
        ['calendula-petals', 'top', 6, 'g'],
      ]),
    },
    {
      product: product(
        'goods-yard',
        'Goods Yard',
        'Scrub soap with pumice',
        'Kitchen hands. Spoons and by eye; not for the face.',
        {
          netMassG: 90,
          batchCode: 'GY-2611',
          firstPlacedOn: since(210),
        },
      ),
      formula: formula('Goods Yard', 5, { usedOn: 'hands' }, [
        ...EVERYDAY,
        ['pumice-fine', 'trace', 1.5, 'tbspPerLbFats', { measuredBy: 'heaped' }],
        ['poppy-seed', 'trace', 2, 'tbsp', { measuredBy: 'eye' }],
        ['sidings', 'trace', 2, '%fats'],
      ]),
    },
    {
      product: product(
        'signal-red',
        'Signal Red',
        'Soap with madder and red clay',
        'Colours that not every market lets in; it stains.',
        {
          netMassG: 88,
          batchCode: 'SR-2611',
          markets: ['EU', 'UK', 'US'],
          firstPlacedOn: since(150),
        },
      ),
      formula: formula('Signal Red', 6, {}, [
        ...EVERYDAY,
        ['madder-root', 'intoFats', 1, '%fats'],
        ['red-clay', 'intoFats', 1.5, '%fats'],
        ['mica-red', 'trace', 0.4, '%fats'],
      ]),
    },
    {
      product: product(
        'snow-plough',
        'Snow Plough',
        'Soap with ewe’s milk and rye',
        'Milk and syrup: hot and quick. Not vegan.',
        {
          netMassG: 88,
          batchCode: 'SP-2611',
          firstPlacedOn: since(90),
        },
      ),
      formula: formula('Snow Plough', 6, { usedOn: 'face' }, [
        ...EVERYDAY_FATS,
        ['rice-bran-wax', 'fats', 15, 'g'],
        ['ewe-milk', 'liquid', 60, '%liquid'],
        ['water', 'liquid', 40, '%liquid'],
        ['birch-syrup', 'trace', 2, '%fats'],
        ['rye-bran', 'trace', 1.5, '%fats'],
      ]),
    },
  ];
}

/** The range, in the makers' order. */
export function demoProducts(today: string): DemoProduct[] {
  const ago = (days: number) => dayAfter(today, -days);
  const since = (days: number) => ({ EU: ago(days), UK: ago(days) });
  return [...scentedBars(since), ...texturedBars(since)];
}
