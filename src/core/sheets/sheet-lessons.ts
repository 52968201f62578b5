/** What was said about a sheet is remembered for sheets laid out alike: known again by their heads. Pure. */
import type { Kind } from '../formula/types';
import { folded } from '../folded';
import type { PercentOf } from './amounts';
import type { Layout } from './cells';

/** What the maker said besides what the sheet says. */
export interface Said {
  percentOf: PercentOf;
  batchG: number;
  superfatPct: number;
  /** Materials chosen by hand, by the name in the sheet. */
  chosen: Readonly<Record<string, { id: string; title: string; kind: Kind }>>;
  /** What rows were pointed at as, by the name in the sheet; left out of the bar where it is none of its parts. */
  roles?: Readonly<Record<string, PointedRole>>;
}

/** What a row may be pointed at as. */
export const POINTED_ROLES = ['material', 'lye', 'superfat', 'fats', 'out'] as const;
export type PointedRole = (typeof POINTED_ROLES)[number];

export interface SheetLesson {
  /** The heads of the sheet as plain words. */
  heads: string[];
  layout: Layout;
  said: Omit<Said, 'chosen' | 'roles'>;
  /** Materials chosen by hand. */
  chosen: { name: string; id: string; title: string; kind: Kind }[];
  /** What rows were pointed at as. */
  roles?: { name: string; role: PointedRole }[];
  /** The sheet it was learnt from, and when. */
  learntFrom: string;
  learntOn: string;
}

const MOST_SHEETS = 60;
/** A head of fewer words is that of any sheet. */
const LEAST_HEADS = 2;

function headsAt(rows: readonly (readonly string[])[], head: number): string[] {
  return (rows[head] ?? []).map((cell) => folded(cell).replace(/\s+/g, ' ').trim());
}

const isSame = (a: readonly string[], b: readonly string[]) => a.join('|') === b.join('|');

/** The lesson of a sheet laid out alike, the newest first; null where there is none. */
export function lessonFor(
  rows: readonly (readonly string[])[],
  lessons: readonly SheetLesson[],
): SheetLesson | null {
  return lessons.find(({ heads, layout }) => isSame(headsAt(rows, layout.head), heads)) ?? null;
}

/** What a sheet that was taken in teaches; null where its heads do not tell it from any other. */
export function lessonOf(
  rows: readonly (readonly string[])[],
  layout: Layout,
  said: Said,
  from: { name: string; day: string },
): SheetLesson | null {
  const heads = headsAt(rows, layout.head);
  if (heads.filter((head) => head !== '').length < LEAST_HEADS) return null;
  const { chosen, roles = {}, ...plain } = said;
  // Which rows name bars is this sheet's alone.
  const { kind, head, columns, unit } = layout;
  return {
    heads,
    layout: { kind, head, columns, unit },
    said: plain,
    chosen: Object.entries(chosen).map(([name, { id, title, kind }]) => ({ name, id, title, kind })),
    roles: Object.entries(roles).map(([name, role]) => ({ name, role })),
    learntFrom: from.name,
    learntOn: from.day,
  };
}

/** What was said of the sheet that a lesson was learnt from. */
export function saidOf({ said, chosen, roles = [] }: SheetLesson): Said {
  return {
    ...said,
    chosen: Object.fromEntries(chosen.map(({ name, ...material }) => [name, material])),
    roles: Object.fromEntries(roles.map(({ name, role }) => [name, role])),
  };
}

/** The lessons with one more; it takes the place of what was learnt from sheets laid out alike. */
export function withLesson(lessons: readonly SheetLesson[], lesson: SheetLesson): SheetLesson[] {
  const others = lessons.filter(({ heads }) => !isSame(heads, lesson.heads));
  return [lesson, ...others].slice(0, MOST_SHEETS);
}
