/** How papers look on photographs in tests. */
import { readFileSync } from 'node:fs';

/** A page as a phone takes it: leaning by two degrees on a table, unevenly lit, with grain. */
export const PHOTOGRAPHED = `html { background: #b9b2a4; } body { transform: rotate(2deg); margin: 40px; padding: 24px; background: #f3efe6; }
  body::after { content: ''; position: fixed; inset: 0; opacity: .12; background:
  linear-gradient(120deg, #000 0, transparent 60%), repeating-radial-gradient(circle at 13% 37%, #000 0 1px, transparent 1px 3px); }`;

/** The shipped faces, so that a paper is drawn alike on every machine; several, in several sizes. */
const font = (family: string, weight = 400) =>
  readFileSync(`node_modules/@fontsource/${family}/files/${family}-latin-${weight}-normal.woff2`).toString(
    'base64',
  );
export const FACES = ['archivo', 'archivo-narrow', 'besley'] as const;
export const faceRule = (family: string) =>
  `@font-face { font-family: "${family}"; src: url(data:font/woff2;base64,${font(family)}) format("woff2"); }`;
