/**
 * Who is answered: pages and programs on this machine, under its own names. A page of another site, or a name
 * that was led here behind the browser's back, is refused, reads too.
 */
import { isIP } from 'node:net';

const LOOPBACK_NAMES = new Set(['localhost', '127.0.0.1', '[::1]']);

/** Whether a name or address to listen on is this machine alone. */
export function isLoopback(host: string): boolean {
  return LOOPBACK_NAMES.has(host) || host === '::1' || (isIP(host) === 4 && host.startsWith('127.'));
}

/** The name in a Host header, without its port; null where it is none. */
function nameOf(host: string): string | null {
  const match = /^(\[[\da-f:.]+\]|[\w.-]+)(?::\d{1,5})?$/i.exec(host);
  return match ? match[1]!.toLowerCase() : null;
}

/** Whether a Host header names this machine: its own names, and `names` besides. */
export function isNameOfOurs(host: string, names: readonly string[]): boolean {
  const name = nameOf(host);
  return name !== null && (LOOPBACK_NAMES.has(name) || isLoopback(name) || names.includes(name));
}

export interface Asked {
  host: string | undefined;
  origin: string | undefined;
  /** The browser's word for where the request comes from: Sec-Fetch-Site, and Sec-Fetch-Mode. */
  site: string | undefined;
  mode: string | undefined;
  method: string;
}

/** Why a request is refused, or null where it is answered. `names` are more names this machine goes by. */
export function refusal(
  { host, origin, site, mode, method }: Asked,
  names: readonly string[],
): string | null {
  if (!isNameOfOurs(host ?? '', names))
    return 'This name does not lead here. Open Proportia under the address it tells when it starts.';
  if (origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`)
    return 'This comes from another site. Proportia answers only its own pages.';
  // Following a link from elsewhere to a page is harmless: nothing is changed, and the other site sees nothing of it.
  const isVisit = mode === 'navigate' && method === 'GET';
  if ((site === 'cross-site' || site === 'same-site') && !isVisit)
    return 'This comes from another site. Proportia answers only its own pages.';
  return null;
}
