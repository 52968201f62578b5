/**
 * Which methods and addresses are answered at all. An address that reads in two ways is refused before anything looks at
 * it, so that the gate, the files of the build and the pages all see the same path. Pure.
 */

/** Longest address answered, letters. */
const LONGEST = 4096;
/** What the pages and endpoints take; everything else is no method here. */
export const METHODS: readonly string[] = ['GET', 'HEAD', 'POST', 'PUT', 'DELETE'];

/** What an escape may never stand for: it would begin a new segment, or end the text, for whoever reads it later. */
// eslint-disable-next-line no-control-regex
const HIDDEN = /[/\\\u0000-\u001f\u007f]/;
/** Escapes within what an escape stands for: read twice, the address would be another one. */
const TWICE = /%[\da-f]{2}/i;
/** Letters that no client has to escape; escaped, they only hide a name. */
const PLAIN_ESCAPED = /%(?:2[de]|3\d|[46][1-9a-f]|5[\daf]|7[\dae])/i;

/** Whether one segment of a path reads one way only. */
function isPlain(segment: string): boolean {
  if (PLAIN_ESCAPED.test(segment)) return false;
  const text = decodeURIComponent(segment);
  return text !== '.' && text !== '..' && !HIDDEN.test(text) && !TWICE.test(text);
}

/**
 * Whether a request's target, as it came over the wire, is an address: a path that reads one way only, and perhaps a
 * query. No dot segments, backslashes or empty segments, plain or escaped; no other machine's name; no fragment.
 *
 * @example isAddress('/_astro/../api/v1/backups') // false
 */
export function isAddress(target: string): boolean {
  if (target.length > LONGEST || !target.startsWith('/') || target.includes('#')) return false;
  const path = target.split('?', 1)[0]!;
  try {
    if (new URL(path, 'http://localhost').pathname !== path) return false;
    const segments = path.slice(1).split('/');
    return segments.every((segment, at) => (segment === '' ? at === segments.length - 1 : isPlain(segment)));
  } catch {
    return false;
  }
}
