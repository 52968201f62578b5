/** Plans six weeks of pours off the main thread, in the browser. */
import loadHighs from 'highs';
import wasmUrl from 'highs/runtime?url';
import { solveWith } from '../core/numerics/highs';
import { sixWeeks, type PlanAsk, type SixWeeks } from '../core/stock/six-weeks';

export type SixWeeksReply = { ok: true; plan: SixWeeks } | { ok: false; message: string };

const loading = loadHighs({ locateFile: () => wasmUrl });

addEventListener('message', ({ data }: MessageEvent<PlanAsk>) => {
  void loading
    .then((highs): SixWeeksReply => ({ ok: true, plan: sixWeeks(data, solveWith(highs)) }))
    .catch((error: unknown): SixWeeksReply => ({
      ok: false,
      message: error instanceof Error ? error.message : String(error),
    }))
    .then((reply) => postMessage(reply));
});
