/** The made-up makers' lots, moulds and mixes. */
import type { Mix } from '../core/formula/mix';
import type { Lot } from '../core/making/cost';
import type { Mould } from '../core/making/size';
import { dayAfter } from '../core/quantities/day';

/** Moulds at the signal box. */
export const DEMO_MOULDS: readonly Mould[] = [
  {
    id: 'long-block',
    name: 'Long block',
    volumeMl: 1350,
    cavities: 14,
    make: { wall: 'wood', form: 'block', widthMm: 75, lengthMm: 250 },
  },
  { id: 'slab', name: 'Slab', volumeMl: 2900, cavities: 30 },
  { id: 'single', name: 'Single bars, sheet of 8', volumeMl: 760, cavities: 8, isSingle: true },
  { id: 'sample', name: 'Samples, sheet of 12', volumeMl: 300, cavities: 12, isSingle: true },
];

/** Mixes the makers keep: a scent blend, an oil with petals steeped in it, and brine. */
export const DEMO_MIXES: readonly Mix[] = [
  {
    id: 'sidings',
    name: 'Sidings blend',
    parts: [
      { material: 'scots-pine-oil', parts: 4 },
      { material: 'petitgrain-oil', parts: 1 },
    ],
  },
  {
    id: 'evening-departure',
    name: 'Evening departure',
    parts: [
      { material: 'clove-bud-oil', parts: 6 },
      { material: 'sweet-orange-oil', parts: 9 },
      { material: 'palmarosa-oil', parts: 5 },
    ],
  },
  {
    id: 'marigold-oil',
    name: 'Olive oil, marigold steeped',
    parts: [
      { material: 'olive', parts: 98 },
      { material: 'calendula-petals', parts: 2 },
    ],
  },
  {
    id: 'brine',
    name: 'Brine, one in five',
    parts: [
      { material: 'water', parts: 4 },
      { material: 'sea-salt-fine', parts: 1 },
    ],
  },
];

/** Material, supplier, grams bought, price in euros, share left, days since delivery, months it keeps. */
type ShortLot = [string, string, number, number, number, number, number];

const LOTS: readonly ShortLot[] = [
  ['olive', 'Hesper & Dunn Oils', 20000, 164, 0.35, 62, 18],
  ['olive', 'Hesper & Dunn Oils', 20000, 171, 1, 9, 18],
  ['coconut', 'Hesper & Dunn Oils', 10000, 58, 0.42, 62, 24],
  ['shea', 'Hesper & Dunn Oils', 5000, 49, 0.3, 88, 24],
  ['rapeseed', 'Hesper & Dunn Oils', 5000, 19, 0.55, 88, 12],
  ['castor', 'Hesper & Dunn Oils', 2500, 21, 0.48, 120, 18],
  ['rice-bran', 'Hesper & Dunn Oils', 5000, 38, 0.7, 41, 12],
  ['rice-bran-wax', 'Hesper & Dunn Oils', 500, 17, 0.8, 140, 48],
  ['sodium-hydroxide', 'Tollen Halt stores', 10000, 39, 0.52, 75, 36],
  ['water', 'Tollen Halt stores', 25000, 9, 0.4, 12, 12],
  ['sea-salt-fine', 'Tollen Halt stores', 5000, 8, 0.6, 100, 60],
  ['pumice-fine', 'Tollen Halt stores', 1000, 9, 0.5, 160, 60],
  ['ewe-milk', 'Tollen Halt stores', 2000, 11, 0.25, 20, 3],
  ['kaolin', 'Olde Kilnhouse Clays', 1000, 7, 0.66, 130, 60],
  ['grey-clay', 'Olde Kilnhouse Clays', 1000, 8, 0.45, 130, 60],
  ['pink-clay', 'Olde Kilnhouse Clays', 1000, 9, 0.5, 130, 60],
  ['red-clay', 'Olde Kilnhouse Clays', 1000, 9, 0.7, 130, 60],
  ['coal-and-violets', 'Brackwater Aromatics', 1000, 64, 0.38, 70, 24],
  ['wet-slate', 'Brackwater Aromatics', 500, 35, 0.9, 15, 24],
  ['verbena-lane', 'Brackwater Aromatics', 500, 41, 0.52, 96, 24],
  ['sweet-orange-oil', 'Ninefold Botanicals', 500, 18, 0.3, 520, 24],
  ['fennel-oil', 'Ninefold Botanicals', 250, 22, 0.55, 301, 24],
  ['clove-bud-oil', 'Ninefold Botanicals', 250, 21, 0.6, 260, 36],
  ['cinnamon-leaf-oil', 'Ninefold Botanicals', 100, 12, 0.58, 260, 36],
  ['petitgrain-oil', 'Ninefold Botanicals', 250, 24, 0.4, 122, 24],
  ['peppermint-oil', 'Ninefold Botanicals', 250, 17, 0.5, 233, 36],
  ['scots-pine-oil', 'Ninefold Botanicals', 250, 19, 0.35, 380, 24],
  ['palmarosa-oil', 'Ninefold Botanicals', 250, 26, 0.62, 188, 24],
  ['litsea-cubeba-oil', 'Ninefold Botanicals', 250, 16, 0.7, 188, 24],
  ['oat-flour', 'Ninefold Botanicals', 1000, 5, 0.5, 48, 9],
  ['madder-root', 'Ninefold Botanicals', 250, 14, 0.8, 150, 36],
  ['calendula-petals', 'Ninefold Botanicals', 200, 13, 0.5, 150, 18],
  ['birch-syrup', 'Ninefold Botanicals', 500, 21, 0.6, 90, 18],
  ['rye-bran', 'Ninefold Botanicals', 1000, 4, 0.8, 90, 12],
];

const DAYS_PER_MONTH = 30;
const OPENED_AFTER_DAYS = 7;

/** The lots on the shelves as of a day. */
export function demoLots(today: string): Lot[] {
  return LOTS.map(([material, supplier, quantityG, price, left, days, months], index) => ({
    id: `lot-${material}-${index + 1}`,
    material,
    supplier,
    code: `${material.slice(0, 2).toUpperCase()}${String(2600 + index)}`,
    receivedOn: dayAfter(today, -days),
    openedOn: left < 1 ? dayAfter(today, -Math.max(0, days - OPENED_AFTER_DAYS)) : null,
    bestBefore: dayAfter(today, months * DAYS_PER_MONTH - days),
    quantityG,
    leftG: Math.round(quantityG * left),
    price,
    quarantine: null,
    revision: 1,
  }));
}
