/** Jobs that were ended, told in words instead of thrown. */
import { fault } from '../http';
import { JobEnded } from './ended';

/** What to say of a job that was ended, by why. */
const ENDED: Record<JobEnded['reason'], { status: number; message: string }> = {
  time: {
    status: 422,
    message: 'This takes too long to make. Ask for less of it: shorter texts, a simpler picture.',
  },
  memory: { status: 422, message: 'This is too large to make. Ask for less of it.' },
  crowd: { status: 429, message: 'Too much is asked for at once. Try again in a moment.' },
};

/** Waits for a job; one that was ended becomes a fault in words. */
export function told<T>(job: Promise<T>, path: string): Promise<T> {
  return job.catch((error: unknown) => {
    if (!(error instanceof JobEnded)) throw error;
    const { status, message } = ENDED[error.reason];
    throw fault(status, 'too-much', message, path);
  });
}
