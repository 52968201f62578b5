/** Holds what came in against a door's class and tells every fault with the path to its field. */
import { validateSync, type ValidationError } from 'class-validator';
import type { RequestError } from '../../core/formula/types';
import { take, type Door } from './structure';

/** Deeper nesting than anything here needs. */
const DEEPEST = 64;
/** Faults told at once. */
const MOST_ERRORS = 200;
/** Names that lead to what every object has in common; nothing here is called so. */
const RESERVED = new Set(['__proto__', 'constructor', 'prototype']);

/** The place in a value, as keys from within outward, and what is wrong with it. */
interface Place {
  keys: string[];
  code: 'too-deep' | 'reserved';
}

function findPlace(value: unknown, depth: number): Place | null {
  if (typeof value !== 'object' || value === null) return null;
  if (depth > DEEPEST) return { keys: [], code: 'too-deep' };
  if (Array.isArray(value)) {
    for (let index = 0; index < value.length; index++) {
      const found = findPlace(value[index], depth + 1);
      if (found) return { ...found, keys: [...found.keys, String(index)] };
    }
    return null;
  }
  for (const key of Object.keys(value)) {
    if (RESERVED.has(key)) return { keys: [key], code: 'reserved' };
    const found = findPlace((value as Record<string, unknown>)[key], depth + 1);
    if (found) return { ...found, keys: [...found.keys, key] };
  }
  return null;
}

const LONGEST_PATH = 200;

/**
 * A parsed JSON value may hold names that mean something else to the language, or nest without end. Answers the
 * first such place, or null. Looks at everything once.
 */
export function hostilePlace(value: unknown): RequestError | null {
  const found = findPlace(value, 0);
  if (!found) return null;
  const path = found.keys.reverse().join('.').slice(0, LONGEST_PATH);
  return found.code === 'too-deep'
    ? { path, code: found.code, message: `This nests deeper than ${DEEPEST} levels. Send it flatter.` }
    : { path, code: found.code, message: `Leave out the name "${path.split('.').at(-1)}".` };
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
