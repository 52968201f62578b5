/** Tasks that do themselves: a label that has to be issued anew. */
import { expect } from 'chai';
import type { Task } from '../../src/core/records/watch';
import { keepTask } from '../../src/server/services/watch/change-decide';
import { caller } from './call';
import { useDemo } from './database';

const go = caller({
  reissue: () => import('../../src/pages/api/v1/tasks/[id]/reissue'),
  issued: () => import('../../src/pages/api/v1/products/[id]/issued'),
});

/** What a refusal says. */
interface Refused {
  errors?: { path: string; code: string }[];
}

describe('tasks that are done in one step', () => {
  const demo = useDemo();

  it('issues the label a task speaks of anew, once, with what was weighed where it is of a batch', async () => {
    const count = async () => Number((await demo.db('issued_labels').count({ n: '*' }))[0]!.n);
    const make = (kind: Task['kind'], what: Task['what'], subject: string, market: string | null) =>
      keepTask(demo.db, demo.house.now, null, { kind, what, subject, market, words: 'Anew.', dueOn: null });
    interface Issued {
      id: string;
      market: string;
      productId: string;
      batchCode: string;
    }
    const products: string[] = await demo.db('products').pluck('id');
    let label: Issued | undefined;
    for (const id of products) {
      const made = await go<Issued>('issued', 'POST', { params: { id }, body: { market: 'EU' } });
      if (made.status === 201) label = made.body;
      else {
        // What stands in the way of a print is told, and nothing is made.
        const before = await count();
        const [batch] = await demo.db('batches').where('product_id', id).pluck<string[]>('id');
        if (!batch) continue;
        const task = await make('relabel', 'batch', batch, 'EU');
        const refused = await go<Refused>('reissue', 'POST', { params: { id: task.id } });
        expect([refused.status, await count()]).to.deep.equal([422, before]);
      }
    }
    const task = await make('reissue', 'issued', label!.id, 'EU');
    const before = await count();
    const asked = await go<{ task: Task; label: Issued }>('reissue', 'POST', { params: { id: task.id } });
    expect(asked.status, JSON.stringify(asked.body)).to.equal(201);
    expect(asked.body.label.id).to.not.equal(label!.id);
    expect(asked.body.label).to.deep.include({ productId: label!.productId, market: 'EU' });
    expect(asked.body.task.doneNote).to.contain(asked.body.label.id);
    expect(await count()).to.equal(before + 1);
    const again = await go<Refused>('reissue', 'POST', { params: { id: task.id } });
    expect([again.status, again.body.errors?.[0]?.code]).to.deep.equal([409, 'done']);
    for (const wrong of [
      await make('look', 'ahead', '', null),
      await make('reissue', 'issued', 'none', 'EU'),
      await make('relabel', 'batch', 'none', 'EU'),
      await make('relabel', 'batch', 'none', null),
    ]) {
      const refused = await go<Refused>('reissue', 'POST', { params: { id: wrong.id } });
      expect([refused.status, refused.body.errors?.[0]?.code]).to.deep.equal([422, 'no-label']);
    }
    expect((await go('reissue', 'POST', { params: { id: 'none' } })).status).to.equal(404);
  });
});
