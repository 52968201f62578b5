/** Reads the shelves other than fats: one row a material, written short in `data/`. */
import type { Constituent, InciPart, InciRole, Kind, Market, Saponification } from '../core/formula/types';
import type { Behaviour, Food, Origin } from '../core/formula/traits';
import type { Provenance, Standing } from '../core/records/cupboard';
import type { LibraryMaterial, Shelf } from './types';
import { isScent } from '../core/formula/scents';

/** Sources that many rows share, by the short key their rows use. */
const SOURCES: Record<string, string> = {
  handbook: 'Usual value in handbooks; confirm with the lot’s paper',
  oils: 'Usual range in essential-oil monographs and handbooks; confirm with the lot’s analysis',
  makers: 'Usual among makers; try it in a small batch',
  index: 'Composition as its name or colour index number states it; shares to be confirmed by the supplier',
};

/** One material as the data files write it. Percents from 0 to 100, densities in g/mL. */
export interface ShelfRow {
  id: string;
  name: string;
  kind: Kind;
  /** One name for the whole, or parts: name, share, role, other name in the US or by market. */
  inci: string | [string, number, InciRole?, (string | Partial<Record<Market, string>>)?][];
  water?: number;
  bulk?: number;
  density?: number;
  fat?: number;
  fatNaoh?: number;
  fatSoap?: string;
  uptake?: number;
  formed?: string;
  origin?: Origin;
  /** Constituents: id, low, typical, high. */
  holds?: [string, number, number, number][];
  behaviour?: Behaviour;
  cautions?: string[];
  concerns?: LibraryMaterial['concerns'];
  /** Foods it comes from, for claims of being free of them. */
  foods?: Food[];
  /** Names that single markets ask for in place of the ingredient name. */
  names?: Partial<Record<Market, string>>;
  months?: number;
  /** What suppliers and makers call it besides. */
  alsoNamed?: string[];
  standing?: Standing;
  source?: string;
}

export interface ShelfFile {
  shelf: Shelf;
  asOf: string;
  standing: Standing;
  source: string;
  rows: ShelfRow[];
}

function inciParts(row: ShelfRow): InciPart[] {
  if (typeof row.inci === 'string') {
    const role: InciRole = isScent(row) ? 'scent' : 'ingredient';
    return [{ name: row.inci, sharePct: 100, role, ...(row.names ? { names: row.names } : {}) }];
  }
  return row.inci.map(([name, sharePct, role, elsewhere]) => ({
    name,
    sharePct,
    role: role ?? 'ingredient',
    ...(elsewhere ? { names: typeof elsewhere === 'string' ? { US: elsewhere } : elsewhere } : {}),
  }));
}

/** Sugars vary by about a tenth either way between harvests and brands. */
const SUGAR_DOUBT = 0.1;

function constituents(row: ShelfRow): Constituent[] {
  const held = (row.holds ?? []).map(([id, lowPct, typicalPct, highPct]) => ({
    id,
    lowPct,
    typicalPct,
    highPct,
  }));
  const sugarPct = row.behaviour?.sugarPct;
  if (sugarPct === undefined) return held;
  const highPct = Math.min(100, sugarPct * (1 + SUGAR_DOUBT));
  return [...held, { id: 'sugars', lowPct: sugarPct * (1 - SUGAR_DOUBT), typicalPct: sugarPct, highPct }];
}

function fatSaponification(row: ShelfRow): Saponification | null {
  if (row.fatNaoh === undefined) return null;
  return { naohPerGram: row.fatNaoh, as: 'triglyceride', formedInci: row.fatSoap };
}

function provenance(row: ShelfRow, file: ShelfFile): Provenance {
  const key = row.source ?? file.source;
  return { standing: row.standing ?? file.standing, source: SOURCES[key] ?? key, asOf: file.asOf };
}

/** The materials of one data file. */
export function readShelf(file: ShelfFile): LibraryMaterial[] {
  return file.rows.map((row) => ({
    id: row.id,
    name: row.name,
    kind: row.kind,
    shelf: file.shelf,
    origin: row.origin ?? 'plant',
    provenance: provenance(row, file),
    waterPct: row.water ?? 0,
    fatPct: row.fat ?? 0,
    fatSaponification: fatSaponification(row),
    alkaliUptake: row.uptake ?? 0,
    formedInci: row.formed ?? null,
    bulkDensity: row.bulk ?? row.density ?? null,
    density: row.density ?? row.bulk ?? null,
    inci: inciParts(row),
    constituents: constituents(row),
    behaviour: row.behaviour,
    cautions: row.cautions,
    concerns: row.concerns,
    keepingMonths: row.months,
    foods: row.foods ?? [],
    alsoNamed: row.alsoNamed,
  }));
}
