/** For all tests: threads, bundled once before them and ended after them, and the seeded demo. */
import { bundleWorkers } from '../../scripts/workers.mjs';
import { endThreads } from '../../src/server/jobs/threads';
import { seedOnce } from './seeded';

let takeAway: (() => void) | null = null;

export function mochaGlobalSetup(): void {
  bundleWorkers();
  takeAway = seedOnce();
}

export async function mochaGlobalTeardown(): Promise<void> {
  await endThreads();
  takeAway?.();
}
