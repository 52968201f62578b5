/** What the scent desk reckons of a blend in a bar, through the same door as everything else. */
import { assess } from '../../core/assess';
import type { AssessedLimit, Assessment } from '../../core/formula/answer';
import { mixMaterial, type MixPart } from '../../core/formula/mix';
import { membersOf } from '../../core/formula/subject';
import {
  MARKETS,
  REQUEST_FORMAT,
  type AssessmentRequest,
  type Formula,
  type Market,
  type Material,
  type Stored,
} from '../../core/formula/types';
import { binds } from '../../core/loads/limits';
import { withOils, withoutScent } from '../../core/scent/bar';
import type { BlendOil } from '../../core/scent/programme';
import type { Scent, ScentDeskData, TryBar } from '../../core/records/scent';

export interface Bench {
  stored: Stored;
  material: (id: string) => Material | undefined;
  request: (bar: TryBar, formula: Formula, markets: readonly Market[]) => AssessmentRequest;
}

/** The bench that blends are tried on: a bar's materials and the scents by id, rules, and how a request is made. */
export function benchFrom(
  data: Pick<ScentDeskData, 'first' | 'rules' | 'onDate'>,
  scents: readonly Scent[],
  materials: readonly Material[] = data.first.materials,
): Bench {
  const all = [...materials, ...scents.map(({ material }) => material)];
  const byId = new Map<string, Material>(all.map((material) => [material.id, material]));
  const material = (id: string) => byId.get(id);
  return {
    stored: { ...data.rules, material },
    material,
    request: ({ firstPlacedOn }, formula, markets) => ({
      format: REQUEST_FORMAT,
      formula,
      markets: [...markets],
      onDate: data.onDate,
      firstPlacedOn,
    }),
  };
}

export interface Tried {
  bar: TryBar;
  oils: BlendOil[];
  request: AssessmentRequest;
  assessment: Assessment;
}

/** The blend at a total in percent of the fats in a bar, in place of its scent; null where it does not reckon. */
export function tryBlend(
  bench: Bench,
  bar: TryBar,
  parts: readonly MixPart[],
  totalPctFats: number,
): Tried | null {
  if (!parts.some((part) => part.parts > 0)) return null;
  const { formula, oils } = withOils(withoutScent(bar.formula, bench.material), parts, totalPctFats);
  const request = bench.request(bar, formula, bar.markets);
  const result = assess(request, bench.stored);
  return result.ok ? { bar, oils, request, assessment: result.assessment } : null;
}

/** Parts of an answer are told out of so many in all, to so many digits: a small part at a threshold is not lifted over it. */
const PARTS_IN_ALL = 100;
const DIGITS = 6;

/** The parts of a blend by its masses, out of a hundred, rounded; what weighs nothing is none of it. */
export function partsOfMasses(masses: readonly { line: string; massG: number }[]): MixPart[] {
  const total = masses.reduce((sum, { massG }) => sum + massG, 0);
  return masses.map(({ line, massG }) => ({
    material: line.replace(/^oil /, ''),
    parts: Number(((PARTS_IN_ALL * massG) / total).toPrecision(DIGITS)),
  }));
}

/** How far the whole blend can go, in percent of the fats, and what stops it there; by market. */
export interface Reach {
  market: Market;
  /** Null where nothing binds. */
  mostPctFats: number | null;
  boundBy: AssessedLimit | null;
}

const BLEND_LINE = 'the blend';

/** The reach of a blend kept in its proportions, market by market, in a bar. */
export function reachOf(bench: Bench, bar: TryBar, parts: readonly MixPart[], totalPctFats: number): Reach[] {
  const mixed = mixMaterial({ id: BLEND_LINE, name: BLEND_LINE, parts: [...parts] }, bench.material);
  if (!mixed.ok) return [];
  const base = withoutScent(bar.formula, bench.material);
  const line = {
    id: BLEND_LINE,
    material: BLEND_LINE,
    stage: 'trace' as const,
    amount: { value: Math.max(totalPctFats, 0.01), unit: '%fats' as const },
    measuredBy: 'scale' as const,
  };
  const formula = { ...base, lines: [...base.lines, line] };
  return MARKETS.flatMap((market): Reach[] => {
    const request = { ...bench.request(bar, formula, [market]), materials: [mixed.material] };
    const result = assess(request, bench.stored);
    if (!result.ok) return [];
    const reached = result.assessment.lines.find(({ id }) => id === BLEND_LINE)!;
    return [
      {
        market,
        mostPctFats: reached.maxInUnit?.value ?? null,
        boundBy: result.assessment.limits.find(({ id }) => id === reached.boundBy) ?? null,
      },
    ];
  });
}

/** What the oils bring of one constituent, percent of the cured bar, and what speaks of it. */
export interface Brought {
  id: string;
  name: string;
  /** Per oil, in the order of the blend; typical shares. */
  byOil: number[];
  limit: AssessedLimit | null;
  highPct: number;
  declaredIn: Market[];
}

/** Every limited or declarable constituent of the blend, closest to its limit first, then by what is brought. */
export function broughtBy(
  { assessment, oils }: Tried,
  bench: Bench,
  nameOf: (id: string) => string,
): Brought[] {
  const { curedG } = assessment.masses;
  const massOf = new Map(assessment.lines.map(({ id, massG }) => [id, massG]));
  const lineMaterial = (line: string) => bench.material(line.replace(/^oil /, ''));
  const ids = new Set([
    ...assessment.limits
      .filter(({ subject }) => subject.type === 'constituent')
      .map(({ subject }) => subject.id),
    ...assessment.declarables.map(({ id }) => id),
  ]);
  return [...ids]
    .map((id): Brought => {
      const limit =
        assessment.limits.find(
          ({ subject, force }) => subject.type === 'constituent' && subject.id === id && binds(force),
        ) ?? null;
      const declarables = assessment.declarables.filter((row) => row.id === id);
      const members = membersOf({ type: 'constituent', id });
      const byOil = oils.map(({ line }) => {
        const held = (lineMaterial(line)?.constituents ?? []).filter((one) => members.includes(one.id));
        return held.reduce((sum, { typicalPct }) => sum + ((massOf.get(line) ?? 0) * typicalPct) / curedG, 0);
      });
      return {
        id,
        name: declarables[0]?.name ?? nameOf(id),
        byOil,
        limit,
        highPct: limit?.highPct ?? Math.max(0, ...declarables.map(({ highPct }) => highPct)),
        declaredIn: declarables.filter(({ declare }) => declare).map(({ market }) => market),
      };
    })
    .filter(({ byOil }) => byOil.some((share) => share > 0))
    .sort((a, b) => {
      const room = ({ limit }: Brought) => limit?.headroomPct ?? Infinity;
      return room(a) - room(b) || b.highPct - a.highPct;
    });
}
