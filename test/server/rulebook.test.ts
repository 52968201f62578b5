/** The rulebook over HTTP: read, noted at, out as a file and in again without touching anything; what falls due. */
import { expect } from 'chai';
import type { InlineEdition } from '../../src/core/change/types';
import type { AheadRow, ChangeView } from '../../src/core/records/watch';
import type { RulebookData } from '../../src/core/records/rulebook';
import { caller } from './call';
import { DAY, useDemo } from './database';

const ROUTES = {
  rulebook: () => import('../../src/pages/api/v1/rulebook'),
  notes: () => import('../../src/pages/api/v1/rulebook/notes'),
  own: () => import('../../src/pages/api/v1/rulebook/own/[id]'),
  changes: () => import('../../src/pages/api/v1/changes'),
  change: () => import('../../src/pages/api/v1/changes/[id]'),
  accept: () => import('../../src/pages/api/v1/changes/[id]/accept'),
  ahead: () => import('../../src/pages/api/v1/ahead'),
};

const go = caller(ROUTES);

async function accepted(change: unknown): Promise<ChangeView> {
  const { id } = (await go<{ id: string }>('changes', 'POST', { body: { change } })).body;
  for (;;) {
    const { body } = await go<ChangeView>('change', 'GET', { params: { id } });
    if (body.state === 'running') {
      await new Promise((resolve) => setTimeout(resolve, 20));
      continue;
    }
    expect((await go('accept', 'POST', { params: { id }, body: {} })).status).to.equal(200);
    return body;
  }
}

describe('the rulebook over HTTP', () => {
  useDemo();

  it('goes out as a file and comes in again under another name, touching nothing', async () => {
    const file = (await go<InlineEdition>('rulebook', 'GET', { query: '?as=file' })).body;
    expect(file.limits.length).to.be.above(50);
    const view = await accepted({ kind: 'edition', edition: { ...file, edition: 'again' } });
    expect(view.effects).to.deep.equal([]);
    const { body } = await go<RulebookData>('rulebook', 'GET');
    expect([body.edition, body.inForce, body.limits.length]).to.deep.equal([
      'again',
      'again',
      file.limits.length,
    ]);
    expect(body.editions).to.include(file.edition);
    const old = await go<RulebookData>('rulebook', 'GET', { query: `?edition=${file.edition}` });
    expect([old.body.edition, old.body.inForce]).to.deep.equal([file.edition, 'again']);
    expect((await go('rulebook', 'GET', { query: '?edition=none' })).status).to.equal(404);
  });

  it('keeps a note at a rule by its revision, and own limits until they are taken away', async () => {
    const { limits, revision } = (await go<RulebookData>('rulebook', 'GET')).body;
    const note = (text: string, from = revision) =>
      go<{ notes: Record<string, string>; revision: number }>('notes', 'PUT', {
        body: { revision: from, id: limits[0]!.id, text },
      });
    const kept = await note('Confirmed, 12 March');
    expect(kept.body.notes).to.deep.equal({ [limits[0]!.id]: 'Confirmed, 12 March' });
    expect((await note('Other')).status).to.equal(409);
    expect((await note('', kept.body.revision)).body.notes).to.deep.equal({});
    const limit = {
      id: 'own-shea',
      subject: { type: 'material', id: 'shea' },
      maxPct: 1,
      basis: 'cured',
      force: 'standard',
    };
    const { worse } = await accepted({ kind: 'limit', limit });
    expect(worse).to.be.above(0);
    const own = async () =>
      (await go<RulebookData>('rulebook', 'GET')).body.limits.filter(({ isOwn }) => isOwn);
    expect((await own()).map(({ id, name }) => [id, name])).to.deep.equal([['own-shea', 'Shea butter']]);
    expect((await go('own', 'DELETE', { params: { id: 'own-shea' } })).status).to.equal(200);
    expect((await go('own', 'DELETE', { params: { id: 'own-shea' } })).status).to.equal(404);
    expect(await own()).to.deep.equal([]);
  });

  it('looks ahead by two years: lists with the bars they touch, lots and opened oils, in order of their days', async () => {
    const { rows, until } = (await go<{ rows: AheadRow[]; until: string }>('ahead', 'GET')).body;
    expect(until).to.equal(`2028${DAY.slice(4)}`);
    expect(rows.map(({ on }) => on)).to.deep.equal(rows.map(({ on }) => on).sort());
    expect(rows.every(({ on }) => on <= until)).to.equal(true);
    const list = rows.find(({ kind }) => kind === 'list')!;
    expect([list.words, list.touches.length > 0]).to.deep.equal([list.words, true]);
    expect(list.words).to.match(/has? to name|have to name/);
    for (const kind of ['lot', 'opened'] as const)
      expect(
        rows.some((row) => row.kind === kind),
        kind,
      ).to.equal(true);
  });
});
