/**
 * Mixes: a material made of materials, such as a scent blend, an oil with a plant steeped in it, brine, or a
 * clay wetted beforehand. What a mix holds follows from its parts; the limits of every part go with it.
 */
import { isUnknown, type Behaviour, type TraitMaterial, type Traits } from './traits';
import type { Constituent, InciPart, Kind, Limit, MadeOf, Material, RequestError } from './types';
import { isScent } from './scents';

/** One part of a mix, by weight against the others. */
export interface MixPart {
  material: string;
  parts: number;
}

export interface Mix {
  id: string;
  name: string;
  parts: readonly MixPart[];
}

export type MixResult = { ok: true; material: TraitMaterial } | { ok: false; errors: RequestError[] };

/** Mixes within mixes deeper than this are taken for a circle. */
const DEEPEST = 8;
const PER_HUNDRED = 1 / 100;
const MOSTLY = 0.5;

/** A material and its share of what it stands in, 0 to 1. */
export interface Portioned {
  material: TraitMaterial;
  share: number;
}

const FAT_KINDS: ReadonlySet<Kind> = new Set(['fat', 'wax']);
/** What reacts with lye on its own account and so has to stay a line of its own. */
const STAYS_ALONE: ReadonlySet<Kind> = new Set(['acid', 'alkali']);

/** Whether a material is a scent, and where it is a mix, every part of it. */
export const isScentBlend = ({ kind, madeOf }: Pick<Material, 'kind' | 'madeOf'>): boolean =>
  madeOf?.length ? madeOf.every(isScent) : isScent({ kind });

function weighted(portioned: readonly Portioned[], value: (material: TraitMaterial) => number): number {
  return portioned.reduce((sum, { material, share }) => sum + share * value(material), 0);
}

/** Grams in a millilitre of the mix; null where a part's density is not known. */
function mixedDensity(portioned: readonly Portioned[], key: 'density' | 'bulkDensity'): number | null {
  const volumes = portioned.map(({ material, share }) => share / (material[key] ?? material.density ?? 0));
  const total = volumes.reduce((sum, volume) => sum + volume, 0);
  return Number.isFinite(total) && total > 0 ? 1 / total : null;
}

function mixedInci(portioned: readonly Portioned[]): InciPart[] {
  const byName = new Map<string, InciPart>();
  for (const { material, share } of portioned) {
    const parts = material.inci?.length ? material.inci : [{ name: material.name, sharePct: 100 }];
    for (const part of parts) {
      const key = `${part.name} ${part.role ?? 'ingredient'}`;
      const before = byName.get(key);
      byName.set(key, { ...part, sharePct: (before?.sharePct ?? 0) + part.sharePct * share });
    }
  }
  return [...byName.values()].sort((a, b) => b.sharePct - a.sharePct);
}

function mixedConstituents(portioned: readonly Portioned[]): Constituent[] {
  const byId = new Map<string, Constituent>();
  for (const { material, share } of portioned) {
    for (const { id, lowPct, typicalPct, highPct } of material.constituents ?? []) {
      const sum = byId.get(id) ?? { id, lowPct: 0, typicalPct: 0, highPct: 0 };
      sum.lowPct += share * lowPct;
      sum.typicalPct += share * typicalPct;
      sum.highPct += share * highPct;
      byId.set(id, sum);
    }
  }
  return [...byId.values()].sort((a, b) => b.typicalPct - a.typicalPct);
}

function mixedLimits(portioned: readonly Portioned[]): Limit[] {
  const byKey = new Map<string, Limit>();
  for (const { material } of portioned) {
    for (const limit of material.limits ?? []) {
      byKey.set(`${limit.id} ${limit.subject.type} ${limit.subject.id}`, limit);
    }
  }
  return [...byKey.values()];
}

/** What water takes up, grains and all. */
const DISSOLVES: ReadonlySet<Kind> = new Set(['salt', 'sugar']);

const grainsOf = ({ material }: Portioned) => material.behaviour?.grainUm ?? [];

/**
 * What a body or a cloth minds of the parts goes on in the whole: cautions, sharp grains, stains, colours that turn.
 * How powders are wetted does not; in a mix they are.
 */
export function mixedTraits(portioned: readonly Portioned[]): Pick<Traits, 'concerns' | 'behaviour'> {
  const present = portioned.filter(({ share }) => share > 0);
  const concerns = [...new Set(present.flatMap(({ material }) => material.concerns ?? []))];
  const behaviour: Behaviour = {};
  // In brine and syrup nothing of the grains is left.
  const isWater = weighted(present, ({ waterPct }) => waterPct ?? 0) >= 100 * MOSTLY;
  const grainy = present.filter(({ material: { kind } }) => !isWater || !DISSOLVES.has(kind));
  if (grainy.some(({ material }) => material.behaviour?.sharp)) behaviour.sharp = true;
  for (const trait of ['stains', 'swells', 'drawsWater'] as const)
    if (present.some(({ material }) => material.behaviour?.[trait])) behaviour[trait] = true;
  for (const trait of ['speeds', 'rices'] as const)
    if (present.some(({ material }) => material.behaviour?.[trait])) behaviour[trait] = true;
  // What was said of every fragrance in it is known of the whole.
  const isSaid = present.some(({ material }) => material.kind === 'fragrance');
  if (isSaid && !present.some(({ material }) => isUnknown(material))) behaviour.speeds ??= false;
  // The grains that are felt: of what is sharp, where anything is.
  const felt = behaviour.sharp ? grainy.filter(({ material }) => material.behaviour?.sharp) : grainy;
  const grains = felt.flatMap(grainsOf);
  if (grains.length > 0) behaviour.grainUm = [Math.min(...grains), Math.max(...grains)];
  const colours = [...new Set(present.flatMap(({ material }) => material.behaviour?.colour ?? []))];
  if (colours.length > 0) behaviour.colour = colours.join('; ');
  return {
    ...(concerns.length > 0 ? { concerns } : {}),
    ...(Object.keys(behaviour).length > 0 ? { behaviour } : {}),
  };
}

/** The parts that are not mixes themselves, with their share of the whole; same materials merged. */
function mixedParts(portioned: readonly Portioned[]): MadeOf[] {
  const byId = new Map<string, MadeOf>();
  const add = (material: string, kind: Kind, sharePct: number) => {
    const before = byId.get(material);
    byId.set(material, { material, kind, sharePct: (before?.sharePct ?? 0) + sharePct });
  };
  for (const { material, share } of portioned) {
    if (!material.madeOf?.length) add(material.id, material.kind, 100 * share);
    for (const part of material.madeOf ?? []) add(part.material, part.kind, part.sharePct * share);
  }
  return [...byId.values()];
}

function mixedKind(portioned: readonly Portioned[], fatShare: number): Kind {
  if (portioned.every(({ material }) => isScent(material))) {
    return portioned.some(({ material }) => material.kind === 'fragrance') ? 'fragrance' : 'essentialOil';
  }
  if (fatShare >= MOSTLY) return 'fat';
  const others = portioned.filter(({ material }) => !FAT_KINDS.has(material.kind));
  return others.reduce((most, entry) => (entry.share > most.share ? entry : most)).material.kind;
}

/** How the fats in a mix take up lye: all of it where the mix is itself a fat, else as a milk carries its fat. */
function mixedFat(portioned: readonly Portioned[], isFat: boolean): Partial<Material> {
  const fats = portioned.filter(({ material }) => FAT_KINDS.has(material.kind));
  const largest = fats.reduce<Portioned | null>((most, entry) => {
    return most === null || entry.share > most.share ? entry : most;
  }, null);
  const carried = weighted(portioned, (material) => (material.fatPct ?? 0) * PER_HUNDRED);
  const fatShare = fats.reduce((sum, { share }) => sum + share, 0) + carried;
  if (fatShare === 0) return {};
  const naoh = weighted(portioned, (material) =>
    FAT_KINDS.has(material.kind)
      ? (material.saponification?.naohPerGram ?? 0)
      : (material.fatPct ?? 0) * PER_HUNDRED * (material.fatSaponification?.naohPerGram ?? 0),
  );
  const formedInci =
    largest?.material.saponification?.formedInci ??
    portioned.find(({ material }) => material.fatSaponification)?.material.fatSaponification?.formedInci;
  if (isFat) {
    return {
      saponification: { naohPerGram: naoh, as: 'triglyceride', formedInci },
      fattyAcids: largest?.material.fattyAcids,
    };
  }
  return {
    fatPct: 100 * fatShare,
    fatSaponification: { naohPerGram: naoh / fatShare, as: 'triglyceride', formedInci },
  };
}

function fault(path: string, code: string, message: string): MixResult {
  return { ok: false, errors: [{ path, code, message }] };
}

/**
 * The material that a mix amounts to. `find` gives a part's material, itself resolved where it is a mix; a
 * circle, an unknown part, an acid or an alkali comes back as an error with its path.
 *
 * @example
 * mixMaterial(mix, (id) => materials.get(id)); // a material whose constituents are those of its parts, by share
 */
export function mixMaterial(mix: Mix, find: (id: string) => Material | undefined): MixResult {
  const total = mix.parts.reduce((sum, { parts }) => sum + parts, 0);
  if (mix.parts.length === 0 || !(total > 0)) {
    return fault('parts', 'empty', 'A mix needs at least one part above zero.');
  }
  const portioned: Portioned[] = [];
  for (const [index, { material: id, parts }] of mix.parts.entries()) {
    const path = `parts.${index}.material`;
    const material = id === mix.id ? undefined : find(id);
    if (!material) return fault(path, 'unknown-material', `There is no material "${id}" to mix in.`);
    if (STAYS_ALONE.has(material.kind)) {
      const remedy = 'Keep it as a line of its own in the formula.';
      return fault(path, 'reacts', `${material.name} reacts with the lye. ${remedy}`);
    }
    if (parts > 0) portioned.push({ material, share: parts / total });
  }
  const fatShare = portioned
    .filter(({ material }) => FAT_KINDS.has(material.kind))
    .reduce((sum, { share }) => sum + share, 0);
  const kind = mixedKind(portioned, fatShare);
  const material: TraitMaterial = {
    id: mix.id,
    name: mix.name,
    kind,
    waterPct: weighted(portioned, ({ waterPct }) => waterPct ?? 0),
    bulkDensity: mixedDensity(portioned, 'bulkDensity'),
    density: mixedDensity(portioned, 'density'),
    inci: mixedInci(portioned),
    constituents: mixedConstituents(portioned),
    limits: mixedLimits(portioned),
    madeOf: mixedParts(portioned),
    ...mixedFat(portioned, kind === 'fat'),
    ...mixedTraits(portioned),
  };
  return { ok: true, material };
}

/** A mix as it resolved, and how many mixes deep it is. */
interface Resolved {
  material: Material | undefined;
  depth: number;
}

/**
 * Finds materials among plain ones and mixes, mixes resolved as they are asked for and each of them once. A mix
 * that does not resolve (a circle, a part that is gone, mixes too deep within mixes) is not found.
 */
export function mixFinder(
  plain: (id: string) => Material | undefined,
  mixes: ReadonlyMap<string, Mix>,
): (id: string) => Material | undefined {
  const known = new Map<string, Resolved>();
  const resolving = new Set<string>();
  const resolve = (id: string): Resolved => {
    const mix = mixes.get(id);
    if (!mix) return { material: plain(id), depth: 0 };
    const before = known.get(id);
    if (before) return before;
    if (resolving.has(id) || resolving.size > DEEPEST) return { material: undefined, depth: 0 };
    resolving.add(id);
    let depth = 0;
    const result = mixMaterial(mix, (part) => {
      const found = resolve(part);
      depth = Math.max(depth, found.depth);
      return found.material;
    });
    resolving.delete(id);
    const isSound = result.ok && depth < DEEPEST;
    const made = { material: isSound ? result.material : undefined, depth: depth + 1 };
    // What was cut short within another's circle is found out anew when it is asked for by itself.
    if (isSound || resolving.size === 0) known.set(id, made);
    return made;
  };
  return (id) => resolve(id).material;
}
