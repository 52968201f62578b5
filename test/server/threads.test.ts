/** Jobs on threads: what takes too long is ended and told as that, and the thread is there again for the next. */
import { expect } from 'chai';
import { HttpFault } from '../../src/server/http';
import { told } from '../../src/server/jobs/told';
import { JobEnded } from '../../src/server/jobs/ended';
import { onThread } from '../../src/server/jobs/threads';

describe('the time of a job', () => {
  it('ends a job at its limit, says so in words, and takes the next', async () => {
    const fault = await onThread('ready', 20_000, { limitMs: 300 }).catch((error: unknown) => error);
    expect(fault).to.be.instanceOf(JobEnded);
    expect((fault as JobEnded).reason).to.equal('time');
    const inWords = await told(onThread('ready', 20_000, { limitMs: 300 }), 'wrap').catch(
      (error: unknown) => error,
    );
    expect(inWords).to.be.instanceOf(HttpFault);
    expect((inWords as HttpFault).status).to.equal(422);
    expect(await onThread('ready', 50, { limitMs: 5000 })).to.equal(true);
  });

  it('counts from when the job begins, not while it waits at a busy thread or its code is loaded', async () => {
    const busy = Array.from({ length: 8 }, () => onThread('ready', 700, { ahead: true }));
    const last = onThread('ready', 20, { ahead: true, limitMs: 400 });
    expect(await Promise.all([...busy, last])).to.have.members(Array.from({ length: 9 }, () => true));
  });

  it('ends a job that nobody waits for any more, without calling it too long', async () => {
    const leaving = new AbortController();
    const job = onThread('ready', 20_000, { signal: leaving.signal }).catch((error: unknown) => error);
    setTimeout(() => leaving.abort(), 200);
    expect(await job).not.to.be.instanceOf(JobEnded);
  });
});
