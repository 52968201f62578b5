/**
 * `npm run assess -- file.json` (or `-` for standard input): answers an assessment request as the server
 * would, without one. The answer goes to standard output; faults go there as `{ "errors": [...] }` with exit
 * code 1. Stored materials are those of the database, where there is one, and of the starter library.
 */
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { dataFolder, today, usualZone } from '../src/server/config';
import { DATABASE_FILE, openDatabase } from '../src/server/database';
import { hostilePlace } from '../src/server/doors/shape';
import { assessValue } from '../src/server/services/worktable/assessment';
import { shippedStore, snapshotOf, type StoreSnapshot } from '../src/server/store/snapshot';

async function stored(): Promise<StoreSnapshot> {
  if (!existsSync(join(dataFolder(), DATABASE_FILE))) return shippedStore(today(usualZone()));
  const db = await openDatabase(dataFolder());
  try {
    return await snapshotOf(db, today(usualZone()));
  } finally {
    await db.destroy();
  }
}

function fail(code: string, message: string): never {
  console.log(JSON.stringify({ errors: [{ path: '', code, message }] }, null, 2));
  process.exit(1);
}

function readInput(file: string | undefined): unknown {
  if (!file) fail('no-file', 'Name a JSON file: npm run assess -- request.json');
  let text = '';
  try {
    text = readFileSync(file === '-' ? 0 : file, 'utf8');
  } catch {
    fail('no-file', `There is no file "${file}" that can be read.`);
  }
  try {
    return JSON.parse(text) as unknown;
  } catch {
    return fail('not-json', `"${file}" is not JSON.`);
  }
}

const input = readInput(process.argv[2]);
const hostile = hostilePlace(input);
const result = hostile ? { ok: false as const, errors: [hostile] } : assessValue(input, await stored());
console.log(JSON.stringify(result.ok ? result.assessment : { errors: result.errors }, null, 2));
process.exit(result.ok ? 0 : 1);
