/**
 * Learns what claims are like (`npm run claims`) from the sentences on file, and writes it down. With `-- --held` each set is
 * read by what all others teach and the share that is read as it was classed is told, set by set; nothing is written.
 */
import { writeFileSync } from 'node:fs';
import { learnLikeness } from '../src/core/claims/learn';
import { likelyOf } from '../src/core/claims/likeness';
import { wordsOf } from '../src/core/claims/text';
import { SETS, setOf, taught } from './sayings';

const FILE = 'src/rulebook/claims/likeness.json';

function tellHeldBack(): void {
  for (const name of SETS) {
    const likeness = learnLikeness(taught(name));
    const set = setOf(name);
    const words = (say: string) => wordsOf(say).map(({ text }) => text);
    const right = set.filter(({ kind, say }) => likelyOf(likeness, words(say)).kind === kind).length;
    console.log(`${name}: ${right} of ${set.length}, ${((100 * right) / set.length).toFixed(0)} %`);
  }
}

function write(): void {
  const { bits, scale, bias, weights } = learnLikeness(taught());
  const text = Buffer.from(weights.buffer).toString('base64');
  const shown = bias.map((one) => Number(one.toFixed(4))).join(', ');
  const rows = [`"bits": ${bits}`, `"scale": ${scale}`, `"bias": [${shown}]`, `"weights": "${text}"`];
  writeFileSync(FILE, `{\n  ${rows.join(',\n  ')}\n}\n`);
  console.log(`Written to ${FILE}, ${Math.round(text.length / 1000)} kB.`);
}

if (process.argv.includes('--held')) tellHeldBack();
else write();
