/** Formulas generated from the starter library by a seeded model, for properties and benchmarks. */
import type { Formula, Line, Material, Stage } from '../../src/core/formula/types';
import type { Unit } from '../../src/core/quantities/units';
import type { SweepProduct } from '../../src/core/sweep';
import { LIBRARY } from '../../src/library';
import { rulebook } from '../../src/rulebook';
import type { StoredProduct } from '../../src/server/jobs/reckon-jobs';

/** A small seeded generator of numbers from 0 to 1 (mulberry32). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Library materials with a made-up certificate on every scent but a few. */
export function certifiedMaterials(): Material[] {
  const random = seeded(7);
  return LIBRARY.map((material) => {
    if (material.shelf !== 'scents' || random() < 0.1) return material;
    const limit = {
      id: `cert-${material.id}`,
      subject: { type: 'material' as const, id: material.id },
      maxPct: Number((0.3 + random() * 6).toFixed(3)),
      basis: 'cured' as const,
      force: 'certificate' as const,
      source: 'Made-up certificate',
    };
    return { ...material, limits: [limit] };
  });
}

/** The rulebook's limits, law and craft. */
export function allLimits() {
  const { limits, craft } = rulebook();
  return [...limits, ...craft];
}

const ADD_IN_UNITS: readonly [Unit, number][] = [
  ['%fats', 2],
  ['g', 12],
  ['oz', 0.5],
  ['%cured', 1.2],
  ['%pour', 1],
  ['gPerKgFats', 15],
  ['ozPerLbFats', 0.2],
  ['tsp', 2],
  ['tbspPerLbFats', 0.5],
];

function pick<T>(items: readonly T[], random: () => number): T {
  return items[Math.floor(random() * items.length)]!;
}

const ADD_INS = LIBRARY.filter(({ shelf }) => shelf !== 'fats' && shelf !== 'liquids');
const TRIGLYCERIDES = LIBRARY.filter(({ kind }) => kind === 'fat');

/** A formula of `count` lines (at least 4): fats, water, and add-ins in all sorts of units. */
export function generateFormula(count: number, random: () => number): Formula {
  const fats = Math.max(2, Math.min(8, Math.floor(count / 4)));
  const lines: Line[] = [];
  const add = (material: Material, stage: Stage, value: number, unit: Unit, portion?: string) =>
    lines.push({
      id: `l${lines.length + 1}`,
      material: material.id,
      stage,
      amount: { value, unit },
      ...(portion ? { portion } : {}),
    });
  for (let i = 0; i < fats; i++) add(pick(TRIGLYCERIDES, random), 'fats', 100 / fats, '%fats');
  add(
    LIBRARY.find(({ id }) => id === 'water')!,
    'liquid',
    100,
    '%liquid',
  );
  const hasPortions = random() < 0.5;
  while (lines.length < count) {
    const [unit, size] = pick(ADD_IN_UNITS, random);
    const portion = hasPortions && random() < 0.3 ? pick(['A', 'B'], random) : undefined;
    add(
      pick(ADD_INS, random),
      pick(['intoFats', 'trace', 'top'] as const, random),
      size * (0.2 + random()),
      unit,
      portion,
    );
  }
  return {
    name: 'Generated',
    fatsMassG: Math.round(500 + random() * 2000),
    alkali: { superfatPct: Math.round(random() * 15), purityPct: 99 },
    liquid: { basis: 'ofFats', value: 28 + random() * 10 },
    cure: { residualWaterPct: Math.round(4 + random() * 8) },
    marginPct: 10,
    portions: hasPortions
      ? [
          { id: 'A', share: 0.6 },
          { id: 'B', share: 0.4 },
        ]
      : null,
    lines,
  };
}

/** Products as the store holds them. */
export function asStored(products: readonly SweepProduct[]): StoredProduct[] {
  return products.map(({ id, formula }) => ({ id, formulaText: JSON.stringify(formula) }));
}

/** So many products with formulas of 8 to 24 lines. */
export function generateProducts(count: number, seed: number): SweepProduct[] {
  const random = seeded(seed);
  return Array.from({ length: count }, (_, index) => ({
    id: `p${index}`,
    formula: generateFormula(8 + Math.floor(random() * 17), random),
  }));
}
