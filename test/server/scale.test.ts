/** Scales: lines of text as bridges send them, a real socket, and the stand-in behaving like a scale. */
import { createServer, type Server, type Socket } from 'node:net';
import { expect } from 'chai';
import { followScale, startFollowing, type Reading } from '../../src/core/weighing/follow';
import { readScaleLine } from '../../src/core/weighing/lines';
import { bridgeAddress, TcpScale } from '../../src/server/devices/scale-tcp';
import { StandInScale } from '../../src/server/devices/scale-stand-in';
import { SpoolPrinter } from '../../src/server/devices/printer';
import { StandInThermometer } from '../../src/server/devices/thermometer';

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

describe('a scale’s lines of text', () => {
  it('are read with their sign and unit, whatever stands before them', () => {
    const read = (text: string) => readScaleLine(text)?.g;
    expect(read('ST,+00123.4 g')).to.equal(123.4);
    expect(read('US,-0000.2 g')).to.equal(-0.2);
    expect(read('123.4 g')).to.equal(123.4);
    expect(read('  ST,GS,+  1.250kg\r')).to.equal(1250);
    expect(read('ST, 2.0 oz')).to.be.closeTo(56.699, 1e-3);
    expect(read('0.5 lb')).to.be.closeTo(226.796, 1e-3);
    expect(read('ST,+00123,4 g')).to.equal(123.4);
    expect(read('OL')).to.equal(null);
    const step = (text: string) => readScaleLine(text)?.stepG;
    expect([step('4.6 g'), step('4.60 g'), step('5 g'), step('0.250 kg')]).to.deep.equal([0.1, 0.01, 1, 1]);
    expect(step('0.05 oz')).to.be.closeTo(0.2835, 1e-4);
    for (const rubbish of [
      '',
      'hello',
      '12',
      '12 stone',
      'ST,,g',
      '1e9 g',
      '--',
      '\u0000\u0001',
      '12.5 g 13 g',
    ])
      expect(readScaleLine(rubbish)?.g ?? null, rubbish).to.equal(null);
  });

  it('come from an address that is one', () => {
    expect(bridgeAddress('tcp://127.0.0.1:4001')).to.deep.equal({ host: '127.0.0.1', port: 4001 });
    expect(bridgeAddress('tcp://[::1]:4001')).to.deep.equal({ host: '::1', port: 4001 });
    for (const wrong of ['', 'localhost:1', 'tcp://x', 'tcp://x:0', 'tcp://x:99999', 'http://x:1'])
      expect(bridgeAddress(wrong), wrong).to.equal(null);
  });
});

describe('a scale over TCP', () => {
  let server: Server;
  let sockets: Socket[] = [];
  let port = 0;
  const listen = (at = 0) =>
    new Promise<void>((resolve) => {
      server = createServer((socket) => sockets.push(socket));
      server.listen(at, '127.0.0.1', () => {
        port = (server.address() as { port: number }).port;
        resolve();
      });
    });
  beforeEach(() => listen());
  afterEach(() => {
    for (const socket of sockets) socket.destroy();
    sockets = [];
    server.close();
  });

  it('gives ten readings a second of the last line, takes lines in pieces and rubbish between them', async () => {
    const scale = new TcpScale(`tcp://127.0.0.1:${port}`);
    const heard: Reading[] = [];
    const stop = scale.listen((reading) => heard.push(reading));
    await wait(150);
    expect(heard.at(-1)).to.include({ g: null, state: 'unplugged' });
    sockets[0]!.write('ST,+001');
    sockets[0]!.write('23.4 g\r\nrubbish \u0000\r\n');
    sockets[0]!.write('x'.repeat(5000));
    await wait(250);
    expect(heard.at(-1)).to.include({ g: 123.4, state: 'ok' });
    sockets[0]!.write('\r\n-5 g\nOL\n');
    await wait(250);
    expect(heard.at(-1)).to.include({ g: null, state: 'overloaded' });
    const before = heard.length;
    await wait(1000);
    expect(heard.length - before).to.be.within(8, 11);
    stop();
    const silent = heard.length;
    await wait(300);
    expect(heard).to.have.length(silent);
  });

  it('is found again after the line was lost', async () => {
    const scale = new TcpScale(`tcp://127.0.0.1:${port}`);
    const heard: Reading[] = [];
    const stop = scale.listen((reading) => heard.push(reading));
    await wait(100);
    sockets[0]!.write('10 g\n');
    await wait(200);
    expect(heard.at(-1)!.g).to.equal(10);
    for (const socket of sockets) socket.destroy();
    sockets = [];
    await wait(1300);
    sockets[0]!.write('11 g\n');
    await wait(200);
    expect(heard.at(-1)!.g).to.equal(11);
    stop();
  });
});

describe('the stand-in for a scale', () => {
  it('wanders, settles on what is poured, goes blank unplugged, and is followed to the gram', async () => {
    const scale = new StandInScale();
    let state = startFollowing({ readabilityG: scale.readabilityG });
    const heard: Reading[] = [];
    const stop = scale.listen((reading) => {
      heard.push(reading);
      state = followScale(state, reading);
    });
    await wait(500);
    scale.do('pour', 50, 1.2);
    await wait(600);
    expect(state.settled).to.equal(false);
    await wait(3600);
    expect(scale.trueG).to.be.closeTo(50, 1e-6);
    expect(state.settled).to.equal(true);
    expect(state.heldG).to.be.closeTo(50, state.doubtG);
    expect(new Set(heard.slice(-20).map(({ g }) => g)).size).to.be.above(1);
    scale.do('unplug');
    await wait(250);
    expect(heard.at(-1)).to.include({ g: null, state: 'unplugged' });
    scale.do('plug');
    await wait(400);
    expect(state.question).to.include({ code: 'slept' });
    scale.do('load', 9000);
    await wait(1500);
    expect(heard.at(-1)!.state).to.equal('overloaded');
    stop();
  });
});

describe('the other stand-ins', () => {
  it('a thermometer cools from what it was dipped into towards the room', () => {
    let minutes = 0;
    const thermometer = new StandInThermometer(() => minutes * 60_000);
    thermometer.dip(70);
    expect(thermometer.read().c).to.be.closeTo(70, 0.5);
    minutes = 25;
    expect(thermometer.read().c).to.be.closeTo(21 + 49 / Math.E, 1);
    minutes = 600;
    expect(thermometer.read().c).to.be.closeTo(21, 0.5);
  });

  it('a label printer shows what it would print, newest first', () => {
    const printer = new SpoolPrinter();
    for (let count = 1; count <= 120; count++) printer.print(`label-${count}`, count, '2026-11-24T09:00:00Z');
    const jobs = printer.jobs();
    expect(jobs).to.have.length(100);
    expect(jobs[0]).to.include({ label: 'label-120', copies: 120, id: 120 });
  });
});
