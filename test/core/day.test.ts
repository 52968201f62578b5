/** Days, moments and zones: worked cases at the edges, and properties over the whole of a century. */
import { expect } from 'chai';
import fc from 'fast-check';
import {
  byMoment,
  clockOf,
  dayAfter,
  dayOf,
  daysBetween,
  isBefore,
  isZone,
  laterOf,
  momentOn,
  monthsAfter,
  realDay,
} from '../../src/core/quantities/day';

const ZONES = [
  'UTC',
  'Europe/Berlin',
  'America/Los_Angeles',
  'Pacific/Auckland',
  'Asia/Kolkata',
  'Pacific/Kiritimati',
];
const aZone = fc.constantFrom(...ZONES);
const aDay = fc
  .date({ min: new Date('1990-01-01T00:00:00Z'), max: new Date('2089-12-31T00:00:00Z'), noInvalidDate: true })
  .map((date) => date.toISOString().slice(0, 10));

describe('days and moments', () => {
  it('a moment falls on the day of the zone, east and west of UTC, on whatever offset it was written', () => {
    const late = '2026-11-29T23:30:00Z';
    expect(ZONES.map((zone) => dayOf(late, zone))).to.deep.equal([
      '2026-11-29',
      '2026-11-30',
      '2026-11-29',
      '2026-11-30',
      '2026-11-30',
      '2026-11-30',
    ]);
    expect(dayOf('2026-11-30T04:30:00+05:00', 'UTC')).to.equal('2026-11-29');
    expect(clockOf('2026-07-01T22:05:00Z', 'Asia/Kolkata')).to.equal('03:35');
  });

  it('the clock of a zone on a day leads back to that day and clock, over every change of the clocks', () => {
    fc.assert(
      fc.property(aDay, aZone, fc.integer({ min: 4, max: 23 }), (day, zone, hour) => {
        const clock = `${String(hour).padStart(2, '0')}:15`;
        const at = momentOn(day, zone, clock);
        expect([at.endsWith('Z'), dayOf(at, zone), clockOf(at, zone)]).to.deep.equal([true, day, clock]);
      }),
    );
  });

  it('days are added and counted without any clock', () => {
    expect(dayAfter('2026-03-28', 2)).to.equal('2026-03-30');
    expect(dayAfter('2024-03-01', -1)).to.equal('2024-02-29');
    fc.assert(
      fc.property(aDay, fc.integer({ min: -5000, max: 5000 }), (day, days) => {
        expect(daysBetween(day, dayAfter(day, days))).to.equal(days);
      }),
    );
  });

  it('months end where a month has no such day', () => {
    expect(monthsAfter('2026-01-31', 1)).to.equal('2026-02-28');
    expect(monthsAfter('2027-12-31', 2)).to.equal('2028-02-29');
    expect(monthsAfter('2026-08-31', 24)).to.equal('2028-08-31');
  });

  it('moments are compared as moments, not as texts', () => {
    const [noon, earlier] = ['2026-11-24T12:00:00Z', '2026-11-24T12:30:00+01:00'];
    expect(isBefore(earlier, noon)).to.equal(true);
    expect([noon, earlier].sort(byMoment)).to.deep.equal([earlier, noon]);
    expect(laterOf(noon, earlier)).to.equal(noon);
  });

  it('knows what is a day and what is a zone', () => {
    expect([
      realDay(2026, 2, 29),
      realDay(2028, 2, 29),
      realDay(2026, 13, 1),
      realDay(2026, 4, 31),
    ]).to.deep.equal([null, '2028-02-29', null, null]);
    expect(ZONES.every(isZone)).to.equal(true);
    expect(['Mars/Base', '+05:00', '', 'x'.repeat(200), 7, null].some(isZone)).to.equal(false);
  });
});
