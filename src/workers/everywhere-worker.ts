/** Finds the nearest formula that is clear everywhere off the main thread, in the browser. */
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import type { Formula, Material, Stored } from '../core/formula/types';
import { everywhere, type Everywhere, type EverywhereDemand } from '../core/loads/everywhere';
import { solveWith } from '../core/numerics/highs';

export interface EverywhereTask {
  rules: Pick<Stored, 'limits' | 'declarables' | 'demands'>;
  materials: Material[];
  beside: Material[];
  formula: Formula;
  firstPlacedOn: Parameters<typeof everywhere>[0]['request']['firstPlacedOn'];
  demand: EverywhereDemand;
}

export type EverywhereReply = Everywhere | { outcome: 'failed'; message: string };

const loading = loadHighs({ locateFile: () => wasmUrl });

addEventListener('message', ({ data }: MessageEvent<EverywhereTask>) => {
  const { rules, materials, beside, formula, firstPlacedOn, demand } = data;
  const byId = new Map([...beside, ...materials].map((material) => [material.id, material]));
  const find = (id: string) => byId.get(id);
  const asked = {
    request: { firstPlacedOn },
    formula,
    stored: { ...rules, material: find },
    demand,
    beside,
    find,
  };
  void loading
    .then((highs): EverywhereReply => everywhere(asked, solveWith(highs)))
    .catch((error: unknown): EverywhereReply => ({
      outcome: 'failed',
      message: error instanceof Error ? error.message : String(error),
    }))
    .then((reply) => postMessage(reply));
});
