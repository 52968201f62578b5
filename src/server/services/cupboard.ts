/**
 * What an assessment falls back on: the maker's cupboard first, then the starter library, with the limits and
 * constituents that the paperwork on file brings.
 */
import { formatISO, parseISO, subDays } from 'date-fns';
import type { Knex } from 'knex';
import { mixFinder } from '../../core/formula/mix';
import type { Limit, Material, Stored } from '../../core/formula/types';
import { governingPaper } from '../../core/paperwork/governing';
import { LIBRARY, libraryMaterial } from '../../library';
import { rulebook } from '../../rulebook';
import { today } from '../config';
import { fault } from '../http';
import { findCraftFigures, putCraftFigure, type CraftFigures } from '../repositories/settings';
import { allMaterials, type MaterialDocument, type StoredMaterial } from '../repositories/materials';

/** The limits of a certificate, in force from its own day until the day before the next one's. */
function certificateLimits(document: MaterialDocument, until: string | null): Limit[] {
  const edition = document.edition ? `, ${document.edition} edition` : '';
  const category = document.category ? `, category ${document.category}` : '';
  const make = (id: string, subject: Limit['subject'], maxPct: number): Limit => ({
    id,
    subject,
    maxPct,
    basis: 'cured',
    force: 'certificate',
    from: document.issuedOn,
    to: until,
    source: `Certificate ${document.number}, ${document.issuer}${edition}${category}, ${document.issuedOn}`,
  });
  const limits = (document.limits ?? []).map(({ constituent, maxPct }) =>
    make(`${document.id}-${constituent}`, { type: 'constituent', id: constituent }, maxPct),
  );
  if (document.maxPct === undefined) return limits;
  return [make(document.id, { type: 'material', id: document.materialId }, document.maxPct), ...limits];
}

function dayBefore(day: string): string {
  return formatISO(subDays(parseISO(day), 1), { representation: 'date' });
}

/**
 * A material with what its paperwork says: every certificate's limits, each for its own time, beside its own
 * limits; and the constituents of the allergen declaration that counts today in place of typical ones.
 */
function withPaperwork({ material, documents }: StoredMaterial): Material {
  const certificates = documents.filter(({ type }) => type === 'certificate');
  const limits = certificates.flatMap((certificate, index) => {
    const next = certificates[index - 1];
    return certificateLimits(certificate, next ? dayBefore(next.issuedOn) : null);
  });
  const { newestEdition } = rulebook().scentStandard;
  const declared = governingPaper(documents, 'allergens', today(), newestEdition)?.paper.constituents;
  return {
    ...material,
    limits: [...(material.limits ?? []), ...limits],
    constituents: declared ?? material.constituents,
  };
}

/** Finds materials as they count today: the maker's own with their paperwork, mixes resolved, then the library. */
export function materialFinder(stored: readonly StoredMaterial[]): (id: string) => Material | undefined {
  const plain = new Map(
    stored.filter(({ mix }) => !mix).map((entry) => [entry.material.id, withPaperwork(entry)]),
  );
  const mixes = new Map(
    stored.flatMap(({ material: { id, name }, mix }) =>
      mix ? [[id, { id, name, parts: mix }] as const] : [],
    ),
  );
  return mixFinder((id) => plain.get(id) ?? libraryMaterial(id), mixes);
}

/** The maker's materials, with paperwork and mixes resolved, by id. */
async function cupboard(db: Knex): Promise<Map<string, Material>> {
  const stored = await allMaterials(db);
  const find = materialFinder(stored);
  return new Map(
    stored.flatMap(({ material: { id } }) => {
      const found = find(id);
      return found ? [[id, found] as const] : [];
    }),
  );
}

function withOwnFigures(own: CraftFigures): Limit[] {
  const { limits, craft } = rulebook();
  const advice = craft.map((limit) => {
    const maxPct = Object.hasOwn(own, limit.id) ? own[limit.id] : undefined;
    return maxPct === undefined ? limit : { ...limit, maxPct, source: 'Your own figure' };
  });
  return [...limits, ...advice];
}

/** The starter library and the rulebook as they ship, without any database. */
export function shippedStore(): Stored {
  const { declarables, demands } = rulebook();
  return { material: libraryMaterial, limits: withOwnFigures({}), declarables, demands };
}

/** The stored library and rulebook as the core reads them, with the maker's own craft figures in place. */
export async function storedFor(db: Knex): Promise<Stored> {
  const own = await cupboard(db);
  const limits = withOwnFigures(await findCraftFigures(db));
  return { ...shippedStore(), material: (id) => own.get(id) ?? libraryMaterial(id), limits };
}

/** Sets the maker's own figure for a craft limit, or takes it back with null; 404 where there is no such limit. */
export async function setCraftFigure(db: Knex, id: string, maxPct: number | null): Promise<CraftFigures> {
  if (!rulebook().craft.some((limit) => limit.id === id)) {
    throw fault(404, 'unknown-limit', `There is no craft limit "${id}".`, 'id');
  }
  await putCraftFigure(db, id, maxPct);
  return findCraftFigures(db);
}

/** A material as a search finds it. */
export interface FoundMaterial {
  material: Material;
  /** Whether it stands in the maker's own cupboard, or only in the starter library. */
  isOwn: boolean;
}

/** Materials told at once by a search. */
const MOST_FOUND = 12;

/** How well a name answers what was typed: 0 begins with it, 1 a word does, 2 holds it; -1 not at all. */
function rankOf(name: string, typed: string): number {
  const lower = name.toLowerCase();
  if (lower.startsWith(typed)) return 0;
  if (lower.includes(` ${typed}`)) return 1;
  return lower.includes(typed) ? 2 : -1;
}

/** Materials whose name or ingredient name holds what was typed, the maker's own first. */
export async function searchMaterials(db: Knex, query: string): Promise<FoundMaterial[]> {
  const own = await cupboard(db);
  const all: FoundMaterial[] = [
    ...[...own.values()].map((material) => ({ material, isOwn: true })),
    ...LIBRARY.filter(({ id }) => !own.has(id)).map((material) => ({ material, isOwn: false })),
  ];
  const typed = query.trim().toLowerCase();
  const ranked = all.flatMap((found) => {
    const names = [found.material.name, ...(found.material.inci ?? []).map(({ name }) => name)];
    const ranks = names.map((name) => rankOf(name, typed)).filter((rank) => rank >= 0);
    return ranks.length > 0 ? [{ found, rank: Math.min(...ranks) }] : [];
  });
  ranked.sort(
    (a, b) =>
      a.rank - b.rank ||
      Number(b.found.isOwn) - Number(a.found.isOwn) ||
      a.found.material.name.localeCompare(b.found.material.name),
  );
  return ranked.slice(0, MOST_FOUND).map(({ found }) => found);
}

/** The maker's own materials of the kinds named, for what may take one another's place. */
export async function ownMaterialsOfKinds(db: Knex, kinds: ReadonlySet<string>): Promise<Material[]> {
  return [...(await cupboard(db)).values()].filter(({ kind }) => kinds.has(kind));
}
