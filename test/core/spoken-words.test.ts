/** No name of the code reaches a person: every sentence of the product is read for words that only a program would write. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from 'chai';
import ts from 'typescript';

/** Where sentences for people stand. */
const FOLDERS = [
  'src/core',
  'src/server',
  'src/islands',
  'src/ui',
  'src/workers',
  'src/library',
  'src/rulebook',
];
/** Statements and drawings, of which nothing is read. */
const NOT_SPOKEN = /server\/(?:migrations|repositories|labels\/svg)/;
/** Units, substances and names that are written like that by everybody. */
const USUAL = /^(?:mmolO?|naOH)$/;
/** A word with a capital in its middle. */
const CAMEL = /(?<![\w/.#-])[a-z]{2,}[A-Z]\w*(?![\w/])/g;
/** A field within a field. */
const DOTTED = /(?<![\w/@.-])[a-z]{3,}\.[a-z]{3,}[A-Za-z]*(?![\w/])/g;

function* filesOf(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesOf(path);
    else if (/\.tsx?$/.test(entry.name) && !NOT_SPOKEN.test(path)) yield path;
  }
}

/** Classes, selectors, addresses and statements are for programs. */
const isForPrograms = (text: string) =>
  /^(?:[\w./:*?=&{}$-]+)$/.test(text) ||
  /\b(?:select|insert|update|delete|create|pragma|with|from|order by|json_|coalesce)\b.*[(),=*]|^\s*(?:select|with|insert|and|where|left join|case|exists)\b/i.test(
    text,
  ) ||
  /(?:^|\s)(?:flex|grid|text-|mt-|py-|px-|field|action|sheet|font-)/.test(text);

/** Sentences in a file: texts with a blank in them, pieces of templates, and what stands between tags. */
function sentencesOf(path: string): string[] {
  const source = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const look = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node)) return;
    if (ts.isJsxText(node)) found.push(node.text.trim());
    else if (ts.isStringLiteralLike(node)) found.push(node.text);
    else if (ts.isTemplateExpression(node))
      found.push([node.head.text, ...node.templateSpans.map(({ literal }) => literal.text)].join('…'));
    ts.forEachChild(node, look);
  };
  look(source);
  return found.filter((text) => /[a-z] [a-z]/i.test(text) && !isForPrograms(text));
}

describe('what the product says', () => {
  it('holds no name of a field of the code', () => {
    const wrong: string[] = [];
    let count = 0;
    for (const folder of FOLDERS)
      for (const path of filesOf(folder))
        for (const text of sentencesOf(path)) {
          count++;
          const names = [...(text.match(CAMEL) ?? []), ...(text.match(DOTTED) ?? [])];
          for (const name of names)
            if (!USUAL.test(name)) wrong.push(`${path}: ${name} in “${text.slice(0, 120)}”`);
        }
    // The reading would be empty where no sentence was found.
    expect(count).to.be.greaterThan(2000);
    expect(wrong).to.deep.equal([]);
  });
});
