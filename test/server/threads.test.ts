/** Jobs on threads: what takes too long is ended, what was given too little of the machine is waited for. */
import { expect } from 'chai';
import fc from 'fast-check';
import { JobEnded, onThread } from '../../src/server/jobs/threads';
import { hadItsTime } from '../../src/server/jobs/time-limit';

describe('the time of a job', () => {
  it('is over by the clock only once the process had as much of the machine, and a good while later anyway', () => {
    const ms = fc.nat(20_000);
    fc.assert(
      fc.property(ms, ms, ms, (limitMs, passedMs, givenMs) => {
        const isOver = hadItsTime({ limitMs, passedMs, givenMs });
        if (passedMs < limitMs) expect(isOver).to.equal(false);
        else if (givenMs >= limitMs || passedMs - limitMs >= 5000) expect(isOver).to.equal(true);
        else expect(isOver).to.equal(false);
      }),
      { numRuns: 500 },
    );
  });

  it('ends a job where the machine was ours, and leaves one alone that was starved of it', async () => {
    let isBusy = true;
    const work = () => {
      const until = performance.now() + 20;
      while (performance.now() < until);
      if (isBusy) setImmediate(work);
    };
    // What only waits takes nothing of the machine: let be while this process idles, ended while it is busy.
    expect(await onThread('ready', 700, { limitMs: 300 })).to.equal(true);
    work();
    const fault = await onThread('ready', 20_000, { limitMs: 300 }).catch((error: unknown) => error);
    isBusy = false;
    expect(fault).to.be.instanceOf(JobEnded);
    expect((fault as JobEnded).reason).to.equal('time');
  });
});
