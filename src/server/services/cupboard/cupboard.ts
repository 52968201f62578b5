/** Searching materials, and the maker's own craft figures. */
import type { Material } from '../../../core/formula/types';
import type { CraftFigures, FoundMaterial } from '../../../core/records/cupboard';
import { LIBRARY } from '../../../library';
import { constituent } from '../../../library/constituents';
import { rulebook } from '../../../rulebook';
import type { House } from '../../house';
import { fault } from '../../http';
import { findSetting, putSetting } from '../../repositories/settings';
import { snapshotOf, type StoreSnapshot } from '../../store/snapshot';
import { writing } from '../../store/writing';

/** Sets the maker's own figure for a craft limit, or takes it back with null; 404 where there is no such limit. */
export function setCraftFigure({ db }: House, id: string, maxPct: number | null): Promise<CraftFigures> {
  if (!rulebook().craft.some((limit) => limit.id === id)) {
    throw fault(404, 'unknown-limit', `There is no craft limit "${id}".`, 'id');
  }
  return writing(db, async (trx) => {
    const { [id]: _, ...rest } = (await findSetting(trx, 'craftFigures')).value;
    const figures = maxPct === null ? rest : { ...rest, [id]: maxPct };
    return (await putSetting(trx, 'craftFigures', figures)).value;
  });
}

/** Materials told at once by a search. */
const MOST_FOUND = 12;
/** How well a name answers what was typed, best first; ingredient names come after all of these. */
const RANKS = ['begins so', 'a word begins so', 'holds it'] as const;
const NOT_AT_ALL = Infinity;

/** A substance is all of a material from here on, percent. */
const WHOLE_PCT = 90;

function rankOf(name: string, typed: string): number {
  const lower = name.toLowerCase();
  if (lower.startsWith(typed)) return 0;
  if (lower.split(/[^\p{L}\p{N}]+/u).some((word) => word.startsWith(typed)) || lower.includes(` ${typed}`))
    return 1;
  return lower.includes(typed) ? 2 : NOT_AT_ALL;
}

function rankMaterial(material: Material & { alsoNamed?: readonly string[] }, typed: string): number {
  const { name, inci, alsoNamed = [], numbers, constituents } = material;
  if (/^\d[\d-]+\d$/.test(typed)) return hasNumber({ numbers, constituents }, typed) ? 0 : NOT_AT_ALL;
  const called = alsoNamed.map((one) => (one.toLowerCase() === typed ? 0 : rankOf(one, typed) + 1));
  const ingredients = (inci ?? []).map((part) => rankOf(part.name, typed) + RANKS.length);
  return Math.min(rankOf(name, typed), ...called, ...ingredients);
}

/** Whether a CAS or EC number is its own, or that of all of it. */
function hasNumber(
  { numbers, constituents }: Pick<Material, 'numbers' | 'constituents'>,
  typed: string,
): boolean {
  const whole = (constituents ?? []).filter(({ typicalPct }) => typicalPct >= WHOLE_PCT);
  return (
    (numbers ?? []).includes(typed) ||
    whole.some(({ id }) => {
      const known = constituent(id);
      return known !== undefined && (known.cas.includes(typed) || known.ec.includes(typed));
    })
  );
}

/**
 * Materials whose name or ingredient name holds what was typed: by how well the name answers it, the maker's
 * own before the library's, shorter names before longer ones.
 */
export function searchMaterials(snapshot: StoreSnapshot, query: string): FoundMaterial[] {
  const all: FoundMaterial[] = [
    ...[...snapshot.own.values()].map((material) => ({ material, isOwn: true })),
    ...LIBRARY.filter(({ id }) => !snapshot.own.has(id)).map((material) => ({ material, isOwn: false })),
  ];
  const typed = query.trim().toLowerCase();
  const ranked = all.flatMap((found) => {
    const rank = rankMaterial(found.material, typed);
    return rank === NOT_AT_ALL ? [] : [{ found, rank }];
  });
  ranked.sort(
    (a, b) =>
      a.rank - b.rank ||
      Number(b.found.isOwn) - Number(a.found.isOwn) ||
      (typed ? a.found.material.name.length - b.found.material.name.length : 0) ||
      a.found.material.name.localeCompare(b.found.material.name),
  );
  return ranked.slice(0, MOST_FOUND).map(({ found }) => found);
}

/** What materials are asked for by: what was typed, some ids, or the kinds of one's own. */
export interface MaterialQuery {
  query: string;
  ids: readonly string[];
  kinds: readonly string[];
}

/** Materials that answer a search, those of some ids, or one's own of some kinds. */
export async function findMaterials(
  { db, today }: House,
  { query, ids, kinds }: MaterialQuery,
): Promise<FoundMaterial[]> {
  const snapshot = await snapshotOf(db, today);
  if (kinds.length > 0)
    return ownMaterialsOfKinds(snapshot, new Set(kinds)).map((material) => ({ material, isOwn: true }));
  if (ids.length === 0) return searchMaterials(snapshot, query);
  return ids.flatMap((id) => {
    const material = snapshot.material(id);
    return material ? [{ material, isOwn: snapshot.own.has(id) }] : [];
  });
}

/** The maker's own materials of the kinds named, for what may take one another's place. */
function ownMaterialsOfKinds(snapshot: StoreSnapshot, kinds: ReadonlySet<string>): Material[] {
  return [...snapshot.own.values()].filter(({ kind }) => kinds.has(kind));
}
