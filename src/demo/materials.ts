/**
 * The made-up demo: Signalbox Soap at Tollen Halt, its makers, their materials, suppliers and paper. Days are counted
 * back from the day the demo starts.
 */
import type { MaterialDocument } from '../core/records/papers';
import { dayAfter } from '../core/quantities/day';
import type { Material } from '../core/formula/types';

export interface DemoMaterial {
  material: Material;
  supplier: string;
  documents: MaterialDocument[];
}

export const DEMO_MAKER = {
  name: 'Signalbox Soap',
  addressLines: ['Oona & Marit Velde', 'The Old Signal Box', 'Tollen Halt'],
};

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
  const ago = (days: number) => dayAfter(today, -days);
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
    {
      material: fragrance('wet-slate', 'Wet Slate', [
        share('linalool', 1.1),
        share('limonene', 2.5),
        share('citronellol', 0.8),
      ]),
      supplier: BRACKWATER,
      documents: [],
    },
    {
      material: fragrance('verbena-lane', 'Verbena Lane', [
        share('citral', 7),
        share('limonene', 12),
        share('geraniol', 1.5),
        share('linalool', 2),
        share('hexyl-cinnamal', 0.8),
      ]),
      supplier: BRACKWATER,
      documents: [
        certificate('verbena-lane', 'BA-1391', BRACKWATER, ago(96), 3.2, { vanillinPct: 0, flashPointC: 71 }),
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
    known('peppermint-oil', NINEFOLD, [certificate('peppermint-oil', 'NB-207', NINEFOLD, ago(233), 3.4)]),
    known('scots-pine-oil', NINEFOLD, [certificate('scots-pine-oil', 'NB-215', NINEFOLD, ago(410), 2.6)]),
    known('palmarosa-oil', NINEFOLD, [
      certificate('palmarosa-oil', 'NB-226', NINEFOLD, ago(188), 2.4, {
        limits: [{ constituent: 'geraniol', maxPct: 2 }],
      }),
    ]),
    known('litsea-cubeba-oil', NINEFOLD, [
      certificate('litsea-cubeba-oil', 'NB-228', NINEFOLD, ago(188), 1.1, {
        limits: [{ constituent: 'citral', maxPct: 0.7 }],
      }),
    ]),
    ...['kaolin', 'grey-clay', 'pink-clay', 'red-clay'].map((id) => known(id, 'Olde Kilnhouse Clays', [])),
    ...['olive', 'coconut', 'shea', 'rapeseed', 'castor', 'rice-bran', 'rice-bran-wax'].map((id) =>
      known(id, 'Hesper & Dunn Oils', []),
    ),
    ...['madder-root', 'calendula-petals', 'poppy-seed', 'rye-bran', 'oat-flour', 'birch-syrup'].map((id) =>
      known(id, NINEFOLD, []),
    ),
    ...['pumice-fine', 'sea-salt-fine', 'mica-red', 'ewe-milk', 'water', 'sodium-hydroxide'].map((id) =>
      known(id, 'Tollen Halt stores', []),
    ),
    ...[
      'goat-milk-powder',
      'honey',
      'citric-acid',
      'sodium-lactate-60',
      'beeswax',
      'activated-charcoal',
      'table-salt',
    ].map((id) => known(id, 'Tollen Halt stores', [])),
  ];
}
