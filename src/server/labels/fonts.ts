/** The shipped fonts as a label needs them: which file draws a letter, and how wide and high it is. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import * as fontkit from 'fontkit';
import { OPEN_JAR, OPEN_JAR_WIDTH, openJarPath } from '../../core/labels/open-jar';
import type { Face, Metrics } from '../../core/labels/layout';

/** A face comes as several files, each for a part of Unicode; the first that holds a letter draws it. */
const FILES: Record<Face, readonly string[]> = {
  display: [
    'besley/files/besley-latin-600-normal.woff',
    'besley/files/besley-latin-ext-600-normal.woff',
    ...others(600),
  ],
  text: [
    'archivo/files/archivo-latin-400-normal.woff',
    'archivo/files/archivo-latin-ext-400-normal.woff',
    ...others(400),
  ],
  strong: [
    'archivo/files/archivo-latin-600-normal.woff',
    'archivo/files/archivo-latin-ext-600-normal.woff',
    ...others(600),
  ],
};

/** Greek and Cyrillic, which the house's own faces lack, and Latin letters that they do. */
function others(weight: number): string[] {
  return ['greek', 'cyrillic', 'latin-ext'].map(
    (part) => `noto-sans/files/noto-sans-${part}-${weight}-normal.woff`,
  );
}

interface FontFile {
  /** Name under which a document registers it. */
  name: string;
  data: Buffer;
  font: fontkit.Font;
}

const require = createRequire(import.meta.url);
const loaded = new Map<Face, FontFile[]>();

function filesOf(face: Face): FontFile[] {
  const known = loaded.get(face);
  if (known) return known;
  const files = FILES[face].map((path) => {
    const data = readFileSync(require.resolve(`@fontsource/${path}`));
    return { name: path, data, font: fontkit.create(data) as fontkit.Font };
  });
  loaded.set(face, files);
  return files;
}

function holds(file: FontFile, letter: string): boolean {
  return file.font.hasGlyphForCodePoint(letter.codePointAt(0)!);
}

export interface Run {
  text: string;
  file: FontFile;
  /** Drawn by its own path, not by the file. */
  isJar: boolean;
}

/** Splits text into runs that one file each can draw; letters that none holds go to the first file. */
export function runsOf(text: string, face: Face): Run[] {
  const files = filesOf(face);
  const runs: Run[] = [];
  for (const letter of text) {
    const file = files.find((candidate) => holds(candidate, letter)) ?? files[0]!;
    const last = runs[runs.length - 1];
    const isJar = letter === OPEN_JAR;
    if (last?.file === file && !isJar && !last.isJar) last.text += letter;
    else runs.push({ text: letter, file, isJar });
  }
  return runs;
}

/** Width of one run at a font size, in the unit of the size. */
export function runWidth({ text, file, isJar }: Run, size: number): number {
  if (isJar) return OPEN_JAR_WIDTH * size;
  return (file.font.layout(text).advanceWidth / file.font.unitsPerEm) * size;
}

function heightOf(face: Face, letter: string): number {
  const { font } = filesOf(face)[0]!;
  const [glyph] = font.glyphsForString(letter);
  return glyph!.bbox.maxY / font.unitsPerEm;
}

/** Measures of the shipped fonts for the layout. */
export const fontMetrics: Metrics = {
  width: (text, face, sizeMm) => runsOf(text, face).reduce((sum, run) => sum + runWidth(run, sizeMm), 0),
  xHeight: (face) => heightOf(face, 'x'),
  digitHeight: (face) => heightOf(face, '1'),
  missing: (text) => {
    const files = filesOf('text');
    return [...new Set(text)].filter(
      (letter) => letter !== OPEN_JAR && !files.some((file) => holds(file, letter)),
    );
  },
};

/** Letters of SVG's path commands for fontkit's. */
const COMMANDS: Readonly<Record<string, string>> = {
  moveTo: 'M',
  lineTo: 'L',
  quadraticCurveTo: 'Q',
  bezierCurveTo: 'C',
  closePath: 'Z',
};
/** Parts of a millimetre that outlines are drawn to. */
const PER_MM = 1000;

/** One glyph's outline, its origin at (xMm, yMm). */
function outline(glyph: fontkit.Glyph, scale: number, xMm: number, yMm: number): string {
  let drawn = '';
  for (const { command, args } of glyph.path.commands) {
    drawn += COMMANDS[command];
    for (let at = 0; at < args.length; at += 2) {
      const x = Math.round((args[at]! * scale + xMm) * PER_MM) / PER_MM;
      const y = Math.round((yMm - args[at + 1]! * scale) * PER_MM) / PER_MM;
      drawn += `${at > 0 ? ' ' : ''}${x} ${y}`;
    }
  }
  return drawn;
}

/** Outlines of a line of text as SVG path data; its baseline starts at (xMm, yMm). */
export function glyphPaths(text: string, face: Face, sizeMm: number, xMm: number, yMm: number): string {
  let x = xMm;
  let drawn = '';
  for (const run of runsOf(text, face)) {
    if (run.isJar) {
      drawn += openJarPath(sizeMm, x, yMm);
      x += runWidth(run, sizeMm);
      continue;
    }
    const scale = sizeMm / run.file.font.unitsPerEm;
    const { glyphs, positions } = run.file.font.layout(run.text);
    glyphs.forEach((glyph, index) => {
      const { xAdvance, xOffset, yOffset } = positions[index]!;
      drawn += outline(glyph, scale, x + xOffset * scale, yMm - yOffset * scale);
      x += xAdvance * scale;
    });
  }
  return drawn;
}
