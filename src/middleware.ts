/** What every page is told of the house before it is drawn. */
import { defineMiddleware } from 'astro:middleware';
import { machineZone } from './core/quantities/day';
import { USUAL_HABITS } from './core/records/house';
import { openHouse } from './server/house';
import { JobEnded } from './server/jobs/ended';
import { noteFault } from './server/log';
import { habitsOf } from './server/services/house/house';
import { tellHabits } from './ui/habits';

const usual = () => ({ ...USUAL_HABITS, zone: machineZone() });

export const onRequest = defineMiddleware(async ({ locals, url }, next) => {
  // A house that cannot be opened is told of by the page itself.
  const isPage = !url.pathname.startsWith('/api/');
  locals.habits = isPage ? await openHouse().then(habitsOf, usual) : usual();
  if (isPage) tellHabits(locals.habits);
  try {
    return await next();
  } catch (error) {
    // What took too long to draw is no fault of the page: the same look a moment later succeeds.
    if (!(error instanceof JobEnded)) throw error;
    noteFault(`job ${error.reason}`, error);
    return new Response('This took too long just now. Load the page again in a moment.', {
      status: 503,
      headers: { 'content-type': 'text/plain; charset=utf-8', 'retry-after': '3' },
    });
  }
});
