/** What was weighed is kept beside each batch, as its events have it; batches, versions and labels are touched by it. */
import { expect } from 'chai';
import { foldBatch } from '../../src/core/batch/fold';
import type { BatchEvent } from '../../src/core/batch/types';
import { weighedOf, type WeighedBatch } from '../../src/core/batch/weighed';
import { standsOf } from '../../src/core/change/effects';
import type { Change, Effect } from '../../src/core/change/types';
import type { Formula } from '../../src/core/formula/types';
import type { ChangeView } from '../../src/core/records/watch';
import { findProduct } from '../../src/server/repositories/products';
import { previewChange, viewChange } from '../../src/server/services/watch/changes';
import { storesOf } from '../../src/server/services/watch/change-store';
import { keepProductVersion } from '../../src/server/services/worktable/products';
import { useDemo } from './database';

describe('what was weighed, kept beside a batch', () => {
  const demo = useDemo();

  const stored = async () =>
    (await demo.db('batches').select('id', 'weighed')) as { id: string; weighed: string | null }[];

  it('is what folding its events gives, for every batch there is', async () => {
    const rows = await stored();
    let poured = 0;
    for (const { id, weighed } of rows) {
      const events: { body: string }[] = await demo.db('batch_events').where('batch_id', id).orderBy('seq');
      const batch = foldBatch(events.map(({ body }) => JSON.parse(body) as BatchEvent))!;
      const wanted = weighedOf(batch, 'UTC');
      expect(weighed === null ? null : JSON.parse(weighed), id).to.deep.equal(
        wanted === null ? null : JSON.parse(JSON.stringify(wanted)),
      );
      if (wanted) poured++;
    }
    expect(poured).to.be.within(10, rows.length - 1);
  });

  async function preview(change: Change): Promise<Effect[]> {
    const { id } = await previewChange(demo.house, change);
    for (;;) {
      const view: ChangeView = await viewChange(demo.house, id);
      if (view.state === 'done') return view.effects!;
      expect(view.state).to.equal('running');
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }

  /** How a formula stands in a market on both sides of a change. */
  async function both(
    change: Change,
    formula: Formula,
    effect: Effect,
    placedOn: WeighedBatch['releasedOn'] = {},
  ) {
    const { before, after } = await storesOf(demo.house, change);
    const { firstPlacedOn } = (await findProduct(demo.db, effect.product))!.product;
    const of = { markets: [effect.market], firstPlacedOn, placedOn };
    const day = demo.house.today;
    return [standsOf(of, formula, before, day)[0], standsOf(of, formula, after, day)[0]];
  }

  const STRICTER: Change = {
    kind: 'limit',
    limit: {
      id: 'own-violets',
      subject: { type: 'material', id: 'coal-and-violets' },
      maxPct: 1,
      basis: 'cured',
      force: 'standard',
    },
  };

  it('is what a change is held against: batches and kept versions equal two single assessments', async () => {
    const { revision } = (await findProduct(demo.db, 'night-mail'))!.version;
    await keepProductVersion(demo.house, 'night-mail', revision, 'Before the letter');
    const weighed = new Map((await stored()).map((row) => [row.id, row.weighed]));
    const effects = await preview(STRICTER);
    const seen = { batch: 0, version: 0 };
    for (const effect of effects) {
      if (effect.what === 'batch') {
        const { formula, releasedOn } = JSON.parse(weighed.get(effect.id)!) as WeighedBatch;
        expect([effect.before, effect.after], effect.name).to.deep.equal(
          await both(STRICTER, formula, effect, releasedOn),
        );
        seen.batch++;
      }
      if (effect.what === 'version') {
        const [product, number] = effect.id.split('/') as [string, string];
        const [{ formula }] = (await demo
          .db('formula_versions')
          .where({ product_id: product, number: Number(number) })) as [{ formula: string }];
        const wanted = await both(STRICTER, JSON.parse(formula) as Formula, effect);
        expect([effect.before, effect.after], effect.name).to.deep.equal(wanted);
        seen.version++;
      }
    }
    expect(seen.batch).to.be.above(1);
    expect(seen.version).to.be.above(0);
  });

  it('touches an issued label only where what stands on it would read differently', async () => {
    const labels: { id: string; market: string; body: string }[] = await demo.db('issued_labels').select();
    const { before } = await storesOf(demo.house, STRICTER);
    // A limit alone changes no word of a label.
    expect((await preview(STRICTER)).filter(({ what }) => what === 'issued')).to.deep.equal([]);
    const silent: Change = {
      kind: 'edition',
      edition: {
        edition: 'no names',
        dated: demo.house.today,
        title: 'No names at all',
        limits: before.limits.filter(({ force }) => force !== 'craft'),
        declarables: [],
      },
    };
    const touched = new Set(
      (await preview(silent)).filter(({ what }) => what === 'issued').map(({ id }) => id),
    );
    for (const { id, body } of labels) {
      const { content } = JSON.parse(body) as { content: { info: { id: string; text: string }[] } };
      const list = content.info.find((one) => one.id === 'ingredients')?.text ?? '';
      const namesAny = before.declarables.some(({ name }) => list.includes(name));
      if (namesAny) expect(touched.has(id), `${id}: ${list}`).to.equal(true);
    }
  });
});
