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

  it('takes every paper of a mail by itself, its words where there is none, and tells what it leaves out', async () => {
    const part = (name: string, type: string, text: string, how = 'attachment') =>
      `--b\r\nContent-Type: ${type}; name="${name}"\r\nContent-Transfer-Encoding: base64\r\nContent-Disposition: ${how}; filename="${name}"\r\n\r\n${Buffer.from(text).toString('base64')}\r\n`;
    const mail = (...parts: string[]) =>
      `From: a@weir.example\r\nTo: b@box.example\r\nSubject: papers\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n--b\r\nContent-Type: text/plain\r\n\r\nProtein below 0.3 ppm, as asked.\r\n${parts.join('')}--b--\r\n`;
    const before = await names();
    const fresh = async () => {
      const now = await look();
      return [
        now.papers.map(({ fileName }) => fileName).filter((name) => !before.includes(name)),
        now.leftOut,
      ];
    };
    put(
      'answer.eml',
      mail(
        part('WS-77.pdf', 'application/pdf', '%PDF-1.4 seventy-seven'),
        part('WS-77-A.csv', 'text/csv', 'Linalool,0.4'),
        part('logo.png', 'image/png', 'a picture', 'inline'),
        part('terms.doc', 'application/msword', 'Terms.'),
      ),
    );
    const left = [
      {
        fileName: 'answer.eml: terms.doc',
        why: 'This is a document of the older kind. Save it as .docx or PDF, and bring that.',
      },
    ];
    expect(await fresh()).to.have.deep.members([['WS-77-A.csv', 'WS-77.pdf'], left]);
    // The same attachment saved beside it is the same paper; looked at again, what was left out is still told.
    put('WS-77 saved.pdf', '%PDF-1.4 seventy-seven');
    expect((await fresh())[1]).to.deep.equal(left);
    put('words.eml', mail(part('logo.png', 'image/png', 'a picture', 'inline')));
    put('void.eml', '\r\n');
    const [papers, out] = await fresh();
    expect(papers).to.have.members(['WS-77-A.csv', 'WS-77.pdf', 'words.eml.txt']);
    expect(out).to.deep.include({
      fileName: 'void.eml',
      why: 'There is no paper in this mail, and no words.',
    });
    const words = (await look()).papers.find(({ fileName }) => fileName === 'words.eml.txt')!;
    const answer = await (
      await import('../../src/pages/api/v1/inbox/[id]')
    ).GET({ params: { id: words.id } } as never);
    expect(await answer.text()).to.match(/Protein below 0.3 ppm/);
    ['answer.eml', 'void.eml', 'words.eml'].forEach((name) => rmSync(join(folder, name)));
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
