/** Fats melted together beforehand: how much of a bucket stands for the fats of a day, and what it brings of each line. */
import type { TraitMaterial } from '../formula/traits';
import type { RequestError } from '../formula/types';
import type { Premixes } from './premix';
import type { Load } from './roles';
import type { Bucket } from './run-sheet-types';

const PER_HUNDRED = 1 / 100;
const PATH = 'bucket';

const refused = (code: string, message: string): { ok: false; errors: RequestError[] } => ({
  ok: false,
  errors: [{ path: PATH, code, message }],
});

const isOfThePot = ({ role, portion }: Load) =>
  portion === null && (role === 'hardFat' || role === 'softFat');

/**
 * As much of the bucket as the scarcest of its fats in the formula allows; what is left of the others is weighed by itself,
 * as is what premixes take. Refused where it holds something that the formula does not have among the fats of the pot.
 *
 * @example
 * bucketOf(loads, premixes, { …mix, madeOf: [{ material: 'olive-oil', sharePct: 60, … }] }) // { massG: 700, parts: … }
 */
export function bucketOf(
  loads: readonly Load[],
  { takenG }: Pick<Premixes, 'takenG'>,
  mix: TraitMaterial | null | undefined,
): Bucket | null | ReturnType<typeof refused> {
  if (!mix) return null;
  const { id, name, madeOf = [] } = mix;
  if (!madeOf?.length) return refused('no-mix', `${name} is no mix of fats.`);
  const thereOf = ({ line, massG }: Load) => Math.max(0, massG - (takenG.get(line.id) ?? 0));
  const rows = madeOf.map(({ material, sharePct }) => {
    const own = loads.filter((load) => isOfThePot(load) && load.material.id === material);
    return {
      material,
      share: sharePct * PER_HUNDRED,
      own,
      thereG: own.reduce((sum, one) => sum + thereOf(one), 0),
    };
  });
  const missing = rows.filter(({ share, thereG }) => share > 0 && thereG <= 0);
  if (missing.length > 0)
    return refused(
      'not-in-formula',
      `${name} holds ${missing.map(({ material }) => material).join(', ')}, of which the formula has nothing among its fats. Choose another bucket, or weigh the fats one by one.`,
    );
  const massG = Math.min(...rows.map(({ share, thereG }) => thereG / share));
  const parts = rows.flatMap(({ share, own, thereG }) =>
    own.map((load) => ({ line: load.line.id, massG: (massG * share * thereOf(load)) / thereG })),
  );
  return { material: id, name, massG, parts };
}
