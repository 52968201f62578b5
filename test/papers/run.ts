/** `npm run papers -- FIRST COUNT`: prints so many made-up papers from a seed on, reads them, tells the figures. */
import { makePaper } from './layouts';
import { Press } from './print';
import { marksOf, tally, type Mark, type Tally } from './score';
import { truthOf } from './truth';

const [first = 1, count = 100, shown = 25] = process.argv.slice(2).map(Number);
const press = await Press.open();
const byField: Tally = new Map();
const wrong: (Mark & { seed: number; layout: string })[] = [];
for (let seed = first; seed < first + count; seed++) {
  const paper = makePaper(truthOf(seed));
  const marks = marksOf(paper, await press.read(paper.html));
  tally(marks, byField);
  const layout = `${paper.truth.language} ${paper.categoryLayout} ${paper.rowLayout}`;
  for (const mark of marks) if (mark.outcome !== 'right') wrong.push({ ...mark, seed, layout });
}
await press.close();
for (const { seed, layout, field, outcome, wanted, got } of wrong.slice(0, shown))
  console.log(`${seed} ${layout} | ${field} ${outcome}: wanted "${wanted}", got "${got}"`);
for (const [field, row] of byField) {
  const all = row.right + row.missing + row.asked + row.silent;
  console.log(JSON.stringify({ field, of: all, recall: Number((row.right / all).toFixed(4)), ...row }));
}
