/** Questions in words at their door, held against what the demo house holds by other ways of reckoning it. */
import { expect } from 'chai';
import { formulaFacts } from '../../src/core/claims/facts';
import type { AskAnswer } from '../../src/core/records/ask';
import { allLots } from '../../src/server/repositories/lots';
import { batchesDrawing } from '../../src/server/repositories/batches';
import { assessEverywhere } from '../../src/server/store/assessed';
import { listBatches } from '../../src/server/store/batches';
import { productNames } from '../../src/server/repositories/products';
import { caller } from './call';
import { useDemo } from './database';

const go = caller({ ask: () => import('../../src/pages/api/v1/ask') });

describe('a question in words', () => {
  const demo = useDemo();
  const ask = async (question: string) =>
    (await go<{ asked: AskAnswer | null }>('ask', 'GET', { query: `?q=${encodeURIComponent(question)}` }))
      .body.asked;
  const titles = async (question: string) => (await ask(question))!.rows.map(({ title }) => title).sort();
  /** Every bar of the demo with its assessment and materials, as the worktable has them. */
  const bars = async () =>
    Promise.all(
      (await productNames(demo.db)).map(async ({ id, name }) => ({
        ...{ id, name },
        ...(await assessEverywhere(demo.house, id)),
      })),
    );

  it('finds bars by what is in them and how they stand, as their assessments say', async () => {
    const all = await bars();
    const clayPct = ({ version, materials, assessment }: (typeof all)[number]) =>
      version.formula.lines
        .map(
          (line, at) => [line.id, materials.find(({ id }) => id === line.material) ?? materials[at]] as const,
        )
        .filter(([, material]) => material?.kind === 'clay')
        .reduce((sum, [id]) => sum + assessment.lines.find((one) => one.id === id)!.pctFats, 0);
    const withClay = all.filter((bar) => clayPct(bar) > 0);
    expect(withClay.length).to.be.within(1, all.length - 1);
    expect(await titles('bars with clay')).to.deep.equal(withClay.map(({ name }) => name).sort());
    const little = withClay.filter((bar) => clayPct(bar) <= 3).map(({ name }) => name);
    expect(await titles('bars with clay under 3 %')).to.deep.equal(little.sort());
    const clear = all.filter(
      ({ product, assessment }) =>
        product.markets.includes('US') &&
        assessment.markets.find(({ market }) => market === 'US')!.verdict === 'clear',
    );
    expect(await titles('clear in the US')).to.deep.equal(clear.map(({ name }) => name).sort());
  });

  it('says of what cannot be told that it cannot, and counts it apart', async () => {
    const answer = (await ask('palm free bars'))!;
    const standing = new Map(
      (await bars()).map(({ name, materials }) => [
        name,
        formulaFacts(materials.map((material) => ({ material }))).find(({ id }) => id === 'palmFree')!
          .standing,
      ]),
    );
    for (const { title, words } of answer.rows)
      expect(words.startsWith('cannot be told'), title).to.equal(standing.get(title) === 'open');
    expect(answer.rows.some(({ title }) => standing.get(title) === 'contradicted')).to.equal(false);
    expect(answer.open).to.equal(answer.rows.filter(({ words }) => words.startsWith('cannot')).length);
    expect(answer.open).to.be.above(0);
  });

  it('finds batches by day, state, bar and lot', async () => {
    const batches = await listBatches(demo.house, { state: null, product: null });
    const since = batches.filter(({ pouredAt, state }) => state === 'curing' && pouredAt! >= '2026-10-01');
    const answer = (await ask('curing since October'))!;
    expect(answer.subject).to.equal('batches');
    expect(answer.understood.map(({ says }) => says)).to.deep.equal(['curing', 'poured from 2026-10-01 on']);
    expect(answer.count).to.equal(since.length);
    const lots = await allLots(demo.db);
    let tried = 0;
    for (const { id, code } of lots) {
      const drawn = await batchesDrawing(demo.db, id);
      if (drawn.length === 0 || lots.filter((one) => one.code === code).length > 1 || tried++ > 3) continue;
      const found = (await ask(`batches with lot ${code}`))!;
      expect(found.rows.map((one) => one.id).sort(), code).to.deep.equal([...drawn].sort());
    }
    expect(tried).to.be.above(1);
  });

  it('tells what is left of a lot, what it did not read, and that other words are no question', async () => {
    const [lot] = (await allLots(demo.db)).filter(({ leftG }) => leftG > 0);
    const answer = (await ask(`what is left of lot ${lot!.code}`))!;
    expect(answer.subject).to.equal('lots');
    expect(answer.rows[0]!.title).to.contain(lot!.code);
    expect(answer.rows[0]!.words).to.contain('left');
    expect((await ask('vegan bars with clay and glitter'))!.unread).to.deep.equal(['glitter']);
    for (const text of ['', 'hello there', 'night train to nowhere', '%'.repeat(300)])
      expect(await ask(text), text).to.equal(null);
  });
});
