/** A clock that was ahead and is set back: nothing stands still, nothing is kept for ever, nothing wanted is let go. */
import { X509Certificate } from 'node:crypto';
import { copyFileSync, mkdtempSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { createServer, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { mock } from 'node:test';
import { expect } from 'chai';
import type { Reading } from '../../src/core/weighing/follow';
import type { Backup, BackupReason, BackupsData } from '../../src/core/records/house';
import type { Inbox } from '../../src/core/records/papers';
import { keptByAge, overRoom } from '../../src/core/archive/keep';
import { backupFile, backupFolder, backupId, noteBackup } from '../../src/server/archive/backup-files';
import { StandInScale } from '../../src/server/devices/scale-stand-in';
import { TcpScale } from '../../src/server/devices/scale-tcp';
import { Access } from '../../src/server/front/access';
import { ownTls } from '../../src/server/front/tls';
import { backUpIfDue } from '../../src/server/services/house/backups';
import { caller } from './call';
import { useDemo } from './database';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const go = caller({
  backups: () => import('../../src/pages/api/v1/backups'),
  restore: () => import('../../src/pages/api/v1/backups/[id]/restore'),
  inbox: () => import('../../src/pages/api/v1/inbox'),
});
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Sets the clock back by an hour for as long as something is done; timers go on. */
async function setBack(does: () => Promise<void>): Promise<void> {
  const real = Date.now;
  Date.now = () => real() - HOUR;
  try {
    await does();
  } finally {
    Date.now = real;
  }
}

describe('a clock set back', () => {
  it('does not stop a scale: what is poured shows, and one gone silent is unplugged', async () => {
    const sockets: Socket[] = [];
    const server = createServer((socket) => sockets.push(socket)).listen(0, '127.0.0.1');
    await new Promise((resolve) => server.once('listening', resolve));
    const real = new TcpScale(`tcp://127.0.0.1:${(server.address() as { port: number }).port}`);
    const standIn = new StandInScale();
    const heard: Record<'real' | 'standIn', Reading[]> = { real: [], standIn: [] };
    const stops = [
      real.listen((reading) => heard.real.push(reading)),
      standIn.listen((reading) => heard.standIn.push(reading)),
    ];
    await wait(200);
    sockets[0]!.write('12.5 g\n');
    await wait(200);
    await setBack(async () => {
      standIn.do('load', 100);
      await wait(1900);
      expect(heard.real.at(-1)).to.include({ state: 'unplugged' });
      expect(heard.standIn.at(-1)!.g).to.be.closeTo(100, 1);
      const moments = heard.standIn.map(({ atMs }) => atMs);
      expect(moments).to.deep.equal([...moments].sort((a, b) => a - b));
    });
    for (const stop of stops) stop();
    for (const socket of sockets) socket.destroy();
    server.close();
  });

  it('keeps nobody in for longer, nor a code', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
    mock.timers.enable({ apis: ['Date'], now: Date.parse('2031-01-01T09:00:00Z') });
    try {
      const access = new Access(folder);
      const secret = access.begin('desk', 'a browser');
      const code = access.makeCode();
      mock.timers.setTime(Date.parse('2026-11-24T09:00:00Z'));
      expect(access.sessionOf(secret), 'still in').not.to.equal(null);
      expect(access.useCode(code)).to.equal(false);
      mock.timers.setTime(Date.parse('2027-11-24T09:00:00Z'));
      expect(access.sessionOf(secret), 'a year later').to.equal(null);
    } finally {
      mock.timers.reset();
      rmSync(folder, { recursive: true });
    }
  });

  it('makes an authority anew that begins only some day to come', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
    const now = Date.parse('2026-11-24T09:00:00Z');
    await ownTls(folder, ['localhost'], now + 400 * DAY);
    const { authority, cert } = await ownTls(folder, ['localhost'], now);
    for (const one of [authority!, cert])
      expect(Date.parse(new X509Certificate(one).validFrom)).to.be.at.most(now);
    rmSync(folder, { recursive: true });
  });

  it('counts backups of days to come neither as the newest nor against those made now', () => {
    const now = '2026-11-24T08:00:00.000Z';
    const ahead = ['2027-03-01T08:00:00Z', '2027-03-01T08:10:00Z', '2027-03-01T09:00:00Z'];
    expect([...keptByAge([...ahead, now], now)]).to.include(now);
    const backups = [...ahead, '2026-10-01T08:00:00Z', '2026-11-24T07:00:00Z', now].map((at) => ({
      at,
      bytes: 10,
    }));
    const gone = overRoom(backups, 30, now).map(({ at }) => at);
    expect(gone).to.have.members(ahead);
  });

  describe('in a house', () => {
    const demo = useDemo();
    const list = async () => (await go<BackupsData>('backups', 'GET')).body;
    /** Puts a backup there that was made while the clock was ahead. */
    async function madeAhead(at: string, reason: BackupReason): Promise<void> {
      const { body } = await go<Backup>('backups', 'POST');
      const folder = backupFolder(demo.folder);
      const id = backupId(at, reason);
      copyFileSync(backupFile(folder, body.id)!, backupFile(folder, id)!);
      noteBackup(folder, { ...body, id, at, reason });
    }

    it('goes on backing up by time, and says which backups lie ahead', async () => {
      await madeAhead('2028-01-01T08:00:00.000Z', 'byTime');
      await madeAhead('2028-01-01T09:00:00.000Z', 'byTime');
      expect(await backUpIfDue(demo.db, { version: null })).to.equal(null);
      const { lastGood, backups } = await list();
      expect(lastGood! < '2027').to.equal(true);
      expect(backups.filter(({ isAhead }) => isAhead)).to.have.length(2);
    });

    it('keeps the backup that is made before going back, though five of its kind lie ahead', async () => {
      for (const hour of [1, 2, 3, 4, 5]) await madeAhead(`2028-02-01T0${hour}:00:00.000Z`, 'beforeRestore');
      const { body: made } = await go<Backup>('backups', 'POST');
      const { status, body: before } = await go<Backup>('restore', 'POST', { params: { id: made.id } });
      expect(status).to.equal(200);
      expect((await list()).backups.map(({ id }) => id)).to.include(before.id);
    });

    it('takes a letter that was last written to some day to come', async () => {
      const folder = mkdtempSync(join(tmpdir(), 'letters-'));
      process.env.PROPORTIA_LETTERS = folder;
      const path = join(folder, 'CERT-99.txt');
      writeFileSync(path, 'Certificate no. 99');
      utimesSync(path, Date.now() / 1000 + 86_400, Date.now() / 1000 + 86_400);
      const { papers } = (await go<Inbox>('inbox', 'GET')).body;
      delete process.env.PROPORTIA_LETTERS;
      rmSync(folder, { recursive: true });
      expect(papers.map(({ fileName }) => fileName)).to.include('CERT-99.txt');
    });
  });
});
