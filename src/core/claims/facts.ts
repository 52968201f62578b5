/** What the formula itself says of vegan, palm free, unscented and the like. */
import { isScent } from '../formula/scents';
import type { Food, TraitMaterial } from '../formula/traits';
import type { FactId } from './types';

/** `holds` as far as the formula tells, `contradicted` by a line, or `open`: it cannot be told from the formula. */
export type FactStanding = 'holds' | 'contradicted' | 'open';

export interface Fact {
  id: FactId;
  standing: FactStanding;
  /** Names of materials that contradict it or leave it open, or what is missing. */
  because: string[];
}

/** What a line holds, mixes taken apart; `within` names the mix it stands in. */
export interface FactLine {
  material: TraitMaterial;
  within?: string;
}

/**
 * The materials of a formula, mixes taken apart into what they were made of. A part that nobody knows any more stands as
 * the mix does, with its own kind.
 */
export function takenApart(
  materials: readonly TraitMaterial[],
  find: (id: string) => TraitMaterial | undefined,
): FactLine[] {
  return materials.flatMap((material): FactLine[] => {
    const parts = material.madeOf ?? [];
    if (parts.length === 0) return [{ material }];
    return parts.map(({ material: id, kind }) => {
      const part = find(id);
      return part ? { material: part, within: material.name } : { material: { ...material, kind } };
    });
  });
}

const PALM = /elaeis|palm (kernel )?(oil|stearin|olein)|palmate|palm kernelate/i;
/** Often made from palm; only the supplier can tell. */
const OFTEN_PALM =
  /stearic acid|palmitic acid|glycerin|cetyl|cetearyl|stearyl|glyceryl|tocopher|sodium lauroyl/i;
const MILK = /\blac\b|milk|cream|butter ?milk|yogurt|casein|whey|lactose/i;
const PLANT_MILK = /\b(oat|almond|soya?|coconut|cocos|rice|avena|prunus|glycine)\b/i;
const NUT =
  /prunus amygdalus|almond|corylus|hazelnut|juglans|walnut|macadamia|pistacia|anacardium|cashew|bertholletia|brazil nut|carya|pecan|arachis|peanut/i;
const GLUTEN = /triticum|wheat|hordeum|barley|secale|rye|avena|oat/i;

/** Only the supplier can tell whether an animal had a part in it. */
const OFTEN_ANIMAL: ReadonlySet<Food> = new Set(['mayMilk', 'mayAnimal']);
/** Often there where something is free of milk by its name. */
const MAYBE: Partial<Record<Food, Food>> = { milk: 'mayMilk' };

type Judge = (lines: readonly FactLine[]) => Omit<Fact, 'id'>;

function inciOf(material: TraitMaterial): string {
  return [material.name, ...(material.inci ?? []).map(({ name }) => name)].join(' ');
}

function judged(against: string[], open: string[]): Omit<Fact, 'id'> {
  if (against.length > 0) return { standing: 'contradicted', because: against };
  return open.length > 0 ? { standing: 'open', because: open } : { standing: 'holds', because: [] };
}

function names(lines: readonly FactLine[], test: (material: TraitMaterial) => boolean): string[] {
  const found = lines.filter(({ material }) => test(material));
  return [
    ...new Set(found.map(({ material: { name }, within }) => (within ? `${name} in ${within}` : name))),
  ];
}

/** Whether a material comes from a food: by what is on file of it, else by its names. */
function comesFrom(material: TraitMaterial, food: Food, pattern: RegExp, except?: RegExp): boolean {
  if (material.foods) return material.foods.includes(food);
  return pattern.test(inciOf(material)) && !except?.test(inciOf(material));
}

function holdsNone(food: Food, pattern: RegExp, except?: RegExp): Judge {
  return (lines) =>
    judged(
      names(lines, (material) => comesFrom(material, food, pattern, except)),
      names(
        lines,
        ({ kind, foods }) => kind === 'fragrance' || (foods ?? []).some((one) => one === MAYBE[food]),
      ).map((name) => `${name}: ask the supplier`),
    );
}

const JUDGES: Record<FactId, Judge> = {
  vegan: (lines) =>
    judged(
      names(lines, ({ origin }) => origin === 'animal'),
      [
        ...names(lines, ({ origin }) => origin === undefined).map((name) => `${name}: origin not on file`),
        ...names(lines, ({ foods }) => foods?.some((food) => OFTEN_ANIMAL.has(food)) ?? false).map(
          (name) => `${name}: often from animals, or with milk in it; ask the supplier`,
        ),
      ],
    ),
  palmFree: (lines) =>
    judged(
      names(lines, (material) => comesFrom(material, 'palm', PALM)),
      names(
        lines,
        (material) => comesFrom(material, 'mayPalm', OFTEN_PALM) || material.kind === 'fragrance',
      ).map((name) => `${name}: often made from palm, ask the supplier`),
    ),
  unscented: (lines) => judged(names(lines, isScent), []),
  natural: (lines) =>
    judged(
      names(
        lines,
        ({ origin, kind, inci }) =>
          origin === 'synthetic' ||
          kind === 'fragrance' ||
          (inci ?? []).some(({ name }) => /^CI \d/.test(name)),
      ),
      ['Sodium hydroxide is made, not grown; say what you count as natural'],
    ),
  organic: () => judged([], ['No certification is on file here; without one the word is not yours to use']),
  milkFree: holdsNone('milk', MILK, PLANT_MILK),
  nutFree: holdsNone('nut', NUT),
  glutenFree: holdsNone('gluten', GLUTEN),
  crueltyFree: () =>
    judged(
      [],
      ['The formula cannot tell; where testing on animals is banned for all, it sets nothing apart'],
    ),
  handmade: () => judged([], ['The formula cannot tell; keep a record of how it is made']),
};

/**
 * Every fact about a formula whose lines hold these materials.
 *
 * @example
 * formulaFacts(lines).find(({ id }) => id === 'vegan')?.standing; // 'contradicted'
 */
export function formulaFacts(lines: readonly FactLine[]): Fact[] {
  return (Object.keys(JUDGES) as FactId[]).map((id) => ({ id, ...JUDGES[id](lines) }));
}
