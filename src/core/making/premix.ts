/** Premixes: powders rubbed smooth beforehand in liquid that was held back, or in a little of a liquid oil. */
import type { Load } from './roles';

export interface Part {
  load: Load;
  massG: number;
}

export interface Premix {
  powder: Load;
  /** What it is wetted with; each is taken from a line's own mass. */
  carriers: Part[];
}

export interface Premixes {
  premixes: Premix[];
  /** Grams taken out of lines for premixes, by line id. */
  takenG: ReadonlyMap<string, number>;
}

/** Times its own weight that a powder wants of liquid where nothing is on file (craft: one to three). */
const USUAL_WETTING = 2;
/** Share of an oil that premixes may take at most, so that enough is left for the pot. */
const MOST_OF_AN_OIL = 0.25;

/** Liquid that a powder of so many grams is wetted with. */
function wantedG({ material, massG }: Load): number {
  const [low, high] = material.behaviour?.wettingTimes ?? [USUAL_WETTING, USUAL_WETTING];
  return (massG * (low + high)) / 2;
}

const sum = (parts: readonly { massG: number }[]) => parts.reduce((total, { massG }) => total + massG, 0);

/** Shares the liquid held back out over the powders it is for, by what each wants. */
function inHeldLiquid(powders: readonly Load[], held: readonly Load[]): Premix[] {
  const all = powders.reduce((total, powder) => total + wantedG(powder), 0);
  return powders.map((powder) => ({
    powder,
    carriers: held.map((load) => ({ load, massG: (load.massG * wantedG(powder)) / all })),
  }));
}

/** Takes a little of the largest liquid oil for every powder. */
function inOil(powders: readonly Load[], oils: readonly Load[]): Premix[] {
  const oil = [...oils].sort((a, b) => b.massG - a.massG)[0];
  if (!oil) return [];
  const all = powders.reduce((total, powder) => total + wantedG(powder), 0);
  const share = Math.min(1, (oil.massG * MOST_OF_AN_OIL) / all);
  return powders.map((powder) => ({ powder, carriers: [{ load: oil, massG: wantedG(powder) * share }] }));
}

/**
 * The premixes of a batch. Powders of one portion are wetted with liquid held back for that portion, or go in dry:
 * oil of the common batter in one portion would shift what the others hold.
 */
export function planPremixes(loads: readonly Load[]): Premixes {
  const premixes: Premix[] = [];
  for (const portion of new Set(loads.map((load) => load.portion))) {
    const here = loads.filter((load) => load.portion === portion);
    const powders = here.filter(({ isPowder }) => isPowder);
    const held = here.filter(({ role }) => role === 'held');
    if (powders.length === 0) continue;
    if (held.length > 0) premixes.push(...inHeldLiquid(powders, held));
    else if (portion === null)
      premixes.push(
        ...inOil(
          powders,
          here.filter(({ role }) => role === 'softFat'),
        ),
      );
  }
  const takenG = new Map<string, number>();
  for (const { load, massG } of premixes.flatMap(({ carriers }) => carriers))
    takenG.set(load.line.id, (takenG.get(load.line.id) ?? 0) + massG);
  return { premixes: premixes.filter(({ carriers }) => sum(carriers) > 0), takenG };
}
