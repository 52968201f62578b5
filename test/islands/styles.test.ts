/** Styles stand beside their parts: the shared sheet holds what several places have, a module what its own parts use. */
import { readdirSync, readFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { expect } from 'chai';

const ROOT = 'src';
const SHEET = 'src/ui/theme.css';
/** What pages have: their frame, their words, what is printed of them; and a utility that a table asks for. */
const OF_PAGES = new Set(['page', 'measure-edge', 'prose-page', 'help-panel', 'print-sheet', 'table-auto']);

const files = (readdirSync(ROOT, { recursive: true }) as string[]).map((file) => join(ROOT, file));
const markup = new Map(
  files
    .filter((file) => /\.(tsx|astro)$/.test(file))
    .map((file) => [file, readFileSync(file, 'utf8')] as const),
);

const classesIn = (css: string) => {
  const plain = css.replaceAll(/\/\*[\s\S]*?\*\//g, '').replaceAll(/:global\([^)]*\)/g, '');
  const heads = plain.split('{').map((piece) => piece.slice(piece.lastIndexOf('}') + 1));
  return new Set(heads.flatMap((head) => [...head.matchAll(/\.([a-zA-Z][\w-]*)/g)].map(([, name]) => name!)));
};

/** The place of a file: an island's folder, pages, or the shared interface. */
const placeOf = (file: string) =>
  file
    .split('/')
    .slice(1, file.startsWith('src/islands') ? 3 : 2)
    .join('/');

describe('styles', () => {
  it('of one place alone do not stand in the shared sheet', () => {
    const known = [...classesIn(readFileSync(SHEET, 'utf8'))].filter((name) => !OF_PAGES.has(name));
    expect(known.length).to.be.above(15);
    const alone: string[] = [];
    for (const name of known) {
      const uses = new RegExp(`(?<![\\w-])${name}(?![\\w-])`);
      const places = new Set(
        [...markup].filter(([, text]) => uses.test(text)).map(([file]) => placeOf(file)),
      );
      if (places.size < 2 && !places.has('ui'))
        alone.push(`${name} is of ${[...places].join('') || 'nobody'}`);
    }
    expect(alone).to.deep.equal([]);
  });

  it('in a module are used by a part beside it or of the same kind', () => {
    const unused: string[] = [];
    for (const file of files.filter((one) => one.endsWith('.module.css'))) {
      const importers = [...markup].filter(([, text]) => text.includes(`/${basename(file)}'`));
      expect(importers.length, `${file} is used by nobody`).to.be.above(0);
      const isShared = dirname(file) === 'src/ui';
      for (const [from] of importers)
        expect(isShared || dirname(from).startsWith(dirname(file)), from).to.equal(true);
      for (const name of classesIn(readFileSync(file, 'utf8'))) {
        const isUsed = importers.some(([, text]) => new RegExp(`\\.${name}\\b`).test(text));
        if (!isUsed) unused.push(`${file} ${name}`);
      }
    }
    expect(unused).to.deep.equal([]);
  });
});
