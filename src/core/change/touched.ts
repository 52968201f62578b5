/**
 * Which materials two stores treat differently on their days. A formula that holds none of them stands as it stood,
 * so that a change ripples through thousands of bars without reckoning all of them twice.
 */
import { membersOf } from '../formula/subject';
import { isInForce } from '../loads/ground';
import type { Declarable, Limit, Material, Stored } from '../formula/types';

/** A store on a day. */
export interface Side {
  stored: Stored;
  onDate: string;
}

const text = (value: unknown) => JSON.stringify(value);

/** Rules in one of two lists only, by what they say. */
function apart<T>(a: readonly T[], b: readonly T[]): T[] {
  const [inA, inB] = [new Set(a.map(text)), new Set(b.map(text))];
  return [...a.filter((one) => !inB.has(text(one))), ...b.filter((one) => !inA.has(text(one)))];
}

const active = (limits: readonly Limit[] | null | undefined, onDate: string) =>
  (limits ?? []).filter((limit) => isInForce(limit, onDate));

/** Whether a date of a list lies after one day and by the other: then the list is asked differently. */
function turnsBetween({ newFrom, allFrom }: Declarable, from: string, to: string): boolean {
  const [first, last] = from < to ? [from, to] : [to, from];
  return [newFrom, allFrom].some((day) => day != null && first < day && day <= last);
}

/** Declarables that only one side asks for on its day, or asks for in another way. */
const declaredApart = (a: Side, b: Side): Declarable[] => [
  ...apart(a.stored.declarables, b.stored.declarables),
  ...(a.onDate === b.onDate
    ? []
    : a.stored.declarables.filter((one) => turnsBetween(one, a.onDate, b.onDate))),
];

/** Keys of the subjects that rules speak of differently. */
function subjects(a: Side, b: Side): ReadonlySet<string> {
  const limits = apart(active(a.stored.limits, a.onDate), active(b.stored.limits, b.onDate));
  return new Set([
    ...limits.flatMap(({ subject }) =>
      membersOf(subject).map((id) => `${subject.type} ${id.trim().toLowerCase()}`),
    ),
    ...declaredApart(a, b).map(({ id }) => `constituent ${id.toLowerCase()}`),
  ]);
}

function speaksOf(keys: ReadonlySet<string>, material: Material): boolean {
  if (keys.size === 0) return false;
  const has = (type: string, id: string) => keys.has(`${type} ${id.trim().toLowerCase()}`);
  return (
    has('material', material.id) ||
    has('kind', material.kind) ||
    (material.constituents ?? []).some(({ id }) => has('constituent', id)) ||
    (material.inci ?? []).some(({ name }) => has('inci', name)) ||
    (material.madeOf ?? []).length > 0
  );
}

/**
 * A test of material ids: false only where both stores treat the material alike. Mixes always count as touched where
 * any rule differs.
 *
 * @example
 * const touches = touchedBetween(today, asItWouldBe);
 * formula.lines.some(({ material }) => touches(material)); // false: it need not be assessed twice
 */
export function touchedBetween(a: Side, b: Side): (id: string) => boolean {
  const keys = subjects(a, b);
  const known = new Map<string, boolean>();
  const shape = (material: Material, onDate: string) =>
    text({ ...material, limits: active(material.limits, onDate) });
  const find = (id: string): boolean => {
    const [before, after] = [a.stored.material(id), b.stored.material(id)];
    if (!before || !after) return true;
    return shape(before, a.onDate) !== shape(after, b.onDate) || speaksOf(keys, before);
  };
  return (id) => {
    const found = known.get(id) ?? find(id);
    known.set(id, found);
    return found;
  };
}

/**
 * A test of material ids: false only where both stores name and list what is made of the material alike, whatever
 * their limits are.
 *
 * @example
 * const relists = relistedBetween(today, withStricterLimit);
 * formula.lines.some(({ material }) => relists(material)); // false: its lists are as they were
 */
export function relistedBetween(a: Side, b: Side): (id: string) => boolean {
  if (a.onDate !== b.onDate || declaredApart(a, b).length > 0) return () => true;
  const known = new Map<string, boolean>();
  const shape = (material: Material | undefined) => material && text({ ...material, limits: null });
  const find = (id: string): boolean => {
    const [before, after] = [shape(a.stored.material(id)), shape(b.stored.material(id))];
    return !before || before !== after;
  };
  return (id) => {
    const found = known.get(id) ?? find(id);
    known.set(id, found);
    return found;
  };
}
