/** The folder that is looked into for papers: each content once, whole, and nothing that is no paper. */
import { expect } from 'chai';
import { mkdtempSync, rmSync, symlinkSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Attention } from '../../src/core/hands/hand';
import type { Inbox } from '../../src/core/records/papers';
import { caller } from './call';
import { useDemo } from './database';

const go = caller({
  inbox: () => import('../../src/pages/api/v1/inbox'),
  attention: () => import('../../src/pages/api/v1/attention'),
  paper: () => import('../../src/pages/api/v1/inbox/[id]'),
});

describe('the folder of letters', () => {
  const demo = useDemo();
  let folder: string;
  before(() => {
    folder = mkdtempSync(join(tmpdir(), 'letters-'));
    process.env.PROPORTIA_LETTERS = folder;
  });
  after(() => {
    delete process.env.PROPORTIA_LETTERS;
    rmSync(folder, { recursive: true });
  });

  const look = async () => (await go<Inbox>('inbox', 'GET')).body;
  const names = async () => (await look()).papers.map(({ fileName }) => fileName);
  /** A file that was last written to a while ago. */
  const put = (name: string, text: string, secondsAgo = 60) => {
    const path = join(folder, name);
    writeFileSync(path, text);
    const then = Date.now() / 1000 - secondsAgo;
    utimesSync(path, then, then);
  };

  it('takes each content once, whatever it is called and however often it is looked at', async () => {
    const waiting = async () => (await go<Attention>('attention', 'GET')).body['Paper tray']?.count ?? 0;
    const wait = await waiting();
    const before = (await names()).length;
    put('CERT-12.txt', 'Certificate no. 12');
    put('The same again.txt', 'Certificate no. 12');
    put('CERT-13.PDF', '%PDF-1.4 thirteen');
    const [all, again] = await Promise.all([look(), look()]);
    expect([all.folder, all.leftOut]).to.deep.equal([folder, []]);
    for (const { papers } of [all, again, await look()]) expect(papers.length).to.be.at.most(before + 2);
    const { papers } = await look();
    expect(papers).to.have.length(before + 2);
    const came = papers.find(({ fileName }) => fileName === 'CERT-13.PDF')!;
    expect([came.mime, came.receivedOn, came.filedOn]).to.deep.equal([
      'application/pdf',
      demo.house.today,
      null,
    ]);
    const answer = await (
      await import('../../src/pages/api/v1/inbox/[id]')
    ).GET({ params: { id: came.id } } as never);
    expect(await answer.text()).to.equal('%PDF-1.4 thirteen');
    expect(await waiting()).to.equal(wait + 2);
    // Another content under a known name is another letter.
    put('CERT-12.txt', 'Certificate no. 12, corrected', 30);
    expect(await look().then((one) => one.papers)).to.have.length(before + 3);
  });

  it('waits for a file that is still being written, and leaves links, hidden files and other kinds alone', async () => {
    const before = await names();
    put('half.txt', 'Certif', 0);
    put('.hidden.txt', 'x');
    put('run-me.sh', 'rm -rf /');
    put('empty.pdf', '');
    symlinkSync('/etc/passwd', join(folder, 'passwd.txt'));
    const { papers, leftOut } = await look();
    expect(papers.map(({ fileName }) => fileName)).to.deep.equal(before);
    expect(leftOut.map(({ fileName }) => fileName).sort()).to.deep.equal(['empty.pdf', 'run-me.sh']);
    expect(leftOut.find(({ fileName }) => fileName === 'run-me.sh')!.why).to.contain('not read');
    put('half.txt', 'Certificate no. 14');
    expect(await names()).to.include('half.txt');
  });

  it('shows names without direction marks, and says where the folder cannot be looked into', async () => {
    put('gnp\u202ecert.txt', 'Certificate no. 15');
    expect(await names()).to.include('gnpcert.txt');
    process.env.PROPORTIA_LETTERS = join(folder, 'half.txt');
    const { papers, leftOut } = await look();
    expect(papers.length).to.be.above(0);
    expect(leftOut[0]!.why).to.contain('cannot be looked into');
    process.env.PROPORTIA_LETTERS = folder;
  });
});
