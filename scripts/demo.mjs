/**
 * `npm run demo`: installs, builds, migrates, seeds and serves, each only where it is needed. With `PROPORTIA_EMPTY`
 * (`npm start`) nothing is seeded.
 */
import { spawn } from 'node:child_process';
import { ensureBuilt } from './build.mjs';
import { ensureInstalled, run } from './install.mjs';

const HOST = process.env.HOST || '127.0.0.1';
const PORT = process.env.PORT || '4321';

ensureInstalled();
await ensureBuilt();
try {
  if (!process.env.PROPORTIA_EMPTY) run(process.execPath, ['--import=tsx', 'scripts/seed.ts']);
} catch {
  // What stands in the way was said by the seeding itself.
  process.exit(1);
}

const server = spawn(process.execPath, ['dist/server/serve.mjs'], {
  stdio: 'inherit',
  env: { NODE_ENV: 'production', ...process.env, HOST, PORT },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));

const isHere = /^(?:localhost|127\.|::1)/.test(HOST);
const scheme = isHere || process.env.PROPORTIA_TLS === 'off' ? 'http' : 'https';

async function announce() {
  const at = HOST === '0.0.0.0' || HOST === '::' ? '127.0.0.1' : HOST;
  for (let tries = 0; tries < 100; tries++) {
    try {
      // Where it is encrypted, plain connections are led there: that, too, says that it listens.
      const answer = await fetch(`http://${at}:${PORT}/api/v1/health`, { redirect: 'manual' });
      if (answer.ok || answer.status === 308) {
        console.log(`\nProportia is ready: ${scheme}://${at}:${PORT}\n`);
        return;
      }
    } catch {
      // Not listening yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  console.error(`Proportia does not answer on port ${PORT}. Is another program using it?`);
}
await announce();
