/** Holds what came in against a door's class and tells every fault with the path to its field. */
import { validateSync, type ValidationError } from 'class-validator';
import type { RequestError } from '../../core/formula/types';
import { take, type Door } from './structure';

/** Deeper nesting than anything here needs. */
const DEEPEST = 64;
/** Faults told at once. */
const MOST_ERRORS = 200;
/** Names that lead to what every object has in common; nothing here is called so. */
const RESERVED = ['__proto__', 'constructor', 'prototype'];

/**
 * A parsed JSON value may hold names that mean something else to the language, or nest without end. Answers the
 * first such place, or null. Walks without recursion, once over the whole.
 */
export function hostilePlace(value: unknown): RequestError | null {
  const stack: { value: unknown; path: string; depth: number }[] = [{ value, path: '', depth: 0 }];
  for (let top = stack.pop(); top; top = stack.pop()) {
    if (typeof top.value !== 'object' || top.value === null) continue;
    const { path, depth } = top;
    if (depth > DEEPEST) {
      const message = `This nests deeper than ${DEEPEST} levels. Send it flatter.`;
      return { path: path.slice(0, 200), code: 'too-deep', message };
    }
    for (const key of Object.keys(top.value)) {
      const child = (top.value as Record<string, unknown>)[key];
      const place = path ? `${path}.${key}` : key;
      if (!Array.isArray(top.value) && RESERVED.includes(key)) {
        return { path: place.slice(0, 200), code: 'reserved', message: `Leave out the name "${key}".` };
      }
      if (typeof child === 'object' && child !== null)
        stack.push({ value: child, path: place, depth: depth + 1 });
    }
  }
  return null;
}

function flatten(errors: readonly ValidationError[], prefix: string, into: RequestError[]): void {
  for (const error of errors) {
    const path = prefix ? `${prefix}.${error.property}` : error.property;
    const [name, message] = Object.entries(error.constraints ?? {})[0] ?? [];
    if (name && message) {
      const context = error.contexts?.[name] as { code?: string } | undefined;
      into.push({ path, code: context?.code ?? name, message });
    }
    flatten(error.children ?? [], path, into);
  }
}

const isWithin = (path: string, of: string) => path === of || path.startsWith(`${of}.`);

export type Shaped<T> = { ok: true; value: T } | { ok: false; errors: RequestError[] };

/** Checks a parsed JSON value against a door's class. What passes is what the door declares and nothing more. */
export function checkShape<T>(door: Door, input: unknown): Shaped<T> {
  if (typeof input !== 'object' || input === null || Array.isArray(input)) {
    return { ok: false, errors: [{ path: '', code: 'not-an-object', message: 'Send a JSON object.' }] };
  }
  const { judged, plain, errors } = take(door, input);
  const found: RequestError[] = [];
  flatten(validateSync(judged, { forbidUnknownValues: false }), '', found);
  // What is built otherwise than declared is not judged; a rule then says of it, or of what it stands in, nothing new.
  const told = errors.slice(0, MOST_ERRORS);
  const isTold = (path: string) =>
    told.some((error) => isWithin(path, error.path) || isWithin(error.path, path));
  const all = [...told, ...found.filter(({ path }) => !isTold(path))];
  return all.length > 0 ? { ok: false, errors: all.slice(0, MOST_ERRORS) } : { ok: true, value: plain as T };
}
