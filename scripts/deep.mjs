/** `npm run deep`: unit and server tests with statistics by the thousand, of which `npm test` looks at a sample. */
import { ensureInstalled, run } from './install.mjs';

ensureInstalled();
run('npx', ['mocha', ...process.argv.slice(2)], { env: { ...process.env, PROPORTIA_DEEP: '1' } });
