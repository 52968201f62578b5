/** Solves a blend's programme off the main thread, in the browser. */
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import { solveBlend, type BlendAnswer } from '../core/scent/nearest';
import type { BlendDemand, Programme } from '../core/scent/programme';
import { solveWith } from '../core/numerics/highs';

export interface BlendTask {
  programme: Programme;
  demand: BlendDemand;
}

export type BlendReply = { ok: true; answer: BlendAnswer } | { ok: false; message: string };

const loading = loadHighs({ locateFile: () => wasmUrl });

addEventListener('message', (event: MessageEvent<BlendTask>) => {
  const { programme, demand } = event.data;
  void loading
    .then((highs): BlendReply => ({ ok: true, answer: solveBlend(programme, demand, solveWith(highs)) }))
    .catch((error: unknown): BlendReply => ({
      ok: false,
      message: error instanceof Error ? error.message : String(error),
    }))
    .then((reply) => postMessage(reply));
});
