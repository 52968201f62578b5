/** Twin pours: a batch beside the one it should match. */
import { expect } from 'chai';
import { besideTwin, matchNote, minutesSinceJoin, storyOf, twinCode } from '../../src/core/batch/twin';
import type { Batch } from '../../src/core/batch/types';

const then = {
  code: 'NM-1',
  startedAt: '2026-11-01T09:00:00Z',
  temperatures: [
    { of: 'lye', c: 45, at: '2026-11-01T09:10:00Z' },
    { of: 'lye', c: 38, at: '2026-11-01T09:30:00Z' },
    { of: 'fats', c: 41, at: '2026-11-01T09:31:00Z' },
  ],
  stepsDone: [{ step: 'join', at: '2026-11-01T09:40:00Z', by: null }],
  poured: { at: '2026-11-01T09:54:00Z', moulds: [], leftoverG: 0 },
  rested: 'leave',
  notes: [
    { at: '', by: null, text: 'Scent in: It thickened fast', for: 'record' },
    { at: '', by: null, text: matchNote('NM-0'), for: 'record' },
  ],
} as unknown as Batch;

describe('twin pours', () => {
  it('tell how the other went: the last of each warmth, minutes in the pot, what was told', () => {
    expect(storyOf(then)).to.deep.include({
      code: 'NM-1',
      temperatures: [
        { of: 'lye', c: 38 },
        { of: 'fats', c: 41 },
      ],
      minutes: 14,
      told: ['Scent in: It thickened fast'],
    });
    expect(storyOf({ ...then, poured: null }).minutes).to.equal(null);
    expect(minutesSinceJoin({ stepsDone: [] }, then.startedAt)).to.equal(null);
  });

  it('say how much warmer or cooler it is now, and what is not measured yet', () => {
    const now = { temperatures: [{ of: 'lye' as const, c: 35, at: '' }] };
    expect(besideTwin(now, storyOf(then))).to.deep.equal([
      { of: 'lye', thenC: 38, nowC: 35, warmerC: -3 },
      { of: 'fats', thenC: 41, nowC: null, warmerC: null },
    ]);
  });

  it('know which one was named, the last word counts', () => {
    expect(twinCode(then)).to.equal('NM-0');
    expect(twinCode({ notes: [] })).to.equal(null);
    const note = (text: string) => ({ at: '', by: null, text, for: 'record' });
    expect(twinCode({ notes: [note(matchNote('A-1')), note(matchNote('B-2'))] })).to.equal('B-2');
  });
});
