/** What a batch leaves besides its bars, as a material of its own: its list, its constituents, the limits of its scents. */
import type { Assessment, ItemRole } from '../formula/answer';
import { mixedTraits } from '../formula/mix';
import { isScent } from '../formula/scents';
import type { TraitMaterial } from '../formula/traits';
import { INCI_ROLES, type Constituent, type Limit, type MadeOf, type Material } from '../formula/types';
import type { Batch } from './types';

export const PART_KINDS = ['leftover', 'trimmings', 'seconds', 'embeds'] as const;
export type PartKind = (typeof PART_KINDS)[number];

/** Least share that is kept of a constituent, percent; less moves no threshold of any market. */
const LEAST_PCT = 1e-7;

const isInciRole = (role: ItemRole) => (INCI_ROLES as readonly string[]).includes(role);

interface Held {
  material: TraitMaterial;
  massG: number;
}

/** What went in, with the materials as they were copied when the batch was begun, or as `find` has them. */
function heldBy({ lines, materials }: Batch, find: (id: string) => Material | undefined): Held[] {
  return lines.flatMap(({ material: id, massG }) => {
    const material = materials.find((one) => one.id === id) ?? find(id);
    return material && massG > 0 ? [{ material, massG }] : [];
  });
}

function constituentsOf(held: readonly Held[], curedG: number): Constituent[] {
  const byId = new Map<string, Constituent>();
  for (const { material, massG } of held) {
    for (const { id, lowPct, typicalPct, highPct } of material.constituents ?? []) {
      const sum = byId.get(id) ?? { id, lowPct: 0, typicalPct: 0, highPct: 0 };
      sum.lowPct += (lowPct * massG) / curedG;
      sum.typicalPct += (typicalPct * massG) / curedG;
      sum.highPct += (highPct * massG) / curedG;
      byId.set(id, sum);
    }
  }
  return [...byId.values()].filter(({ highPct }) => highPct > LEAST_PCT);
}

/** The scents in it, so that their certificates go on to hold it. */
function scentsOf(held: readonly Held[], curedG: number): { madeOf: MadeOf[]; limits: Limit[] } {
  const scents = held.filter(({ material }) => isScent(material));
  return {
    madeOf: scents.flatMap(({ material, massG }) => {
      const sharePct = (100 * massG) / curedG;
      const parts = material.madeOf?.length
        ? material.madeOf.map((part) => ({ ...part, sharePct: (part.sharePct * sharePct) / 100 }))
        : [{ material: material.id, kind: material.kind, sharePct }];
      return parts;
    }),
    limits: scents.flatMap(({ material }) => material.limits ?? []),
  };
}

/**
 * A part of a batch as a material. Its list is the batch's own as formed, soaps as soaps, so that nothing of it takes
 * up lye again; shares are percent of the cured bar. `assessment` is of what was weighed.
 *
 * @example
 * partMaterial(batch, assessment, { id: 'trimmings', name: 'Trimmings of July', find }); // a material with its own list
 */
export function partMaterial(
  batch: Batch,
  assessment: Assessment,
  { id, name, find }: { id: string; name: string; find: (id: string) => Material | undefined },
): TraitMaterial {
  const { curedG } = assessment.masses;
  const held = heldBy(batch, find);
  const list = assessment.ingredients.find(({ school }) => school === 'formed');
  const items = (list?.items ?? []).filter(({ role, pct }) => role !== 'allergen' && pct > 0);
  const { madeOf, limits } = scentsOf(held, curedG);
  return {
    id,
    name,
    kind: 'other',
    waterPct: items.filter(({ role }) => role === 'water').reduce((sum, { pct }) => sum + pct, 0),
    inci: items.map(({ name: item, pct, role }) => ({
      name: item,
      sharePct: pct,
      ...(isInciRole(role) ? { role: role as (typeof INCI_ROLES)[number] } : {}),
    })),
    constituents: constituentsOf(held, curedG),
    ...(madeOf.length > 0 ? { madeOf: [...madeOf, ...rest(madeOf)], limits } : {}),
    ...mixedTraits(held.map(({ material, massG }) => ({ material, share: massG / curedG }))),
    ...(held.some(({ material }) => material.origin === 'animal') ? { origin: 'animal' } : {}),
  };
}

/** What is no scent, so that the shares of `madeOf` make up the whole. */
function rest(madeOf: readonly MadeOf[]): MadeOf[] {
  const sharePct = 100 - madeOf.reduce((sum, part) => sum + part.sharePct, 0);
  return sharePct > 0 ? [{ material: 'soap', kind: 'other', sharePct }] : [];
}
