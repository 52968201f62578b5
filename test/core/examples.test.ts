import { expect } from 'chai';
import { readdirSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';

const CORE = 'src/core';
/** An example of one line: a call and, behind two strokes, what it answers. */
const ONE_LINE = /@example (.+?) \/\/ (.+)$/gm;
const FEWEST = 15;

const evaluated = (code: string, names: Record<string, unknown>): unknown =>
  new Function(...Object.keys(names), `return (${code});`)(...Object.values(names));

describe('examples in the core', () => {
  const files = readdirSync(CORE, { recursive: true, encoding: 'utf8' }).filter((name) =>
    name.endsWith('.ts'),
  );
  const examples = files.flatMap((name) =>
    [...readFileSync(`${CORE}/${name}`, 'utf8').matchAll(ONE_LINE)].map(([, call, answer]) => ({
      name,
      call: call!,
      answer: answer!,
    })),
  );

  it('are there', () => expect(examples.length).to.be.at.least(FEWEST));

  for (const { name, call, answer } of examples)
    it(`${call} gives what its comment says`, async () => {
      const doors = (await import(pathToFileURL(resolve(CORE, name)).href)) as Record<string, unknown>;
      expect(evaluated(call, doors)).to.deep.equal(evaluated(answer, {}));
    });
});
