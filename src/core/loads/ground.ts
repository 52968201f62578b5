/**
 * The rules in force, made ready for a day and a set of markets: which limits and declarables speak of which
 * subject. One ground serves one assessment or a sweep over thousands of products.
 */
import { isColourPart } from '../formula/colours';
import { isScent } from '../formula/scents';
import { membersOf } from '../formula/subject';
import type { Declarable, Limit, Market, Material, Subject } from '../formula/types';

/** A limit with those of the wanted markets in which it is in force, and their places among the ground's. */
export interface LimitInForce {
  limit: Limit;
  markets: readonly Market[];
  marketIndexes: readonly number[];
}

/** What one gram of a material holds of a subject: grams at the low, typical and high end. */
export interface SubjectShare {
  slot: number;
  low: number;
  typical: number;
  high: number;
}

/** A material's shares of every subject, and the limits its own paperwork brings. */
export interface GroundMaterial {
  /** The first share is that of the material itself. */
  shares: readonly SubjectShare[];
  /** The slots among the shares that the ground's own rules speak of. */
  ruledSlots: readonly number[];
  own: readonly { slot: number; rule: LimitInForce }[];
  /** The slots of the scents in it that want a limit of their own: itself, or its parts where it is a mix. */
  scentSlots: readonly number[];
}

export interface Ground {
  onDate: string;
  markets: readonly Market[];
  slots: Map<string, number>;
  limits: LimitInForce[][];
  declarables: Declarable[][];
  materials: WeakMap<Material, GroundMaterial>;
  /** Subjects of several constituents, with the ids of these. */
  together: { subject: Subject; members: readonly string[] }[];
  /** Scratch of the formula being prepared: a slot's place in it, valid where `seenIn` holds the current run. */
  run: number;
  seenIn: number[];
  placeOf: number[];
}

/** Whether a span of days (either end open when null or undefined) holds the day; both ends count. */
export function isInForce(span: { from?: string | null; to?: string | null }, onDate: string): boolean {
  return (span.from == null || span.from <= onDate) && (span.to == null || onDate <= span.to);
}

/** INCI names and colours are matched without regard to case or outer blanks. */
function subjectKey(subject: Subject): string {
  const id =
    subject.type === 'inci' || subject.type === 'colour' ? subject.id.trim().toLowerCase() : subject.id;
  return `${subject.type} ${id}`;
}

function slotOf(ground: Ground, subject: Subject): number {
  const key = subjectKey(subject);
  const known = ground.slots.get(key);
  if (known !== undefined) return known;
  const slot = ground.slots.size;
  ground.slots.set(key, slot);
  ground.limits[slot] = [];
  ground.declarables[slot] = [];
  ground.seenIn[slot] = 0;
  ground.placeOf[slot] = 0;
  const members = membersOf(subject);
  if (members.length > 1) {
    ground.together.push({ subject, members });
    // What is known of materials does not yet say how much they hold of these together.
    ground.materials = new WeakMap();
  }
  return slot;
}

function inForce(limit: Limit, markets: readonly Market[], onDate: string): LimitInForce | null {
  if (!isInForce(limit, onDate)) return null;
  const inMarkets = limit.markets ? markets.filter((market) => limit.markets!.includes(market)) : markets;
  if (inMarkets.length === 0) return null;
  return { limit, markets: inMarkets, marketIndexes: inMarkets.map((market) => markets.indexOf(market)) };
}

/**
 * The ground of a rulebook for one day and the wanted markets.
 *
 * @example
 * const ground = createGround(rulebook(), ['EU', 'UK'], '2026-11-24'); // shared by every bar assessed on that day
 */
export function createGround(
  rules: { limits: readonly Limit[]; declarables: readonly Declarable[] },
  markets: readonly Market[],
  onDate: string,
): Ground {
  const ground: Ground = {
    onDate,
    markets: [...new Set(markets)],
    slots: new Map(),
    limits: [],
    declarables: [],
    materials: new WeakMap(),
    together: [],
    run: 0,
    seenIn: [],
    placeOf: [],
  };
  for (const limit of rules.limits) {
    const rule = inForce(limit, ground.markets, onDate);
    if (rule) ground.limits[slotOf(ground, limit.subject)]!.push(rule);
  }
  for (const declarable of rules.declarables) {
    ground.declarables[slotOf(ground, { type: 'constituent', id: declarable.id })]!.push(declarable);
  }
  return ground;
}

const PER_HUNDRED = 1 / 100;

function sharesOf(ground: Ground, material: Material): SubjectShare[] {
  const bySlot = new Map<number, SubjectShare>();
  const add = (subject: Subject, low: number, typical: number, high: number) => {
    const slot = slotOf(ground, subject);
    const share = bySlot.get(slot) ?? { slot, low: 0, typical: 0, high: 0 };
    share.low += low;
    share.typical += typical;
    share.high += high;
    bySlot.set(slot, share);
  };
  add({ type: 'material', id: material.id }, 1, 1, 1);
  const madeOf = material.madeOf ?? [];
  if (madeOf.length === 0) add({ type: 'kind', id: material.kind }, 1, 1, 1);
  for (const part of madeOf) {
    const share = part.sharePct * PER_HUNDRED;
    add({ type: 'kind', id: part.kind }, share, share, share);
    add({ type: 'material', id: part.material }, share, share, share);
  }
  for (const { id, lowPct, typicalPct, highPct } of material.constituents ?? []) {
    const share = [lowPct * PER_HUNDRED, typicalPct * PER_HUNDRED, highPct * PER_HUNDRED] as const;
    add({ type: 'constituent', id }, ...share);
    for (const { subject, members } of ground.together) if (members.includes(id)) add(subject, ...share);
  }
  for (const part of material.inci ?? []) {
    const { name, sharePct, colour } = part;
    const share = sharePct * PER_HUNDRED;
    add({ type: 'inci', id: name }, share, share, share);
    if (isColourPart(material, part)) add({ type: 'colour', id: colour ?? name }, share, share, share);
  }
  return [...bySlot.values()].filter((share) => share.high > 0);
}

/** What the ground knows of a material; reckoned once for each material object. */
export function groundMaterial(ground: Ground, material: Material): GroundMaterial {
  const known = ground.materials.get(material);
  if (known) return known;
  const own: { slot: number; rule: LimitInForce }[] = [];
  for (const limit of material.limits ?? []) {
    const rule = inForce(limit, ground.markets, ground.onDate);
    if (rule) own.push({ slot: slotOf(ground, limit.subject), rule });
  }
  const shares = sharesOf(ground, material);
  const isRuled = (slot: number) => ground.limits[slot]!.length > 0 || ground.declarables[slot]!.length > 0;
  const ruledSlots = shares.map(({ slot }) => slot).filter(isRuled);
  const scents = material.madeOf?.length
    ? material.madeOf.filter(isScent).map((part) => part.material)
    : isScent(material)
      ? [material.id]
      : [];
  const scentSlots = scents.map((id) => slotOf(ground, { type: 'material', id }));
  const entry: GroundMaterial = { shares, ruledSlots, own, scentSlots };
  ground.materials.set(material, entry);
  return entry;
}
