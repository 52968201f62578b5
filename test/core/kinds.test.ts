/** What comes in kinds: adding one fails to compile at every place that has to say something. */
import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { relative, resolve } from 'node:path';
import ts from 'typescript';

/** A kind more, and the files in which the compiler asks for it; each stands in docs/developing.md as well. */
const MORE = [
  {
    name: 'a market',
    file: 'src/core/formula/types.ts',
    was: "'CA', 'AU'] as const",
    is: "'CA', 'AU', 'ZZ'] as const",
    asked: [
      'src/core/file/index.ts',
      'src/core/ingredients/list.ts',
      'src/core/labels/heights.ts',
      'src/core/labels/manners.ts',
      'src/rulebook/telling.ts',
      'src/ui/words.ts',
    ],
  },
  {
    name: 'a kind of load',
    file: 'src/core/formula/types.ts',
    was: 'export const KINDS = [\n',
    is: "export const KINDS = [\n  'glitter',\n",
    asked: [
      'src/core/file/product.ts',
      'src/core/formula/scents.ts',
      'src/core/formula/stages.ts',
      'src/islands/worktable/edits.ts',
      'src/ui/words.ts',
    ],
  },
  {
    name: 'an event of the bench',
    file: 'src/core/batch/types.ts',
    was: 'export interface EventFields {\n',
    is: 'export interface EventFields {\n  sneezed: { loud: boolean };\n',
    asked: [
      'src/core/batch/admit.ts',
      'src/core/batch/fold.ts',
      'src/server/doors/batch.ts',
      'src/server/front/bench.ts',
      'src/ui/batch-words.ts',
    ],
  },
  {
    name: 'a kind of paper',
    file: 'src/core/paperwork/read.ts',
    was: "| 'unknown';",
    is: "| 'unknown' | 'poem';",
    asked: ['src/core/paperwork/read.ts'],
  },
  {
    name: 'a language of labels',
    file: 'src/core/labels/label-words.json',
    was: '"fr": {',
    is: '"zz": { "soap": "z" }, "fr": {',
    asked: ['src/core/labels/languages.ts', 'src/server/doors/wrap.ts'],
  },
];

/** The files of src in which the compiler finds a fault once one file reads otherwise. */
function asksWith(file: string, text: string): string[] {
  const { options, fileNames } = ts.getParsedCommandLineOfConfigFile(
    'tsconfig.json',
    {},
    {
      ...ts.sys,
      onUnRecoverableConfigFileDiagnostic: () => undefined,
    },
  )!;
  const host = ts.createCompilerHost(options);
  const read = host.readFile.bind(host);
  host.readFile = (name) => (resolve(name) === resolve(file) ? text : read(name));
  const roots = fileNames.filter((name) => !relative('.', name).startsWith('test'));
  const program = ts.createProgram(roots, { ...options, noEmit: true }, host);
  const files = program
    .getSourceFiles()
    .filter(({ fileName }) => relative('.', fileName).startsWith('src'))
    .filter((source) => program.getSemanticDiagnostics(source).length > 0);
  return files.map(({ fileName }) => relative('.', fileName)).sort();
}

describe('a kind more', () => {
  const howTo = readFileSync('docs/developing.md', 'utf8');
  for (const { name, file, was, is, asked } of MORE) {
    it(`${name} is asked for by the compiler wherever something hangs on it`, function () {
      // Each is a whole look at all types, some ten seconds: by hand, \`npm run deep\`.
      if (!process.env.PROPORTIA_DEEP) this.skip();
      const text = readFileSync(file, 'utf8');
      expect(text).to.include(was);
      expect(asksWith(file, text.replace(was, is))).to.deep.equal(asked);
    });

    it(`${name} has its places in docs/developing.md`, () => {
      const at = howTo.indexOf(`**Add ${name}.**`);
      const steps = howTo.slice(at, howTo.indexOf('\n\n', at));
      expect(at).to.be.above(0);
      for (const place of asked) expect(steps, name).to.include(place.split('/').slice(-2).join('/'));
    });
  }
});
