/** Solves a blend's programme off the main thread, in the browser: the nearest that fits, or fewer names for so much movement. */
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import { frontier, type FrontierPoint } from '../core/scent/frontier';
import { solveBlend, type BlendAnswer } from '../core/scent/nearest';
import type { BlendDemand, Programme } from '../core/scent/programme';
import { solveWith } from '../core/numerics/highs';

export interface BlendTask {
  programme: Programme;
  demand: BlendDemand;
  wants: 'nearest' | 'frontier';
}

export type BlendReply =
  | { ok: true; wants: 'nearest'; answer: BlendAnswer }
  | { ok: true; wants: 'frontier'; points: FrontierPoint[] }
  | { ok: false; message: string };

const loading = loadHighs({ locateFile: () => wasmUrl });

addEventListener('message', (event: MessageEvent<BlendTask>) => {
  const { programme, demand, wants } = event.data;
  void loading
    .then((highs): BlendReply => {
      const solve = solveWith(highs);
      return wants === 'nearest'
        ? { ok: true, wants, answer: solveBlend(programme, demand, solve) }
        : { ok: true, wants, points: frontier(programme, demand.totalPctFats, solve) };
    })
    .catch((error: unknown): BlendReply => ({
      ok: false,
      message: error instanceof Error ? error.message : String(error),
    }))
    .then((reply) => postMessage(reply));
});
