/** Holds what came in against a door's class and tells every fault with the path to its field. */
import { plainToInstance } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import type { RequestError } from '../../core/formula/types';

/** Deeper nesting than any door needs; deeper input is refused before it is walked. */
const DEEPEST = 16;
/** Faults told at once. */
const MOST_ERRORS = 200;

/** Whether a parsed JSON value nests deeper than a door needs. Walks without recursion. */
function isTooDeep(value: unknown): boolean {
  const stack: { value: unknown; depth: number }[] = [{ value, depth: 0 }];
  for (let top = stack.pop(); top; top = stack.pop()) {
    if (typeof top.value !== 'object' || top.value === null) continue;
    if (top.depth > DEEPEST) return true;
    for (const child of Object.values(top.value)) stack.push({ value: child, depth: top.depth + 1 });
  }
  return false;
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

export type Shaped<T> = { ok: true; value: T } | { ok: false; errors: RequestError[] };

/**
 * Checks a parsed JSON value against a door's class. What passes is given back as it came, typed; fields the
 * door does not know are ignored.
 */
export function checkShape<T>(door: new () => object, input: unknown): Shaped<T> {
  if (typeof input !== 'object' || input === null || Array.isArray(input)) {
    return { ok: false, errors: [{ path: '', code: 'not-an-object', message: 'Send a JSON object.' }] };
  }
  if (isTooDeep(input)) {
    const message = `The request nests deeper than ${DEEPEST} levels. Send it flatter.`;
    return { ok: false, errors: [{ path: '', code: 'too-deep', message }] };
  }
  const instance = plainToInstance(door, input);
  const found = validateSync(instance, { forbidUnknownValues: false });
  const errors: RequestError[] = [];
  flatten(found, '', errors);
  return errors.length > 0
    ? { ok: false, errors: errors.slice(0, MOST_ERRORS) }
    : { ok: true, value: input as T };
}
