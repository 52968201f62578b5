/** One thread of a sweep: prepares the ground when told the setting, then answers chunk after chunk. */
import { parentPort } from 'node:worker_threads';
import type { Formula, Material } from '../core/formula/types';
import { createGround, type Ground } from '../core/loads/ground';
import { sweepProduct } from '../core/sweep';
import type { FromWorker, ToWorker, SweepSetting } from './sweep-messages';

let ground: Ground | null = null;
let byId = new Map<string, Material>();
const material = (id: string) => byId.get(id);

parentPort!.on('message', (message: ToWorker) => {
  if ('setting' in message) {
    const { materials, limits, declarables, markets, onDate } = JSON.parse(message.setting) as SweepSetting;
    ground = createGround({ limits, declarables }, markets, onDate);
    byId = new Map(materials.map((entry) => [entry.id, entry]));
    return;
  }
  const { sweep, chunk, products } = message;
  const rows = products.map(({ id, formulaText }) =>
    sweepProduct(ground!, { id, formula: JSON.parse(formulaText) as Formula }, material),
  );
  parentPort!.postMessage({ sweep, chunk, rows: JSON.stringify(rows) } satisfies FromWorker);
});
