/** Faces that the tests' browser draws with: shipped ones, so that papers and screens look alike on every machine. */
import { mkdirSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';

const CACHE = 'node_modules/.cache/proportia-fonts';
/** Letters are drawn as most machines draw them. */
const DRAWN =
  '<match target="font"><edit name="antialias"><bool>true</bool></edit><edit name="hinting"><bool>true</bool></edit><edit name="hintstyle"><const>hintslight</const></edit></match>';
const FACES = 'node_modules/pdfjs-dist/standard_fonts';

/** Writes a configuration for fontconfig that knows these faces alone; what a browser's environment says of it. */
export function fontsAlone() {
  mkdirSync(CACHE, { recursive: true });
  const file = resolve(CACHE, 'fonts.conf');
  writeFileSync(
    file,
    `<?xml version="1.0"?><!DOCTYPE fontconfig SYSTEM "fonts.dtd"><fontconfig><dir>${resolve(FACES)}</dir><cachedir>${resolve(join(CACHE, 'cache'))}</cachedir>${DRAWN}</fontconfig>`,
  );
  return { FONTCONFIG_FILE: file };
}
