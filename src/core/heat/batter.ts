/** What of a formula heats, stores and carries heat, by part of the batter. */
import { isFatty } from '../formula/fats';
import { saponify } from '../chemistry/reaction';
import type { TraitMaterial } from '../formula/traits';
import type { Formula } from '../formula/types';
import { loadsOf } from '../making/loads';
import { isLauric, sugarShare, type Load } from '../making/roles';
import { batterVolume } from '../making/size';
import {
  CONDUCTIVITY,
  GEL,
  HEAT_J_PER_G_ALKALI,
  HEAT_J_PER_G_SUGAR,
  LAURIC_FACTOR,
  LIVELY_FACTOR,
  LYE_POWER,
  REFERENCE_C,
  SPECIFIC_HEAT,
  USUAL_LYE_PCT,
} from './figures';
import type { HeatBatter } from './types';

const PER_HUNDRED = 1 / 100;
const WHOLE = 'triglyceride';

/** The fat of a load, its own or a milk's, g; what of it takes up hydroxide in the block, g of pure sodium hydroxide, and how. */
function fatOf({ material, massG, line }: Load) {
  if (!isFatty(material)) {
    const fatG = massG * (material.fatPct ?? 0) * PER_HUNDRED;
    const { naohPerGram = 0, as } = material.fatSaponification ?? {};
    return { fatG, demandG: fatG * naohPerGram, as: as ?? WHOLE };
  }
  const { naohPerGram = 0, as } = material.saponification ?? {};
  return { fatG: massG, demandG: line.stage === 'afterCook' ? 0 : massG * naohPerGram, as: as ?? WHOLE };
}

/** Hydroxide that acids have taken up before the pour; it is not there for the fats. */
const acidsTake = (loads: readonly Load[]) =>
  loads.reduce(
    (sum, { material, massG }) => sum + (isFatty(material) ? 0 : massG * (material.alkaliUptake ?? 0)),
    0,
  );

function partOf(
  loads: readonly Load[],
  { alkaliG, saponified }: { alkaliG: number; saponified: number },
  pourMl: { volumeMl: number; lines: ReadonlyMap<string, number>; lyeMl: number },
  { id, share }: { id: string | null; share: number },
): HeatBatter {
  const own = (load: Load) => (load.portion === null ? share : load.portion === id ? 1 : 0);
  const sum = (of: (load: Load) => number) => loads.reduce((total, load) => total + own(load) * of(load), 0);
  const fatsG = sum((load) => fatOf(load).fatG);
  const made = { soapG: 0, glycerinG: 0, waterG: 0, freeG: 0 };
  for (const load of loads) {
    const { fatG, demandG, as } = fatOf(load);
    if (fatG === 0) continue;
    const one = saponify(own(load) * fatG, own(load) * demandG, as, demandG > 0 ? saponified : 0);
    for (const key of ['soapG', 'glycerinG', 'waterG', 'freeG'] as const) made[key] += one[key];
  }
  const lauricG = sum((load) => (isFatty(load.material) && isLauric(load.material) ? load.massG : 0));
  return {
    portion: id,
    share,
    massG: sum(({ massG }) => massG) + alkaliG * share,
    fatsG,
    waterG: sum(({ material, massG }) => massG * (material.waterPct ?? 0) * PER_HUNDRED),
    alkaliG: saponified * sum((load) => fatOf(load).demandG),
    soapG: made.soapG,
    glycerinG: made.glycerinG,
    reactionWaterG: made.waterG,
    freeFatG: made.freeG,
    saltG: sum(({ role, material, massG }) => (role === 'salt' || material.kind === 'salt' ? massG : 0)),
    sugarsG: sum(({ material, massG }) => massG * sugarShare(material)),
    milkG: sum(({ material, massG }) => (material.kind === 'milk' ? massG : 0)),
    lauricShare: fatsG > 0 ? lauricG / fatsG : 0,
    isLively: loads.some(
      (load) => own(load) > 0 && load.massG > 0 && load.material.behaviour?.speeds === true,
    ),
    volumeMl: sum(({ line }) => pourMl.lines.get(line.id) ?? 0) + pourMl.lyeMl * share,
  };
}

/**
 * The batter by its parts, in the formula's order, which is taken to be from the bottom up; null where the formula
 * does not reckon.
 *
 * @example
 * heatBatters(formula, materials)?.[0]; // water, fats, lye and sugars of the part that lies lowest
 */
export function heatBatters(formula: Formula, materials: readonly TraitMaterial[]): HeatBatter[] | null {
  const found = loadsOf(formula, materials);
  if (!found) return null;
  const { loads, portions, assessment } = found;
  const byId = new Map(materials.map((material) => [material.id, material]));
  const volume = batterVolume(formula, assessment, (id) => byId.get(id));
  const lines = new Map(volume.lines.map(({ id, volumeMl }) => [id, volumeMl]));
  const alkaliG = assessment.masses.alkaliPureG;
  const demandG = loads.reduce((sum, load) => sum + fatOf(load).demandG, 0);
  const forFatsG = Math.min(demandG, Math.max(0, alkaliG - acidsTake(loads)));
  const saponified = demandG > 0 ? forFatsG / demandG : 0;
  const parts = portions.map((portion) =>
    partOf(loads, { alkaliG, saponified }, { ...volume, lines }, portion),
  );
  const wholeMl = parts.reduce((sum, { volumeMl }) => sum + volumeMl, 0);
  return parts.map((part) => ({ ...part, share: wholeMl > 0 ? part.volumeMl / wholeMl : part.share }));
}

/** Percent of sodium hydroxide in the lye water. */
export const lyePct = ({ alkaliG, waterG }: HeatBatter): number =>
  alkaliG + waterG > 0 ? (100 * alkaliG) / (alkaliG + waterG) : 0;

/** Where a batter goes to gel, °C: lower with more water. */
export const gelPointC = (batter: HeatBatter): number =>
  Math.min(GEL.most, Math.max(GEL.least, GEL.c + (lyePct(batter) - GEL.atPct) * GEL.kPerPct));

/** Rate against an ordinary batter's. */
export function rateFactor(batter: HeatBatter): number {
  const { lauricShare, isLively } = batter;
  const lauric = 1 + (LAURIC_FACTOR - 1) * lauricShare;
  const lye = (Math.max(5, lyePct(batter)) / USUAL_LYE_PCT) ** LYE_POWER;
  return lauric * lye * (isLively ? LIVELY_FACTOR : 1);
}

/** Heat capacity of the whole part, J/K, before and after all its alkali is taken up. */
export function capacities(batter: HeatBatter): { before: number; after: number } {
  const { fatsG, waterG, alkaliG, soapG, glycerinG, saltG, sugarsG, massG } = batter;
  const { fat, water, alkali, soap, glycerin, salt, sugar, other } = SPECIFIC_HEAT;
  const otherG = Math.max(0, massG - fatsG - waterG - alkaliG - saltG - sugarsG);
  const still = waterG * water + saltG * salt + sugarsG * sugar + otherG * other;
  return {
    before: still + fatsG * fat + alkaliG * alkali,
    after:
      still + soapG * soap + glycerinG * glycerin + batter.freeFatG * fat + batter.reactionWaterG * water,
  };
}

/** Heat that all its alkali, and all its sugars, give, J. */
export const reactionJ = ({ alkaliG }: HeatBatter): number => alkaliG * HEAT_J_PER_G_ALKALI;
export const sugarJ = ({ sugarsG }: HeatBatter): number => sugarsG * HEAT_J_PER_G_SUGAR;

/** Conductivity, W/(m K). */
export function conductivity({ waterG, saltG, massG }: HeatBatter): number {
  if (massG <= 0) return CONDUCTIVITY.rest;
  const [water, salt] = [waterG / massG, saltG / massG];
  return water * CONDUCTIVITY.water + salt * CONDUCTIVITY.salt + (1 - water - salt) * CONDUCTIVITY.rest;
}

/**
 * What a batter would reach from a temperature without any loss, °C: 45 to 60 K more for an ordinary one. `converted`
 * is the share of its alkali that is taken up already.
 */
export function noLossC(batter: HeatBatter, startC: number, heat = 1, converted = 0): number {
  const { before, after } = capacities(batter);
  const stored = (before + (after - before) * converted) * (startC - REFERENCE_C);
  const storedJ = stored + heat * ((1 - converted) * reactionJ(batter) + sugarJ(batter));
  return REFERENCE_C + storedJ / after;
}
