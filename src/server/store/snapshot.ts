/**
 * One snapshot of the store: the materials with the papers that count on a day, limits, declarables and demands,
 * as one value that never changes. Whatever reckons takes one; nothing else reads the library while it reckons.
 */
import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { mixFinder } from '../../core/formula/mix';
import type { Formula, Limit, Material, Stored } from '../../core/formula/types';
import { governingPaper } from '../../core/paperwork/governing';
import type { MaterialDocument } from '../../core/records/papers';
import { dayAfter } from '../../core/quantities/day';
import { LIBRARY, libraryMaterial } from '../../library';
import { withReached } from '../../library/reach';
import { rulebook } from '../../rulebook';
import type { Rulebook } from '../../rulebook/types';
import { allMaterials, type StoredMaterial } from '../repositories/materials';
import { findHouseRules, type HouseRules } from '../repositories/settings';

export interface StoreSnapshot extends Stored {
  /** Names what it holds: the same content on the same day has the same id. */
  readonly id: string;
  readonly onDate: string;
  readonly edition: string;
  /** The maker's own materials as they count, by id. */
  readonly own: ReadonlyMap<string, Material>;
  /** As they are on file. */
  readonly stored: readonly StoredMaterial[];
}

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
  if (document.maxPct === undefined || document.maxPct === null) return limits;
  return [make(document.id, { type: 'material', id: document.materialId }, document.maxPct), ...limits];
}

/**
 * A material with what its paperwork says on a day: every certificate's limits, each for its own time, beside
 * its own limits; and the constituents of the allergen declaration that counts then in place of typical ones.
 */
function withPaperwork({ material, documents }: StoredMaterial, onDate: string): Material {
  const certificates = documents.filter(({ type }) => type === 'certificate');
  const limits = certificates.flatMap((certificate, index) => {
    const next = certificates[index - 1];
    return certificateLimits(certificate, next ? dayAfter(next.issuedOn, -1) : null);
  });
  const { newestEdition } = rulebook().scentStandard;
  const declared = governingPaper(documents, 'allergens', onDate, newestEdition)?.paper.constituents;
  return {
    ...material,
    limits: [...(material.limits ?? []), ...limits],
    constituents: declared ?? material.constituents,
  };
}

/** Finds materials as they count on a day: the maker's own with their paperwork, mixes resolved, then the library. */
export function materialFinder(
  stored: readonly StoredMaterial[],
  onDate: string,
): (id: string) => Material | undefined {
  const plain = new Map(
    stored
      .filter(({ mix }) => !mix)
      .map((entry) => [entry.material.id, withReached(withPaperwork(entry, onDate))]),
  );
  const mixes = new Map(
    stored.flatMap(({ material: { id, name }, mix }) =>
      mix ? [[id, { id, name, parts: mix }] as const] : [],
    ),
  );
  return mixFinder((id) => plain.get(id) ?? libraryMaterial(id), mixes);
}

/** The part of a rulebook edition that a snapshot takes. */
interface Book extends Pick<Rulebook, 'edition' | 'declarables' | 'demands' | 'craft'> {
  limits: readonly Limit[];
}

/** The edition in force: one taken in, one that ships by its name, else the newest that ships. */
function bookInForce({ inForce, onFile }: HouseRules['editions']): Book {
  const taken = onFile.find(({ edition }) => edition === inForce);
  const shipped = inForce !== null && !taken ? rulebook(inForce) : rulebook();
  if (!taken) return shipped;
  const { edition, limits, declarables } = taken;
  return { edition, limits, declarables, demands: shipped.demands, craft: shipped.craft };
}

function limitsOf({ limits, craft }: Book, { figures, ownLimits }: HouseRules): Limit[] {
  const advice = craft.map((limit) => {
    const maxPct = Object.hasOwn(figures, limit.id) ? figures[limit.id] : undefined;
    return maxPct === undefined ? limit : { ...limit, maxPct, source: 'Your own figure' };
  });
  return [...limits, ...advice, ...ownLimits];
}

/** What counts where the house has no rules of its own. */
const NO_HOUSE_RULES: HouseRules = {
  figures: {},
  ownLimits: [],
  editions: { inForce: null, onFile: [] },
};

/** Names the library and rulebook that this program ships with. */
const SHIPPED = createHash('sha256')
  .update(JSON.stringify([LIBRARY, rulebook()]))
  .digest('hex')
  .slice(0, 12);

/** A snapshot of what is on file, as it counts on a day. */
export function makeSnapshot(
  stored: readonly StoredMaterial[],
  rules: HouseRules,
  onDate: string,
): StoreSnapshot {
  const book = bookInForce(rules.editions);
  const find = materialFinder(stored, onDate);
  const own = new Map(
    stored.flatMap(({ material: { id } }) => {
      const found = find(id);
      return found ? [[id, found] as const] : [];
    }),
  );
  const { declarables, demands, edition } = book;
  const content = createHash('sha256')
    .update(JSON.stringify([stored, rules]))
    .digest('hex')
    .slice(0, 16);
  return {
    id: `${SHIPPED} ${content} ${onDate}`,
    onDate,
    edition,
    own,
    stored,
    material: (id) => own.get(id) ?? libraryMaterial(id),
    limits: limitsOf(book, rules),
    declarables,
    demands,
  };
}

/** The starter library and the rulebook as they ship, without any database. */
export function shippedStore(onDate: string): StoreSnapshot {
  return makeSnapshot([], NO_HOUSE_RULES, onDate);
}

/** What was read of a database at one state of its ground, and the snapshots made of it, by day. */
interface Held {
  ground: number;
  stored: readonly StoredMaterial[];
  rules: HouseRules;
  byDay: Map<string, StoreSnapshot>;
}

/** Days of one ground that are kept: today, and those of batches that are looked at. */
const MOST_DAYS = 6;

/** The last ground of each open database, by its settings, which its transactions share. */
const held = new WeakMap<object, Held>();

const keyOf = (db: Knex): object => (db.client as { config: object }).config;

/**
 * The snapshot of a database on a day. One statement where nothing it holds has changed. Within a transaction that
 * changed something it is made of what stands there by then, and kept for nobody else: it may be taken back.
 */
export async function snapshotOf(db: Knex, onDate: string): Promise<StoreSnapshot> {
  const { ground }: { ground: number } = await db('store').first('ground');
  const known = held.get(keyOf(db));
  const isSame = known?.ground === ground;
  const found = isSame ? known.byDay.get(onDate) : undefined;
  if (found) return found;
  const [stored, rules] = isSame
    ? [known.stored, known.rules]
    : [await allMaterials(db), await findHouseRules(db)];
  const made = makeSnapshot(stored, rules, onDate);
  if (!isSame && db.isTransaction) return made;
  // The same content keeps its snapshot, whatever counted the ground up.
  const before = known?.byDay.get(onDate);
  const snapshot = before?.id === made.id ? before : made;
  const byDay = isSame ? known.byDay : new Map<string, StoreSnapshot>();
  if (byDay.size >= MOST_DAYS) byDay.delete(byDay.keys().next().value!);
  byDay.set(onDate, snapshot);
  held.set(keyOf(db), { ground, stored, rules, byDay });
  return snapshot;
}

/** The materials of a formula, each once. */
export function materialsOf(formula: Formula, snapshot: StoreSnapshot): Material[] {
  const ids = new Set(formula.lines.map(({ material }) => material));
  return [...ids].flatMap((id) => snapshot.material(id) ?? []);
}
