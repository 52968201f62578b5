/** Packing many photographs holds a few of them in memory at a time, never all. */
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import Database from 'better-sqlite3';
import { expect } from 'chai';
import { packArchive } from '../../src/server/archive/pack-job';
import { DAY, useDemo } from './database';

const MB = 1e6;
const PHOTOGRAPHS = 30;
const PHOTOGRAPH = 2 * MB;
const NOON = `${DAY}T12:00:00.000Z`;

describe('an archive of many photographs', () => {
  const test = useDemo();

  it('is packed with a few of them in memory at a time', async () => {
    const file = join(test.folder, 'copy.sqlite');
    await test.db.raw('vacuum into ?', [file]);
    const db = new Database(file);
    const batch = db.prepare('select id from batches limit 1').pluck().get();
    const put = db.prepare(
      `insert into batch_photos (id, batch_id, at, mime, note, bytes) values (?, ?, ?, 'image/jpeg', '', ?)`,
    );
    for (let at = 0; at < PHOTOGRAPHS; at++) put.run(`photo-${at}`, batch, NOON, randomBytes(PHOTOGRAPH));
    db.close();
    // What is really held counts, without what nobody holds any more: that is swept where it would be too much.
    setFlagsFromString('--expose_gc');
    const sweep = runInNewContext('gc') as () => void;
    const bound = (PHOTOGRAPHS * PHOTOGRAPH) / 2;
    const held = () => process.memoryUsage().arrayBuffers;
    sweep();
    const before = held();
    let most = 0;
    const looking = setInterval(() => {
      if (held() - before >= bound) sweep();
      most = Math.max(most, held() - before);
    }, 20);
    const into = join(test.folder, 'archive.zip');
    const packed = await packArchive({ file, into, madeAt: NOON, bar: null, zone: 'UTC' });
    clearInterval(looking);
    expect(packed!.bytes).to.be.above(PHOTOGRAPHS * PHOTOGRAPH);
    expect(most).to.be.below(bound);
  });
});
