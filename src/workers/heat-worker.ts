/** Reckons how a block heats off the main thread: the first curve at once, then the band, then the other ways. */
import { calibrate, isTold, knownFactor, type Measured } from '../core/heat/calibrate';
import { ensemble, type Band, type Known } from '../core/heat/ensemble';
import { simulate } from '../core/heat/simulate';
import type { Run } from '../core/heat/types';
import type { Mould } from '../core/making/size';
import {
  advise,
  bandsOfWays,
  pourOf,
  WAYS,
  type Advice,
  type Question,
  type WayBand,
} from '../core/heat/ways';

export interface HeatTask {
  question: Question;
  /** Earlier pours in the same mould, with what the thermometer said. */
  measured: readonly Measured[];
  /** The maker's own mould of single bars, where there is one. */
  single: Mould | null;
}

export interface Learnt {
  pours: number;
  rate: ReturnType<typeof knownFactor>;
  wall: ReturnType<typeof knownFactor>;
}

export type HeatReply =
  | { kind: 'first'; run: Run }
  | { kind: 'learnt'; learnt: Learnt }
  | { kind: 'progress'; done: number; of: number }
  | { kind: 'band'; band: Band }
  | { kind: 'ways'; ways: WayBand[]; advice: Advice | null }
  | { kind: 'failed'; message: string };

const RUNS = 100;
const RUNS_A_WAY = 30;
const TELL_EVERY = 5;

const tell = (reply: HeatReply) => postMessage(reply);

function learn(measured: readonly Measured[]): Known | null {
  const told = measured.filter(isTold);
  if (told.length === 0) return null;
  const known = calibrate(told);
  tell({
    kind: 'learnt',
    learnt: { pours: told.length, rate: knownFactor(known, 'rate'), wall: knownFactor(known, 'wall') },
  });
  return known;
}

function work({ question, measured, single }: HeatTask): void {
  const pour = pourOf(question);
  if (!pour) return tell({ kind: 'failed', message: 'The formula does not reckon yet.' });
  tell({ kind: 'first', run: simulate(pour, { withCut: true }) });
  const known = learn(measured);
  const of = RUNS + WAYS.length * RUNS_A_WAY;
  const count = (done: number) => {
    if (done % TELL_EVERY === 0) tell({ kind: 'progress', done, of });
  };
  const band = ensemble(pour, { runs: RUNS, known });
  let one = band.next();
  for (; !one.done; one = band.next()) count(one.value);
  tell({ kind: 'band', band: one.value });
  const others = bandsOfWays(question, { runs: RUNS_A_WAY, known, ...(single ? { single } : {}) });
  let next = others.next();
  for (; !next.done; next = others.next()) count(RUNS + next.value);
  tell({ kind: 'ways', ways: next.value, advice: advise(next.value) });
}

addEventListener('message', (event: MessageEvent<HeatTask>) => {
  try {
    work(event.data);
  } catch (error) {
    tell({ kind: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
});
