/** What every page is told of the house before it is drawn. */
import { defineMiddleware } from 'astro:middleware';
import { USUAL_HABITS } from './core/records/house';
import { openHouse } from './server/house';
import { habitsOf } from './server/services/house';

export const onRequest = defineMiddleware(async ({ locals, url }, next) => {
  // A house that cannot be opened is told of by the page itself.
  const isPage = !url.pathname.startsWith('/api/');
  locals.habits = isPage ? await openHouse().then(habitsOf, () => USUAL_HABITS) : USUAL_HABITS;
  return next();
});
