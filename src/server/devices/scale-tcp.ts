/** A real scale's bridge that sends lines of text over TCP; a line lost is made again. */
import { clockMs } from '../clock';
import { note } from '../log';
import { connect, type Socket } from 'node:net';
import type { Reading } from '../../core/weighing/follow';
import { seenWith, stepSeen } from '../../core/weighing/display';
import { readScaleLine } from '../../core/weighing/lines';
import { Ticker } from './ticker';

const RECONNECT_MS = 1000;
/** Without a line for so long, the display counts as blank. */
const SILENT_MS = 1500;
/** A line longer than this is no line of a scale. */
const LONGEST_LINE = 200;
/** Before a line came. */
const UNKNOWN_STEP_G = 1;

/** Where a bridge listens, from `tcp://HOST:PORT`; null where it is no such address. */
export function bridgeAddress(text: string): { host: string; port: number } | null {
  const match = /^tcp:\/\/(?:\[([0-9a-f:]+)\]|([^\s/:]+)):(\d{1,5})\/?$/i.exec(text.trim());
  const port = Number(match?.[3]);
  return match && port > 0 && port < 65_536 ? { host: (match[1] ?? match[2])!, port } : null;
}

export class TcpScale {
  private stepG = UNKNOWN_STEP_G;
  private seen: readonly number[] = [];
  private readonly ticker = new Ticker<Reading>(() => this.read(clockMs()));
  private socket: Socket | null = null;
  private rest = '';
  private last: { atMs: number; g: number | null; isStable: boolean | null } | null = null;
  private listeners = 0;
  private retry: NodeJS.Timeout | null = null;

  constructor(private readonly address: string) {
    if (!bridgeAddress(address))
      note('scale', `PROPORTIA_SCALE is "${address}"; write it as tcp://HOST:PORT. No scale is read.`);
  }

  /** As its lines show it: by their decimals, and coarser where they move in coarser steps. */
  get readabilityG(): number {
    return stepSeen(this.seen, this.stepG);
  }

  listen(hear: (reading: Reading) => void): () => void {
    if (this.listeners++ === 0) this.open();
    const stop = this.ticker.listen(hear);
    return () => {
      stop();
      if (--this.listeners > 0) return;
      if (this.retry) clearTimeout(this.retry);
      this.retry = null;
      this.socket?.destroy();
      this.socket = null;
    };
  }

  private open(): void {
    const at = bridgeAddress(this.address);
    if (!at) return;
    const socket = connect(at);
    this.socket = socket;
    this.rest = '';
    socket.setEncoding('utf8');
    socket.on('data', (text) => this.take(String(text)));
    // What went wrong ends in a close, and a close in another try.
    socket.on('error', () => undefined);
    socket.on('close', () => {
      if (this.socket !== socket || this.listeners === 0) return;
      this.retry = setTimeout(() => this.open(), RECONNECT_MS);
    });
  }

  private take(text: string): void {
    const lines = (this.rest + text).split(/\r\n|\r|\n/);
    this.rest = lines.pop()!.slice(-LONGEST_LINE);
    for (const line of lines) {
      if (line.length > LONGEST_LINE) continue;
      const read = readScaleLine(line);
      if (!read) continue;
      const nowMs = clockMs();
      // Two lines of one moment are two all the same.
      const atMs = this.last && this.last.atMs >= nowMs ? this.last.atMs + 1 : nowMs;
      this.last = { atMs, g: read.g, isStable: read.isStable };
      if (read.g === null || read.stepG === null) continue;
      // Another unit, or other decimals: what was seen before was another display.
      if (read.stepG !== this.stepG) [this.stepG, this.seen] = [read.stepG, []];
      this.seen = seenWith(this.seen, read.g, this.stepG);
    }
  }

  private read(nowMs: number): Reading {
    if (!this.last || nowMs - this.last.atMs > SILENT_MS) return { atMs: nowMs, g: null, state: 'unplugged' };
    // Told again ten times a second, it stays the reading of its own moment.
    const { g, atMs, isStable } = this.last;
    const state = g === null ? 'overloaded' : 'ok';
    return { atMs, g, state, ...(isStable === null ? {} : { isStable }) };
  }
}
