/** Calls an endpoint as the server calls it. */
import type { APIContext, APIRoute } from 'astro';

/** The answer of a route's method: its status, and its body as JSON or as bytes. */
export async function call(
  route: Promise<{ [method: string]: APIRoute }>,
  method: string,
  url: string,
  init: RequestInit = {},
  params = {},
  locals = {},
) {
  const address = new URL(url, 'http://127.0.0.1');
  const context = {
    request: new Request(address, { method, ...init }),
    url: address,
    params,
    locals,
  } as unknown as APIContext;
  const answer = (await (await route)[method]!(context)) as Response;
  const isJson = answer.headers.get('content-type')?.includes('json');
  return {
    status: answer.status,
    body: isJson ? ((await answer.json()) as Record<string, never>) : await answer.arrayBuffer(),
  };
}

/** A request's body with its type. */
export const sending = (body: string, type = 'application/json') => ({
  body,
  headers: { 'content-type': type },
});

type Route = Parameters<typeof call>[0];

export interface Asked {
  params?: object;
  body?: unknown;
  /** With its question mark. */
  query?: string;
}

/** Calls routes by name, with a body as JSON; the answer's body is what the caller says it is. */
export function caller<K extends string>(routes: Record<K, () => Promise<unknown>>) {
  return async <T = Record<string, unknown>>(
    route: K,
    method: string,
    { params = {}, body, query = '' }: Asked = {},
  ): Promise<{ status: number; body: T }> => {
    const init = body === undefined ? {} : sending(JSON.stringify(body));
    const answer = await call(routes[route]() as Route, method, `/api/v1/x${query}`, init, params);
    return { status: answer.status, body: answer.body as T };
  };
}
