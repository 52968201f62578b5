/**
 * Fats and waxes. Saponification values in mg KOH/g as handbooks and vegetable-oil standards print them; the
 * sodium hydroxide figure is reckoned from the typical one. Fatty-acid shares are usual values in percent.
 * Soap names follow the usual pattern and are to be confirmed before print.
 */
import rows from './data/fats.json';
import type { FattyAcids, Market } from '../core/formula/types';
import type { Food, Origin } from '../core/formula/traits';
import type { LibraryMaterial } from './types';

/** Molar masses, g/mol: sodium hydroxide over potassium hydroxide. */
const NAOH_PER_KOH = 39.997 / 56.106;
const MILLIGRAMS = 1000;

const SOURCE = 'Usual range in oil handbooks and named vegetable-oil standards; confirm with the lot’s paper';
const AS_OF = '2026-11-01';

interface Row {
  id: string;
  name: string;
  inci: string;
  soap: string;
  /** mg KOH/g: low, typical, high. */
  sv: number[];
  gPerMl: number;
  acids: FattyAcids;
  origin?: Origin;
  foods?: Food[];
  names?: Partial<Record<Market, string>>;
  cautions?: string[];
  alsoNamed?: string[];
  /** Pore-clogging rating, informal. */
  pore?: number;
  months: number;
  kind?: 'fat' | 'wax';
  as?: 'triglyceride' | 'freeAcid' | 'wax';
}

function toMaterial(row: Row): LibraryMaterial {
  const [lowMgKoh, typicalMgKoh, highMgKoh] = row.sv as [number, number, number];
  return {
    id: row.id,
    name: row.name,
    kind: row.kind ?? 'fat',
    shelf: 'fats',
    origin: row.origin ?? 'plant',
    provenance: { standing: 'typical', source: SOURCE, asOf: AS_OF },
    saponification: {
      naohPerGram: Number(((typicalMgKoh / MILLIGRAMS) * NAOH_PER_KOH).toFixed(4)),
      as: row.as ?? 'triglyceride',
      formedInci: row.soap,
    },
    saponificationValue: { lowMgKoh, typicalMgKoh, highMgKoh },
    fattyAcids: row.acids,
    waterPct: 0,
    bulkDensity: row.gPerMl,
    density: row.gPerMl,
    inci: [{ name: row.inci, sharePct: 100, role: 'ingredient', ...(row.names ? { names: row.names } : {}) }],
    foods: row.foods ?? [],
    poreClogging: row.pore,
    keepingMonths: row.months,
    cautions: row.cautions,
    alsoNamed: row.alsoNamed,
  };
}

/** Fats and waxes of the starter library. */
export const FATS: readonly LibraryMaterial[] = (rows as Row[]).map(toMaterial);
