/** Migrates the database and fills it with the demo where it is empty. */
import { seedDemo } from '../src/demo/seed';
import { momentOn } from '../src/core/quantities/day';
import { moment, today, usualZone } from '../src/server/config';
import { inStore } from './in-store';

const zone = usualZone();
const day = today(zone);
/** On a fixed day it is always noon: what tests see does not hang on the hour. */
const now = process.env.PROPORTIA_TODAY ? momentOn(day, zone, '12:00') : moment(zone);

await inStore(
  async (db) =>
    (await seedDemo({ db, today: day, now, zone }))
      ? 'Demo data seeded.'
      : 'There are products already; nothing seeded.',
  'Proportia cannot start.',
);
