/**
 * A maker's SVG made harmless: parsed, and built anew out of shapes and paints alone. Scripts, links, styles
 * with addresses, foreign content and entities do not come through, because nothing comes through but what is
 * named here.
 */
import { XMLParser } from 'fast-xml-parser';

const SHAPES = new Set([
  ...['svg', 'g', 'path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon', 'title', 'desc'],
  ...['defs', 'linearGradient', 'radialGradient', 'stop', 'clipPath'],
]);
const ATTRIBUTES = new Set([
  ...[
    'id',
    'd',
    'x',
    'y',
    'x1',
    'y1',
    'x2',
    'y2',
    'cx',
    'cy',
    'r',
    'rx',
    'ry',
    'fx',
    'fy',
    'width',
    'height',
  ],
  ...['points', 'transform', 'viewBox', 'fill', 'fill-rule', 'fill-opacity', 'clip-rule', 'clip-path'],
  ...['stroke', 'stroke-width', 'stroke-linecap', 'stroke-linejoin', 'stroke-miterlimit', 'stroke-dasharray'],
  ...[
    'stroke-opacity',
    'opacity',
    'offset',
    'stop-color',
    'stop-opacity',
    'gradientUnits',
    'gradientTransform',
  ],
  ...['clipPathUnits', 'preserveAspectRatio'],
]);
const PLAIN_VALUE = /^[\w\s.,#%()+:/;-]*$/;
const ADDRESS = /url\(|javascript|data:|http/i;
const OWN_REFERENCE = /^url\(#[\w-]+\)$/;
const MOST_LETTERS = 400_000;
const DEEPEST = 60;
/** What a drawn sign needs at most; drawing time grows with each of them. */
const MOST_SHAPES = 2000;
const MOST_CLIPPED = 40;
const MOST_GRADIENT_FILLS = 100;
const MOST_STOPS = 200;
/** Letters of all paths and points together. */
const MOST_PATH_LETTERS = 200_000;

/** What was written so far, counted. */
interface Count {
  shapes: number;
  clipped: number;
  gradientFills: number;
  stops: number;
  pathLetters: number;
}

function isTooIntricate({ shapes, clipped, gradientFills, stops, pathLetters }: Count): boolean {
  return (
    shapes > MOST_SHAPES ||
    clipped > MOST_CLIPPED ||
    gradientFills > MOST_GRADIENT_FILLS ||
    stops > MOST_STOPS ||
    pathLetters > MOST_PATH_LETTERS
  );
}

function tally(count: Count, name: string, attributes: readonly [string, string][]): void {
  count.shapes++;
  if (name === 'stop') count.stops++;
  for (const [key, value] of attributes) {
    if (key === 'clip-path') count.clipped++;
    else if (OWN_REFERENCE.test(value)) count.gradientFills++;
    else if (key === 'd' || key === 'points') count.pathLetters += value.length;
  }
}

type Node = Record<string, unknown> & { ':@'?: Record<string, string> };

function isHarmless(value: string): boolean {
  return OWN_REFERENCE.test(value.trim()) || (PLAIN_VALUE.test(value) && !ADDRESS.test(value));
}

/** A node's attributes, with what a style states taken in among them. */
function attributesOf(node: Node): [string, string][] {
  const given = Object.entries(node[':@'] ?? {});
  const styled = given
    .filter(([name]) => name === 'style')
    .flatMap(([, value]) => value.split(';'))
    .map((part) => part.split(':').map((side) => side.trim()) as [string, string]);
  return [...given, ...styled]
    .filter(([name, value]) => ATTRIBUTES.has(name) && typeof value === 'string' && isHarmless(value))
    .map(([name, value]) => [name, value.trim()]);
}

function write(node: Node, depth: number, isInClip: boolean, count: Count): string {
  const name = Object.keys(node).find((key) => key !== ':@');
  if (!name || !SHAPES.has(name) || depth > DEEPEST || isTooIntricate(count)) return '';
  const seen = new Set<string>();
  const inClip = isInClip || name === 'clipPath';
  // A clip within a clip multiplies the work and shows nothing that one clip does not.
  const kept = attributesOf(node).filter(
    ([key]) => !(inClip && key === 'clip-path') && !seen.has(key) && seen.add(key),
  );
  tally(count, name, kept);
  const attributes = kept.map(([key, value]) => ` ${key}="${value.replace(/"/g, '')}"`).join('');
  const space = depth === 0 ? ' xmlns="http://www.w3.org/2000/svg"' : '';
  const children = (node[name] as Node[]).map((child) => write(child, depth + 1, inClip, count)).join('');
  return `<${name}${space}${attributes}>${children}</${name}>`;
}

/** Width over height, from the view box or else from width and height. */
function ratioOf(root: Node): number | null {
  const given =
    node(root, 'viewBox')
      ?.split(/[\s,]+/)
      .map(Number) ?? [];
  const [wide, high] =
    given.length === 4
      ? given.slice(2)
      : [parseFloat(node(root, 'width') ?? ''), parseFloat(node(root, 'height') ?? '')];
  const ratio = wide! / high!;
  return Number.isFinite(ratio) && ratio > 0.02 && ratio < 50 ? ratio : null;
}

function node(root: Node, attribute: string): string | undefined {
  return root[':@']?.[attribute];
}

export interface CleanSvg {
  svg: string;
  widthOverHeight: number;
}

/** The SVG without anything but shapes and paints; null where it is none, is too large or intricate, or shows nothing. */
export function cleanSvg(text: string): CleanSvg | null {
  if (text.length > MOST_LETTERS || /<!DOCTYPE|<!ENTITY/i.test(text)) return null;
  const parser = new XMLParser({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: '',
    processEntities: false,
    parseAttributeValue: false,
  });
  try {
    const root = (parser.parse(text) as Node[]).find((one) => 'svg' in one);
    const widthOverHeight = root ? ratioOf(root) : null;
    if (!root || widthOverHeight === null) return null;
    const count: Count = { shapes: 0, clipped: 0, gradientFills: 0, stops: 0, pathLetters: 0 };
    const svg = write(root, 0, false, count);
    if (isTooIntricate(count)) return null;
    return /<(path|rect|circle|ellipse|line|poly)/.test(svg) ? { svg, widthOverHeight } : null;
  } catch {
    return null;
  }
}
