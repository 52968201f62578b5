import { openHouse } from '../../../../../server/house';
import { endpoint, onlyMethods } from '../../../../../server/http';
import { calendarFeed } from '../../../../../server/services/rack/calendar';

export const GET = endpoint(async ({ params }) => {
  const key = (params.key ?? '').replace(/\.ics$/, '');
  return new Response(await calendarFeed(await openHouse(), key), {
    headers: { 'content-type': 'text/calendar; charset=utf-8', 'cache-control': 'no-store' },
  });
});

export const ALL = onlyMethods('GET');
