/**
 * The lye reckoned a second time, line by line with nothing but products and sums, as a maker does it on paper: it shares no
 * line of arithmetic with the balance that the weighed lye comes from.
 */
import { isFatty } from '../formula/fats';
import type { Formula, Material } from '../formula/types';

export interface LyeRow {
  line: string;
  name: string;
  /** What takes up lye in it: a fat, an acid, the fat of a milk; a fat added after the cook takes up none of it. */
  what: 'fat' | 'acid' | 'milkFat' | 'afterCook';
  massG: number;
  /** Grams of sodium hydroxide for a gram of the line. */
  naohPerGram: number;
  naohG: number;
}

export interface LyeTable {
  rows: LyeRow[];
  /** What the fats in the pot take up in all, grams of pure sodium hydroxide. */
  fatsG: number;
  /** Left off for the superfat that is set, grams; null where the lye itself is set. */
  leftOffG: number | null;
  /** What the acids take up besides. */
  acidsG: number;
  /** Pure, and as it is weighed at the purity on the drum. */
  pureG: number;
  weighedG: number;
  purityPct: number;
  /** Of what fats, milk fats and fats after the cook could take up, the share that finds no lye, percent. */
  reachedPct: number | null;
  /** Why what is reached is not what is set, in words; empty where it is. */
  why: string[];
}

const HUNDRED = 100;
/** Nearer than this the superfat reached is the one set, percent. */
const SAME_PCT = 0.05;

function rowOf(line: Formula['lines'][number], material: Material, massG: number): LyeRow | null {
  const isFat = isFatty(material);
  const milkFat = ((material.fatPct ?? 0) / HUNDRED) * (material.fatSaponification?.naohPerGram ?? 0);
  const naohPerGram = isFat ? (material.saponification?.naohPerGram ?? 0) : material.alkaliUptake || milkFat;
  if (!(naohPerGram > 0)) return null;
  const what = isFat
    ? line.stage === 'afterCook'
      ? 'afterCook'
      : 'fat'
    : material.alkaliUptake
      ? 'acid'
      : 'milkFat';
  return { line: line.id, name: material.name, what, massG, naohPerGram, naohG: massG * naohPerGram };
}

/**
 * The table of a formula's lye. `massOf` answers the grams of a line by its id; lines whose material is not given are left out.
 *
 * @example
 * lyeTable(formula, materialOf, massOf).weighedG; // 139.9
 */
export function lyeTable(
  { lines, alkali }: Formula,
  materialOf: (id: string) => Material | undefined,
  massOf: (line: string) => number,
): LyeTable {
  const rows = lines.flatMap((line): LyeRow[] => {
    const material = materialOf(line.material);
    const row = material && rowOf(line, material, massOf(line.id));
    return row ? [row] : [];
  });
  const sum = (what: LyeRow['what']) =>
    rows.filter((row) => row.what === what).reduce((total, { naohG }) => total + naohG, 0);
  const [fatsG, acidsG, milkG, laterG] = [sum('fat'), sum('acid'), sum('milkFat'), sum('afterCook')];
  const purityPct = alkali.purityPct ?? HUNDRED;
  const setPct = alkali.massG != null ? null : (alkali.superfatPct ?? 0);
  const leftOffG = setPct === null ? null : (fatsG * setPct) / HUNDRED;
  const pureG = leftOffG === null ? ((alkali.massG ?? 0) * purityPct) / HUNDRED : fatsG - leftOffG + acidsG;
  const couldG = fatsG + milkG + laterG;
  const reachedPct = couldG > 0 ? HUNDRED * (1 - Math.max(0, pureG - acidsG) / couldG) : null;
  const differs = setPct !== null && reachedPct !== null && Math.abs(reachedPct - setPct) > SAME_PCT;
  const why = [
    ...(milkG > 0 ? ['the fat of the milk finds no lye of its own'] : []),
    ...(laterG > 0 ? ['fats after the cook find none left'] : []),
  ];
  return {
    rows,
    fatsG,
    leftOffG,
    acidsG,
    pureG,
    weighedG: (pureG * HUNDRED) / purityPct,
    purityPct,
    reachedPct,
    why: differs ? why : [],
  };
}
