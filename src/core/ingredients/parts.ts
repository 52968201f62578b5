/**
 * What a bar is made of, part by part, in the two schools of ingredient list: as added to the pot, and as
 * formed in the cured bar (assessment page, steps 6 and 13).
 */
import { saponify, WATER_PER_NAOH } from '../chemistry/reaction';
import type { InciPart, InciRole, Kind, Material, Saponification } from '../formula/types';
import type { ItemRole } from '../formula/answer';
import type { Balance } from '../loads/balance';
import type { Plan } from '../loads/plan';

/** A part under its INCI name. `kind` is the kind of the material that brings it. */
export interface Part {
  name: string;
  massG: number;
  role: ItemRole;
  kind: Kind;
  /** Names that take the place of `name` in some markets. */
  names?: InciPart['names'];
  /** Ids of declarable constituents that it is, all of it, as an oil that a list of allergens names. */
  standsFor?: ReadonlySet<string>;
}

export interface FormedBar {
  parts: Part[];
  soapG: number;
  glycerinG: number;
  freeFatG: number;
  acidSaltsG: number;
}

const PER_HUNDRED = 1 / 100;
const WATER_PART = 'water' satisfies InciRole;

/** All of a material is such a constituent from here on, percent. */
const ALL_OF_IT_PCT = 99.9;

/** The constituents that a scent is as a whole; of other materials and of several parts nothing is told. */
function standsFor({ inci, constituents }: Material): ReadonlySet<string> | undefined {
  if (inci?.length !== 1 || inci[0]!.role !== 'scent') return undefined;
  const ids = (constituents ?? [])
    .filter(({ typicalPct }) => typicalPct >= ALL_OF_IT_PCT)
    .map(({ id }) => id);
  return ids.length > 0 ? new Set(ids) : undefined;
}

/** What lists read of a material. */
interface Listed {
  parts: readonly InciPart[];
  /** The parts other than water, and their percents added up. */
  dry: readonly InciPart[];
  dryPct: number;
  standsFor: ReadonlySet<string> | undefined;
}

const listedMaterials = new WeakMap<Material, Listed>();

function listedOf(material: Material): Listed {
  const known = listedMaterials.get(material);
  if (known) return known;
  const whole: InciPart[] = [{ name: material.name, sharePct: 100 }];
  const inci = material.inci ?? [];
  const notWater = inci.filter((part) => part.role !== WATER_PART && part.sharePct > 0);
  const dry = notWater.length > 0 ? notWater : whole;
  const listed = {
    parts: inci.length > 0 ? inci : whole,
    dry,
    dryPct: dry.reduce((sum, part) => sum + part.sharePct, 0),
    standsFor: standsFor(material),
  };
  listedMaterials.set(material, listed);
  return listed;
}

/** Shares a mass out over a material's parts other than water, in proportion to their shares. */
function shareOut(onto: Part[], material: Material, massG: number): void {
  if (!(massG > 0)) return;
  const { dry, dryPct, standsFor } = listedOf(material);
  for (const { name, sharePct, role, names } of dry) {
    const partG = (massG * sharePct) / dryPct;
    onto.push({ name, massG: partG, role: role ?? 'ingredient', kind: material.kind, names, standsFor });
  }
}

/** Every line's parts at their own mass, and the alkali as weighed. Shares are taken as they are given. */
export function addedParts(plan: Plan, batch: Balance): Part[] {
  const parts: Part[] = [];
  plan.materials.forEach((material, i) => {
    const massG = batch.massG[i]!;
    if (!(massG > 0)) return;
    const listed = listedOf(material);
    const { standsFor } = listed;
    for (const { name, sharePct, role, names } of listed.parts) {
      const partG = massG * sharePct * PER_HUNDRED;
      parts.push({ name, massG: partG, role: role ?? 'ingredient', kind: material.kind, names, standsFor });
    }
  });
  if (batch.alkaliG > 0) {
    parts.push({ name: 'Sodium Hydroxide', massG: batch.alkaliG, role: 'alkali', kind: 'alkali' });
  }
  return parts;
}

function soapName(material: Material, saponification: Saponification | null | undefined): string {
  return saponification?.formedInci || `Saponified ${listedOf(material).dry[0]!.name}`;
}

/** Adds what a fat (or the fat in a milk) turns into; gives back the mass left free. All in grams. */
function addFat(
  bar: FormedBar,
  material: Material,
  saponification: Saponification | null | undefined,
  { massG, demandG, saponified }: { massG: number; demandG: number; saponified: number },
): number {
  const made = saponify(massG, demandG, saponification?.as ?? 'triglyceride', demandG > 0 ? saponified : 0);
  bar.soapG += made.soapG;
  bar.glycerinG += made.glycerinG;
  bar.freeFatG += made.freeG;
  if (made.soapG > 0) {
    const name = soapName(material, saponification);
    bar.parts.push({ name, massG: made.soapG, role: 'soap', kind: material.kind });
  }
  return made.freeG;
}

function addAcid(
  bar: FormedBar,
  material: Material,
  dryG: number,
  uptakeG: number,
  neutralised: number,
): void {
  const saltG = neutralised * (dryG + uptakeG * (1 - WATER_PER_NAOH));
  bar.acidSaltsG += saltG;
  if (saltG > 0) {
    if (material.formedInci) {
      bar.parts.push({ name: material.formedInci, massG: saltG, role: 'ingredient', kind: material.kind });
    } else shareOut(bar.parts, material, saltG);
  }
  shareOut(bar.parts, material, (1 - neutralised) * dryG);
}

function addLine(bar: FormedBar, plan: Plan, batch: Balance, i: number): void {
  const material = plan.materials[i]!;
  const massG = batch.massG[i]!;
  if (!(massG > 0)) return;
  const dryG = massG * (1 - plan.waterShare[i]!);
  if (plan.isFat[i]) {
    const saponified = plan.lines[i]!.stage === 'afterCook' ? 0 : batch.saponified;
    const demandG = massG * (plan.cookDemand[i]! + plan.laterDemand[i]!);
    const fat = { massG: dryG, demandG, saponified };
    shareOut(bar.parts, material, addFat(bar, material, material.saponification, fat));
  } else if (plan.acidUptake[i]! > 0) {
    addAcid(bar, material, dryG, massG * plan.acidUptake[i]!, batch.neutralised);
  } else {
    const demandG = massG * plan.milkDemand[i]!;
    const fat = { massG: 0, demandG, saponified: batch.saponified };
    if (demandG > 0) fat.massG = massG * (material.fatPct ?? 0) * PER_HUNDRED;
    const freeG = addFat(bar, material, material.fatSaponification, fat);
    shareOut(bar.parts, material, dryG - (fat.massG - freeG));
  }
}

/**
 * The cured bar: soaps, free fat, glycerin, acid salts, the water left, and every other line dry. The parts
 * add up to the cured mass less the alkali's impurity and any alkali that nothing took up.
 */
export function formedBar(plan: Plan, batch: Balance): FormedBar {
  const bar: FormedBar = { parts: [], soapG: 0, glycerinG: 0, freeFatG: 0, acidSaltsG: 0 };
  for (let i = 0; i < plan.count; i++) addLine(bar, plan, batch, i);
  if (bar.glycerinG > 0) {
    bar.parts.push({ name: 'Glycerin', massG: bar.glycerinG, role: 'glycerin', kind: 'other' });
  }
  const waterG = Math.max(0, batch.curedG - (batch.pourG - batch.waterG));
  if (waterG > 0) bar.parts.push({ name: 'Aqua', massG: waterG, role: WATER_PART, kind: 'liquid' });
  return bar;
}
