/** How a job on a thread may end before it is done. */

/** A job was ended because it took too long, needed too much memory, or too many others waited before it. */
export class JobEnded extends Error {
  constructor(readonly reason: 'time' | 'memory' | 'crowd') {
    super(`The job was ended: ${reason}.`);
  }
}
