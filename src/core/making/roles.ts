/** What becomes of a line on the day: where it goes in, by its stage, and by its kind where the craft demands it. */
import { isFatty } from '../formula/fats';
import type { TraitMaterial } from '../formula/traits';
import type { Line } from '../formula/types';
import { isAlwaysCommon } from '../loads/plan';
import { isScent } from '../formula/scents';

/**
 * `liquid` and `dissolved` go in before the alkali, `fibre` with them, to come apart in the hot lye, `lactate` into the cooled lye, `powder` is wetted first, `held`
 * is liquid kept back for that, `scent` waits for the emulsion and `salt` for everything else.
 */
export type Role =
  | 'liquid'
  | 'dissolved'
  | 'fibre'
  | 'lactate'
  | 'alkali'
  | 'hardFat'
  | 'softFat'
  | 'intoFats'
  | 'held'
  | 'trace'
  | 'scent'
  | 'salt'
  | 'afterCook'
  | 'top';

/** One line with its material and mass at the size of the day. */
export interface Load {
  line: Line;
  material: TraitMaterial;
  massG: number;
  /** Null for the common batter. */
  portion: string | null;
  role: Role;
  /** Whether it is rubbed smooth in some liquid or oil before it goes in. */
  isPowder: boolean;
}

/** Saturated acids above which a fat is solid at room temperature, percent. */
const SOLID_SATURATED_PCT = 45;
/** Where no acids are on file: fats that take up more hydroxide than this are lauric, and solid. Grams for a gram. */
const SOLID_NAOH_PER_GRAM = 0.16;

/** Whether a fat or wax is solid in a room, by its acids, else by how much hydroxide it takes up. */
export function isSolid({ kind, fattyAcids, saponification }: TraitMaterial): boolean {
  if (kind === 'wax') return true;
  if (!fattyAcids) return (saponification?.naohPerGram ?? 0) > SOLID_NAOH_PER_GRAM;
  const { caprylicCapric = 0, lauric = 0, myristic = 0, palmitic = 0, stearic = 0 } = fattyAcids;
  return caprylicCapric + lauric + myristic + palmitic + stearic >= SOLID_SATURATED_PCT;
}

/** Acids of which lauric fats hold more than half, percent; the rest of them belongs to such a fat as well. */
const LAURIC_FROM_PCT = 50;

/** Whether a fat is lauric: coconut, palm kernel, babassu. */
export function isLauric({ fattyAcids, saponification }: TraitMaterial): boolean {
  if (!fattyAcids) return (saponification?.naohPerGram ?? 0) > SOLID_NAOH_PER_GRAM;
  const { lauric = 0, myristic = 0, caprylicCapric = 0 } = fattyAcids;
  return lauric + myristic + caprylicCapric >= LAURIC_FROM_PCT;
}

/** Sugars in a material, 0 to 1. */
export const sugarShare = ({ behaviour, constituents }: TraitMaterial): number =>
  ((behaviour?.sugarPct ?? 0) || (constituents?.find(({ id }) => id === 'sugars')?.typicalPct ?? 0)) / 100;

/** Proteins that are broken down already, and dissolve in water. */
const isHydrolysed = ({ id, name, inci }: TraitMaterial): boolean =>
  /hydrolys|hydrolyz|protein/i.test([id, name, ...(inci ?? []).map((part) => part.name)].join(' '));

const isInLye = (stage: Line['stage']) => stage === 'liquid' || stage === 'lye';

/** What of a formula's line goes where. */
export function roleOf({ stage }: Line, material: TraitMaterial): Role {
  const { kind } = material;
  if (stage === 'top') return 'top';
  if (stage === 'afterCook') return kind === 'salt' ? 'salt' : 'afterCook';
  if (isFatty(material)) {
    if (stage === 'trace') return 'trace';
    return isSolid(material) ? 'hardFat' : 'softFat';
  }
  if (kind === 'alkali') return 'alkali';
  if (kind === 'acid' || (material.alkaliUptake ?? 0) > 0) return 'dissolved';
  if (isScent(material)) return 'scent';
  if (kind === 'salt') return isInLye(stage) ? 'dissolved' : 'salt';
  if (kind === 'lactate' && stage !== 'trace') return 'lactate';
  // Silk and wool lie in the liquid and come apart in hot lye alone. What is hydrolysed dissolves before.
  if (kind === 'fibre' && isInLye(stage) && !isHydrolysed(material)) return 'fibre';
  if (isInLye(stage)) return kind === 'liquid' || kind === 'milk' ? 'liquid' : 'dissolved';
  if (stage === 'heldBack') return isPowder(material) ? 'trace' : 'held';
  return stage === 'trace' ? 'trace' : 'intoFats';
}

/** Clays, colours and whatever has to be wetted before it goes in; not what is wet already. */
function isPowder({ kind, behaviour }: TraitMaterial): boolean {
  const wetting = behaviour?.wettingTimes;
  return wetting ? wetting[1] > 0 : kind === 'clay' || kind === 'colourant';
}

/** A line as it is taken on the day. `portions` are the ids there are. */
export function loadOf(
  line: Line,
  material: TraitMaterial,
  massG: number,
  portions: ReadonlySet<string>,
): Load {
  const role = roleOf(line, material);
  const portion = line.portion != null && portions.has(line.portion) ? line.portion : null;
  return {
    line,
    material,
    massG,
    role,
    portion: isAlwaysCommon(material) ? null : portion,
    isPowder: (role === 'intoFats' || role === 'trace') && isPowder(material),
  };
}
