/** The demo, seeded once for all tests of a run and copied for each that wants a house of its own. */
import { execFileSync } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** The day all tests take as today. */
export const FIXED_DAY = '2026-11-24';
const FOLDER = 'PROPORTIA_SEEDED';

/** Seeds it; processes that are started afterwards know where. Answers how to take it away again. */
export function seedOnce(): () => void {
  const folder = mkdtempSync(join(tmpdir(), 'proportia-seeded-'));
  const env = { ...process.env, PROPORTIA_DATA: folder, PROPORTIA_TODAY: FIXED_DAY, PROPORTIA_ZONE: 'UTC' };
  execFileSync(process.execPath, ['--import=tsx', 'scripts/seed.ts'], { env, stdio: 'ignore' });
  process.env[FOLDER] = folder;
  return () => rmSync(folder, { recursive: true, force: true });
}

/** A folder with the demo in it. */
export function seededFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
  const seeded = process.env[FOLDER];
  if (!seeded) throw new Error('Nothing was seeded for these tests: seedOnce() comes first.');
  cpSync(seeded, folder, { recursive: true, filter: (path) => !path.endsWith('.lock') });
  return folder;
}
