/** Talking to the application: JSON there and back, faults as values, never a throw. */

export interface Fault {
  path: string;
  code?: string;
  message: string;
}

export type Answer<T> =
  { ok: true; status: number; body: T } | { ok: false; status: number; faults: Fault[] };

const SILENT: Fault = {
  path: '',
  code: 'silent',
  message: 'The application does not answer. Try again; nothing is lost.',
};

/** Letters in a key: enough that two never meet. */
const KEY_BYTES = 16;

/** A name for a request that makes something, so that it is done once however often it is sent. */
export function makeKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(KEY_BYTES));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

/**
 * Sends a request; `body` goes as JSON, `key` as its Idempotency-Key. 409 counts as an answer, since it brings
 * the newer state.
 */
export async function send<T>(
  method: 'GET' | 'POST' | 'PUT' | 'DELETE',
  url: string,
  body?: unknown,
  key?: string,
): Promise<Answer<T>> {
  try {
    const headers = {
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...(key === undefined ? {} : { 'idempotency-key': key }),
    };
    const response = await fetch(url, {
      method,
      headers,
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const read = (await response.json()) as T & { errors?: Fault[] };
    if (response.ok || response.status === 409) return { ok: true, status: response.status, body: read };
    return { ok: false, status: response.status, faults: read.errors ?? [SILENT] };
  } catch {
    return { ok: false, status: 0, faults: [SILENT] };
  }
}

/** The address of something by its id, each part made safe. */
export function address(...parts: string[]): string {
  return `/api/v1/${parts.map(encodeURIComponent).join('/')}`;
}
