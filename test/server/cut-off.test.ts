/** A program that is killed while it begins a house or brings an older one up: the next start finishes it, whole. */
import { spawn } from 'node:child_process';
import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import Database from 'better-sqlite3';
import { expect } from 'chai';
import { DATABASE_FILE, openDatabase } from '../../src/server/database';
import { migrationSource } from '../../src/server/migrations';
import { many } from '../support/many';

const TRIES = many(3, 50);
const OPEN = `
  import { openDatabase } from './src/server/database.ts';
  process.send('begins');
  await openDatabase(process.argv[1]);
  process.send('done');
`;

/** Opens a folder in a program of its own and kills it after a part of the time that takes. */
async function openedAndKilled(folder: string, afterMs: number): Promise<void> {
  const child = spawn(process.execPath, ['--import=tsx', '--input-type=module', '-e', OPEN, folder], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  const ended = new Promise((resolve) => child.once('exit', resolve));
  await new Promise((resolve) => child.once('message', resolve));
  await wait(afterMs);
  child.kill('SIGKILL');
  await ended;
}

/** What a house is made of and holds. */
function heldIn(folder: string): unknown {
  const db = new Database(join(folder, DATABASE_FILE), { readonly: true });
  db.function('folded', (text: unknown) => String(text));
  try {
    return {
      made: db.prepare('select name, sql from sqlite_master order by name').all(),
      bars: db.prepare('select id, body from products order by id').all(),
      sound: db.pragma('integrity_check', { simple: true }),
    };
  } finally {
    db.close();
  }
}

/** Kills at moments spread over the time that opening takes; each time the next start ends where one in peace does. */
async function holds(prepared: () => string): Promise<void> {
  const inPeace = prepared();
  const began = Date.now();
  await (await openDatabase(inPeace)).destroy();
  const tookMs = Date.now() - began;
  for (let at = 0; at < TRIES; at++) {
    const folder = prepared();
    await openedAndKilled(folder, (1.6 * tookMs * (at + 0.5)) / TRIES);
    await (await openDatabase(folder)).destroy();
    expect(heldIn(folder)).to.deep.equal(heldIn(inPeace));
    rmSync(folder, { recursive: true, force: true });
  }
  rmSync(inPeace, { recursive: true, force: true });
}

const emptyFolder = () => mkdtempSync(join(tmpdir(), 'proportia-'));

describe('a program killed at its start', () => {
  it('while it begins a house leaves none, or a whole one', () => holds(emptyFolder));

  it('while it brings an older house up leaves it to be brought up again', async () => {
    const old = emptyFolder();
    const db = await openDatabase(old);
    await db('products').insert({ id: 'a', name: 'Öl & Salz', position: 0, body: '{"id":"a"}' });
    for (const wanted of [
      '013-sold',
      '012-complaints',
      '011-made-lots',
      '010-standings',
      '009-change-counts',
      '008-search',
    ]) {
      const [, [undone]] = (await db.migrate.down({ migrationSource })) as [number, string[]];
      expect(undone).to.equal(wanted);
    }
    await db.destroy();
    await holds(() => {
      const folder = emptyFolder();
      cpSync(old, folder, { recursive: true });
      return folder;
    });
    rmSync(old, { recursive: true, force: true });
  });
});
