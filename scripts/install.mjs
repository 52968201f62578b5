/** Installs what the lockfile names unless that very lockfile is installed already. No dependencies. */
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

const STAMP = 'node_modules/.proportia-lock';

/** Runs a command with its output shown; throws where it fails. */
export function run(command, args, options = {}) {
  execFileSync(command, args, { stdio: 'inherit', ...options });
}

/** Where no prebuilt driver can be fetched it is compiled, by the headers that came with this Node rather than fetched ones. */
function withHeaders() {
  const prefix = dirname(dirname(process.execPath));
  const isThere = existsSync(join(prefix, 'include/node/node_api.h'));
  return isThere ? { npm_config_nodedir: prefix, ...process.env } : process.env;
}

/** Makes node_modules what package-lock.json says; quick when it is so already. */
export function ensureInstalled() {
  const wanted = createHash('sha256')
    .update(readFileSync('package-lock.json'))
    .update(process.version)
    .digest('hex');
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return;
  console.log('Installing what package-lock.json names (a few minutes the first time)…');
  // Not `npm ci`: it refuses a lockfile written where the registry lacks other platforms' optional parts.
  run('npm', ['install', '--no-save', '--no-audit', '--no-fund'], { env: withHeaders() });
  writeFileSync(STAMP, wanted);
}
