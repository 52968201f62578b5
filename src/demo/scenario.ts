/**
 * The made-up demo: Signalbox Soap at Tollen Halt, its range, its suppliers and their paper. Days are counted
 * back from the day the demo starts.
 */
import type { Formula, Line, Stage } from '../core/formula/types';
import type { Unit } from '../core/quantities/units';
import type { MaterialDocument } from '../server/repositories/materials';
import type { Product } from '../server/repositories/products';
import type { Material } from '../core/formula/types';

export interface DemoMaterial {
  material: Material;
  supplier: string;
  documents: MaterialDocument[];
}

export interface DemoProduct {
  product: Product;
  formula: Formula;
}

/** The day that lies some days before another, YYYY-MM-DD. */
export function daysBefore(day: string, days: number): string {
  const date = new Date(`${day}T00:00:00Z`);
  date.setUTCDate(date.getUTCDate() - days);
  return date.toISOString().slice(0, 10);
}

export const DEMO_MAKER = {
  name: 'Signalbox Soap',
  addressLines: ['Oona & Marit Velde', 'The Old Signal Box', 'Tollen Halt'],
};

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
    ...more,
    lines: lines(short),
  };
}

function certificate(
  materialId: string,
  number: string,
  issuer: string,
  issuedOn: string,
  maxPct: number,
  more: Partial<MaterialDocument> = {},
): MaterialDocument {
  return {
    id: `cert-${number.toLowerCase()}`,
    materialId,
    type: 'certificate',
    number,
    edition: '51st',
    issuedOn,
    issuer,
    category: '9',
    maxPct,
    ...more,
  };
}

function fragrance(id: string, name: string, constituents: Material['constituents']): Material {
  return {
    id,
    name,
    kind: 'fragrance',
    density: 0.98,
    bulkDensity: 0.98,
    inci: [{ name, sharePct: 100, role: 'scent' }],
    constituents,
  };
}

function share(id: string, pct: number) {
  return { id, lowPct: pct * 0.9, typicalPct: pct, highPct: pct * 1.1 };
}

const BRACKWATER = 'Brackwater Aromatics';
const NINEFOLD = 'Ninefold Botanicals';

/** Materials that are not in the starter library, or that the makers hold paper for. */
export function demoMaterials(today: string, library: (id: string) => Material | undefined): DemoMaterial[] {
  const known = (id: string, supplier: string, documents: MaterialDocument[]): DemoMaterial => {
    const material = library(id);
    if (!material) throw new Error(`The demo names ${id}, which the library does not hold.`);
    return { material, supplier, documents };
  };
  const ago = (days: number) => daysBefore(today, days);
  return [
    {
      material: fragrance('coal-and-violets', 'Coal & Violets', [
        share('alpha-isomethyl-ionone', 6),
        share('linalool', 3.2),
        share('vanillin', 1.4),
        share('coumarin', 0.6),
        share('hexyl-cinnamal', 0.15),
      ]),
      supplier: BRACKWATER,
      documents: [
        certificate('coal-and-violets', 'BA-1407', BRACKWATER, ago(214), 4.5, {
          vanillinPct: 1.4,
          flashPointC: 92,
        }),
      ],
    },
    known('sweet-orange-oil', NINEFOLD, [certificate('sweet-orange-oil', 'NB-220', NINEFOLD, ago(640), 8)]),
    known('fennel-oil', NINEFOLD, [certificate('fennel-oil', 'NB-231', NINEFOLD, ago(301), 3)]),
    known('clove-bud-oil', NINEFOLD, [
      certificate('clove-bud-oil', 'NB-198', NINEFOLD, ago(260), 0.9, {
        limits: [{ constituent: 'eugenol', maxPct: 0.75 }],
      }),
    ]),
    known('cinnamon-leaf-oil', NINEFOLD, [
      certificate('cinnamon-leaf-oil', 'NB-203', NINEFOLD, ago(260), 0.8),
    ]),
    known('petitgrain-oil', NINEFOLD, [certificate('petitgrain-oil', 'NB-240', NINEFOLD, ago(122), 5.5)]),
  ];
}

function product(id: string, name: string, identity: string, note: string, more: Partial<Product>): Product {
  return {
    id,
    name,
    identity,
    note,
    markets: ['EU', 'UK'],
    bars: 14,
    netMassG: null,
    batchCode: '',
    firstPlacedOn: {},
    ...more,
  };
}

/** The range, in the makers' order. */
export function demoProducts(today: string): DemoProduct[] {
  const ago = (days: number) => daysBefore(today, days);
  const since = (days: number) => ({ EU: ago(days), UK: ago(days) });
  const everyday: ShortLine[] = [
    ['olive', 'fats', 45, '%fats'],
    ['coconut', 'fats', 25, '%fats'],
    ['shea', 'fats', 15, '%fats'],
    ['rapeseed', 'fats', 10, '%fats'],
    ['castor', 'fats', 5, '%fats'],
    ['water', 'liquid', 100, '%liquid'],
  ];
  return [
    {
      product: product(
        'first-light',
        'First Light',
        'Soap with fennel, orange and oat',
        'The everyday bar.',
        {
          netMassG: 92,
          batchCode: 'FL-2611',
          firstPlacedOn: since(800),
        },
      ),
      formula: formula('First Light', 6, {}, [
        ...everyday,
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
          netMassG: 90,
          batchCode: 'NM-2611',
          firstPlacedOn: since(45),
        },
      ),
      formula: formula('Night Mail', 5, { cure: { massRatio: 0.81 } }, [
        ...everyday,
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
          netMassG: 92,
          batchCode: 'LR-2611',
          firstPlacedOn: since(400),
        },
      ),
      formula: formula('Lamp Room', 6, {}, [
        ...everyday,
        ['clove-bud-oil', 'trace', 0.8, '%fats'],
        ['cinnamon-leaf-oil', 'trace', 0.6, '%fats'],
        ['petitgrain-oil', 'trace', 1.4, '%fats'],
      ]),
    },
  ];
}
