/** A line more in a bar of the demo, put in as the worktable does. */
import type { House } from '../../src/server/house';
import { worktableData } from '../../src/server/services/worktable/products';
import { caller } from './call';

const go = caller({ formula: () => import('../../src/pages/api/v1/products/[id]/formula') });

/** Adds so many grams of a material to the fats of a bar; answers the status. */
export async function addFat(house: House, bar: string, material: string, massG: number): Promise<number> {
  const { version } = await worktableData(house, bar);
  const line = {
    id: 'added',
    material,
    stage: 'fats',
    amount: { value: massG, unit: 'g' },
    measuredBy: 'scale',
  };
  const formula = { ...version.formula, lines: [...version.formula.lines, line] };
  const body = { revision: version.revision, formula };
  return (await go('formula', 'PUT', { params: { id: bar }, body })).status;
}
