/** Threads for all tests: bundled once before them, ended after them. */
import { bundleWorkers } from '../../scripts/workers.mjs';
import { endThreads } from '../../src/server/jobs/threads';

export function mochaGlobalSetup(): void {
  bundleWorkers();
}

export async function mochaGlobalTeardown(): Promise<void> {
  await endThreads();
}
