/**
 * How a door is built: which property holds an object or a list of another door, which is taken through a check
 * of its own, and which may be missing. `take` reads a parsed JSON value by it and lets through what the door
 * declares and nothing else.
 */
import { getMetadataStorage } from 'class-validator';
import type { RequestError } from '../../core/formula/types';

export type Door = new () => object;

/** What a check of a property's own answers: the value as it is taken, or what is wrong with it. */
export type Cleaned = { value: unknown } | { code: string; message: string };

type Build =
  | { kind: 'object'; of: () => Door }
  | { kind: 'list'; of: () => Door; most: number }
  | { kind: 'clean'; clean: (value: unknown) => Cleaned };

interface Property {
  build?: Build;
  /** What stands for a property that is missing or null: left out, null, or whichever of the two was given. */
  missing?: 'left-out' | 'null' | 'as-given';
}

const declared = new Map<object, Map<string, Property>>();

function note(prototype: object, key: string, part: Property): void {
  const own = declared.get(prototype) ?? new Map<string, Property>();
  own.set(key, { ...own.get(key), ...part });
  declared.set(prototype, own);
}

/** Notes how a property is built. */
export function Built(build: Build): PropertyDecorator {
  return (prototype, key) => note(prototype, String(key), { build });
}

/** Notes what stands for a property that is missing or null. */
export function Missing(missing: Property['missing']): PropertyDecorator {
  return (prototype, key) => note(prototype, String(key), { missing });
}

function partOf(door: Door, key: string): Property {
  const found: Property = {};
  for (let at = door.prototype as object; at !== Object.prototype; at = Object.getPrototypeOf(at) as object)
    Object.assign(found, { ...declared.get(at)?.get(key), ...found });
  return found;
}

const properties = new Map<Door, [key: string, property: Property][]>();

/** The properties a door declares: those that some rule speaks of. */
function propertiesOf(door: Door): [string, Property][] {
  const known = properties.get(door);
  if (known) return known;
  const rules = getMetadataStorage().getTargetValidationMetadatas(door, '', false, false);
  const keys = [...new Set(rules.map(({ propertyName }) => propertyName))];
  const made = keys.map((key): [string, Property] => [key, partOf(door, key)]);
  properties.set(door, made);
  return made;
}

export interface Taken {
  /** An instance of the door, for the rules to judge. */
  judged: object;
  /** The same as plain values: what goes on from here. */
  plain: Record<string, unknown>;
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

type Report = (path: string, code: string, message: string) => void;

function takeList(build: Build & { kind: 'list' }, value: unknown, path: string, report: Report) {
  if (!Array.isArray(value)) return report(path, 'not-a-list', 'Give a list here.');
  if (value.length > build.most) return report(path, 'too-many', `Give at most ${build.most} entries.`);
  const door = build.of();
  const taken = value.map((entry, index) => takeObject(door, entry, `${path}.${index}`, report));
  return taken.every((entry) => entry !== undefined)
    ? { judged: taken.map(({ judged }) => judged), plain: taken.map(({ plain }) => plain) }
    : undefined;
}

function takeValue(build: Build | undefined, value: unknown, path: string, report: Report) {
  switch (build?.kind) {
    case undefined:
      return { judged: value, plain: value };
    case 'object':
      return takeObject(build.of(), value, path, report);
    case 'list':
      return takeList(build, value, path, report);
    case 'clean': {
      const cleaned = build.clean(value);
      if ('code' in cleaned) return report(path, cleaned.code, cleaned.message);
      return { judged: cleaned.value, plain: cleaned.value };
    }
  }
}

function takeObject(door: Door, value: unknown, path: string, report: Report): Taken | undefined {
  if (!isObject(value)) {
    report(path, 'not-an-object', 'Give an object here.');
    return undefined;
  }
  const taken: Taken = { judged: new door(), plain: {} };
  for (const [key, { build, missing }] of propertiesOf(door)) {
    const given = Object.hasOwn(value, key) ? value[key] : undefined;
    if (given === undefined || (given === null && missing)) {
      if (missing === 'null' || (missing === 'as-given' && given === null)) taken.plain[key] = null;
      continue;
    }
    const made = takeValue(build, given, path ? `${path}.${key}` : key, report);
    if (!made) continue;
    Object.assign(taken.judged, { [key]: made.judged });
    taken.plain[key] = made.plain;
  }
  return taken;
}

/**
 * Takes of a parsed JSON value what a door declares. What is built otherwise than declared is told with its
 * path; the rest is there to be judged. The work is bounded by what the door declares, not by what was sent.
 */
export function take(door: Door, value: object): Taken & { errors: RequestError[] } {
  const errors: RequestError[] = [];
  const taken = takeObject(door, value, '', (path, code, message) => {
    errors.push({ path, code, message });
  });
  return { ...taken!, errors };
}
