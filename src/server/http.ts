/** What every endpoint shares: reading JSON within bounds, answering, and never leaking a fault as a stack. */
import { noteFault } from './log';
import type { APIContext, APIRoute } from 'astro';
import { PAPER_TYPES } from '../core/records/papers';
import type { RequestError } from '../core/formula/types';
import { checkShape, hostilePlace } from './doors/shape';
import { JobEnded } from './jobs/ended';
import { storeFault } from './store/faults';

/** Largest request body, bytes (assessment page: 1 MiB). */
export const LARGEST_BODY = 1024 * 1024;

/** A fault that has its own status and is told to the client. */
export class HttpFault extends Error {
  constructor(
    readonly status: number,
    readonly errors: RequestError[],
  ) {
    super(errors.map(({ message }) => message).join(' '));
  }
}

/** A fault with one error. */
export function fault(status: number, code: string, message: string, path = ''): HttpFault {
  return new HttpFault(status, [{ path, code, message }]);
}

/** Answers JSON. */
export function answerJson(body: unknown, status = 200): Response {
  return new Response(JSON.stringify(body), {
    status,
    headers: { 'content-type': 'application/json; charset=utf-8', 'cache-control': 'no-store' },
  });
}

/** Answers a file to be kept; its name is made safe for every system. */
export function answerFile(body: Uint8Array | string, mime: string, name: string): Response {
  const file = name.replace(/[^\w.-]/g, '_');
  return new Response(body as BodyInit, {
    headers: { 'content-type': mime, 'content-disposition': `attachment; filename="${file}"` },
  });
}

/** Answers a file to be kept that is sent as it is read. */
export function answerStream(
  { body, bytes }: { body: unknown; bytes: number },
  mime: string,
  name: string,
): Response {
  const { headers } = answerFile('', mime, name);
  headers.set('content-length', String(bytes));
  return new Response(body as BodyInit, { headers });
}

/** Types that stored files are answered with; anything else is bytes to be kept. */
const STORED_TYPES: readonly string[] = [...Object.values(PAPER_TYPES), 'image/svg+xml'];

/** Answers a file as it is stored, wherever it came from: nothing in it runs, and it can reach nothing. */
export function answerStored(bytes: Uint8Array, mime: string, caching = 'no-store'): Response {
  return new Response(bytes as BodyInit, {
    headers: {
      'content-type': STORED_TYPES.includes(mime) ? mime : 'application/octet-stream',
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
      'cache-control': caching,
    },
  });
}

/** Reads a body within the largest size; 413 over it. */
export async function readBytes(request: Request): Promise<Uint8Array> {
  const tooLarge = () =>
    fault(413, 'too-large', `The body is over ${LARGEST_BODY} bytes. Send less at once.`);
  if (Number(request.headers.get('content-length') ?? 0) > LARGEST_BODY) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  for (let part = await reader?.read(); part && !part.done; part = await reader?.read()) {
    size += part.value.byteLength;
    if (size > LARGEST_BODY) {
      await reader?.cancel();
      throw tooLarge();
    }
    chunks.push(part.value);
  }
  return Buffer.concat(chunks);
}

/**
 * Reads a JSON body. 415 where it is not sent as JSON (which also keeps other sites' forms out), 413 over the
 * size, 400 where it is not JSON.
 */
export async function readJson(request: Request): Promise<unknown> {
  const type = request.headers.get('content-type') ?? '';
  if (!/^application\/(?:[\w.+-]+\+)?json\b/i.test(type)) {
    throw fault(415, 'not-json', 'Send the body as application/json.');
  }
  const parsed = parseJson(await readBytes(request));
  const hostile = hostilePlace(parsed);
  if (hostile) throw new HttpFault(422, [hostile]);
  return parsed;
}

/** Values in one body: far more than any door takes, few enough to read in a moment. */
const MOST_VALUES = 60_000;
const COMMA = 0x2c;

/** Whether a JSON text holds too many values to be read at all; told by its commas. */
function hasTooMany(bytes: Uint8Array): boolean {
  let count = 0;
  for (let at = bytes.indexOf(COMMA); at >= 0 && count <= MOST_VALUES; at = bytes.indexOf(COMMA, at + 1))
    count++;
  return count > MOST_VALUES;
}

function parseJson(bytes: Uint8Array): unknown {
  if (hasTooMany(bytes)) {
    throw fault(422, 'too-many', `This holds over ${MOST_VALUES} values. Send less at once.`);
  }
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) as unknown;
  } catch {
    throw fault(400, 'not-json', 'The body is not JSON. Send one JSON object in UTF-8.');
  }
}

/** Reads a JSON body and holds it against a door; 422 with every fault and the path to its field. */
export async function readShaped<T>(door: new () => object, request: Request): Promise<T> {
  const shaped = checkShape<T>(door, await readJson(request));
  if (!shaped.ok) throw new HttpFault(422, shaped.errors);
  return shaped.value;
}

const KEY = /^[\w.:-]{1,100}$/;

/**
 * The `Idempotency-Key` a client gave its request, or null: a request that makes something and comes twice under
 * one key makes it once and is answered the same. 422 where the key is not one.
 */
export function requestKey(request: Request): string | null {
  const key = request.headers.get('idempotency-key');
  if (key === null || KEY.test(key)) return key;
  const message = 'An Idempotency-Key has 1 to 100 letters, digits, dots, colons and dashes.';
  throw fault(422, 'key', message, 'Idempotency-Key');
}

/** Wraps an endpoint: its faults become answers, anything unforeseen a plain 500 and a line in the log. */
export function endpoint(handle: (context: APIContext) => Promise<Response> | Response): APIRoute {
  return async (context) => {
    try {
      return await handle(context);
    } catch (error) {
      if (error instanceof HttpFault) return answerJson({ errors: error.errors }, error.status);
      const store = storeFault(error);
      if (store) {
        noteFault(`store ${store.kind}`, error);
        const errors = [{ path: '', code: store.kind, message: store.message }];
        return answerJson({ errors }, store.status);
      }
      if (error instanceof JobEnded) {
        noteFault(`job ${error.reason}`, error);
        const message =
          'This took too long just now, and was not done. Nothing was changed; try again in a moment.';
        return answerJson({ errors: [{ path: '', code: 'busy', message }] }, 503);
      }
      noteFault('endpoint', error);
      const message = 'Something went wrong here, not in your request. Nothing was changed; try again.';
      return answerJson({ errors: [{ path: '', code: 'internal', message }] }, 500);
    }
  };
}

/** Answers any method that an endpoint does not have. */
export function onlyMethods(...methods: string[]): APIRoute {
  return () => {
    const message = `This address takes ${methods.join(' and ')} only.`;
    const answer = answerJson({ errors: [{ path: '', code: 'method', message }] }, 405);
    answer.headers.set('allow', methods.join(', '));
    return answer;
  };
}
