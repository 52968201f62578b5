/** Reckoning on threads. A setting travels once as shared bytes and stays parsed in the thread under its id. */
import { assess, type Result } from '../../core/assess';
import { createGround, type Ground } from '../../core/loads/ground';
import { VERDICTS } from '../../core/formula/answer';
import { sweepProduct, type SweepMarket, type SweepRow } from '../../core/sweep';
import type {
  AssessmentRequest,
  CraftDemand,
  Declarable,
  Formula,
  Limit,
  Market,
  Material,
  Stored,
} from '../../core/formula/types';
import { overviewOf, type Overview, type OverviewInput } from '../../core/overview';
import type { OwnPhrase } from '../../core/claims/types';
import { libraryMaterial } from '../../library';
import { claimReader } from '../../rulebook/claims';

/** What everything of one job is held against. */
export interface Setting {
  materials: Material[];
  limits: readonly Limit[];
  declarables: readonly Declarable[];
  demands?: readonly CraftDemand[];
  phrases?: readonly OwnPhrase[];
}

/** A setting as it travels: the bytes of its JSON text in memory that all threads see. */
export interface SharedSetting {
  id: string;
  bytes: Uint8Array;
}

interface Known {
  stored: Stored;
  reader: ReturnType<typeof claimReader> | null;
  phrases: readonly OwnPhrase[];
  grounds: Map<string, Ground>;
}

/** Settings a thread keeps parsed. */
const MOST_KEPT = 3;
const kept = new Map<string, Known>();

/** Writes a setting into memory that threads share. */
export function shareSetting(id: string, setting: Setting): SharedSetting {
  const text = new TextEncoder().encode(JSON.stringify(setting));
  const bytes = new Uint8Array(new SharedArrayBuffer(text.byteLength));
  bytes.set(text);
  return { id, bytes };
}

function settingOf({ id, bytes }: SharedSetting): Known {
  const known = kept.get(id);
  if (known) return known;
  const text = new TextDecoder().decode(new Uint8Array(bytes));
  const { materials, limits, declarables, demands, phrases } = JSON.parse(text) as Setting;
  const byId = new Map(materials.map((material) => [material.id, material]));
  const stored: Stored = {
    material: (one) => byId.get(one) ?? libraryMaterial(one),
    limits,
    declarables,
    demands,
  };
  const made: Known = { stored, reader: null, phrases: phrases ?? [], grounds: new Map() };
  if (kept.size >= MOST_KEPT) kept.delete([...kept.keys()][0]!);
  kept.set(id, made);
  return made;
}

/** What a shared setting holds, as assessments take it. */
export const storedOf = (setting: SharedSetting): Stored => settingOf(setting).stored;

/** Assesses one request. */
export function assessOnThread({
  setting,
  request,
}: {
  setting: SharedSetting;
  request: AssessmentRequest;
}): Result {
  return assess(request, settingOf(setting).stored);
}

/** What overviews show of some bars. */
export function overviews({
  setting,
  bars,
}: {
  setting: SharedSetting;
  bars: readonly OverviewInput[];
}): Overview[] {
  const known = settingOf(setting);
  known.reader ??= claimReader(known.phrases);
  return bars.map((bar) => overviewOf(bar, known.stored, known.reader!));
}

/** A product with its formula as the store holds it. */
export interface StoredProduct {
  id: string;
  /** JSON text of a formula. */
  formulaText: string;
}

/**
 * A swept chunk as it travels: three numbers a product and market (the verdict's place among `VERDICTS`, the headroom,
 * the place of what binds among `binding`), NaN where there is none; the first is NaN where the formula does not reckon.
 */
export interface SweptChunk {
  stands: Float64Array;
  binding: string[];
}

function flat(rows: readonly SweepRow[], markets: number): SweptChunk {
  const stands = new Float64Array(rows.length * markets * 3).fill(NaN);
  const places = new Map<string, number>();
  const placeOf = (limit: string) => {
    const place = places.get(limit) ?? places.size;
    places.set(limit, place);
    return place;
  };
  let at = 0;
  for (const row of rows) {
    for (let market = 0; market < markets; market++, at += 3) {
      const stand = row.markets?.[market];
      if (!stand) continue;
      stands[at] = VERDICTS.indexOf(stand.verdict);
      stands[at + 1] = stand.headroomPct ?? NaN;
      stands[at + 2] = stand.limit === null ? NaN : placeOf(stand.limit);
    }
  }
  return { stands, binding: [...places.keys()] };
}

/** The rows of a chunk that travelled; the products and markets are those it was asked for. */
export function rowsOf(
  { stands, binding }: SweptChunk,
  products: readonly { id: string }[],
  markets: readonly Market[],
): SweepRow[] {
  let at = 0;
  return products.map(({ id }) => {
    const found = markets.map((market): SweepMarket | null => {
      const [verdict, headroomPct, place] = [stands[at]!, stands[at + 1]!, stands[at + 2]!];
      at += 3;
      if (Number.isNaN(verdict)) return null;
      return {
        market,
        verdict: VERDICTS[verdict]!,
        headroomPct: Number.isNaN(headroomPct) ? null : headroomPct,
        limit: Number.isNaN(place) ? null : binding[place]!,
      };
    });
    return { id, markets: found.every((stand) => stand !== null) ? found : null };
  });
}

/** Sweeps a chunk of products; what is found travels as numbers, which costs a fraction of cloning as many objects. */
export function sweepChunk({
  setting,
  markets,
  onDate,
  products,
}: {
  setting: SharedSetting;
  markets: readonly Market[];
  onDate: string;
  products: readonly StoredProduct[];
}): SweptChunk {
  const { stored, grounds } = settingOf(setting);
  const key = `${onDate} ${markets.join(' ')}`;
  const ground = grounds.get(key) ?? createGround(stored, markets, onDate);
  grounds.set(key, ground);
  const rows = products.map(({ id, formulaText }) =>
    sweepProduct(ground, { id, formula: JSON.parse(formulaText) as Formula }, (one) => stored.material(one)),
  );
  return flat(rows, markets.length);
}
