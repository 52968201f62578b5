/** `npm run hostile`: builds what is needed, then sends hostile requests to a server of its own. */
import { ensureBuilt } from './build.mjs';
import { ensureInstalled, run } from './install.mjs';

ensureInstalled();
await ensureBuilt();
run(process.execPath, ['--import=tsx', 'test/hostile/run.ts']);
