/** Small requests for worked examples: own materials, own rules, nothing stored. */
import { expect } from 'chai';
import { assess } from '../../src/core/assess';
import type { Assessment } from '../../src/core/formula/answer';
import {
  REQUEST_FORMAT,
  type AssessmentRequest,
  type Formula,
  type Limit,
  type Line,
  type Material,
  type Stage,
  type Stored,
} from '../../src/core/formula/types';
import type { Unit } from '../../src/core/quantities/units';

export const NOTHING_STORED: Stored = { material: () => undefined, limits: [], declarables: [] };

function plain(id: string, kind: Material['kind'], more: Partial<Material> = {}): Material {
  return { id, name: id, kind, inci: [{ name: `INCI ${id}`, sharePct: 100 }], ...more };
}

function fat(id: string, naohPerGram: number, more: Partial<Material> = {}): Material {
  return plain(id, 'fat', {
    saponification: { naohPerGram, as: 'triglyceride', formedInci: `Soap ${id}` },
    ...more,
  });
}

const scentPart = (name: string) => [{ name, sharePct: 100, role: 'scent' as const }];

/** Round figures, so that examples can be worked by hand. */
export const MATERIALS: Material[] = [
  fat('olive', 0.135),
  fat('coconut', 0.18, { fattyAcids: { lauric: 48 } }),
  fat('stearic', 0.14, {
    saponification: { naohPerGram: 0.14, as: 'freeAcid', formedInci: 'Sodium Stearate' },
  }),
  plain('wax', 'wax', { saponification: { naohPerGram: 0.07, as: 'wax', formedInci: 'Sodium Beeswax' } }),
  plain('water', 'liquid', { waterPct: 100, inci: [{ name: 'Aqua', sharePct: 100, role: 'water' }] }),
  plain('milk', 'milk', {
    waterPct: 80,
    fatPct: 10,
    fatSaponification: { naohPerGram: 0.16, as: 'triglyceride', formedInci: 'Soap milk' },
  }),
  plain('citric', 'acid', { alkaliUptake: 0.6, formedInci: 'Sodium Citrate' }),
  plain('clay', 'clay', { bulkDensity: 0.6 }),
  plain('salt', 'salt', { bulkDensity: 1.2 }),
  plain('clove', 'essentialOil', {
    inci: scentPart('Clove Oil'),
    constituents: [{ id: 'eugenol', lowPct: 75, typicalPct: 80, highPct: 90 }],
  }),
  plain('cinnamon', 'essentialOil', {
    inci: scentPart('Cinnamon Oil'),
    constituents: [{ id: 'eugenol', lowPct: 60, typicalPct: 70, highPct: 80 }],
  }),
  plain('perfume', 'fragrance', {
    inci: scentPart('Perfume'),
    constituents: [{ id: 'linalool', lowPct: 0.1, typicalPct: 0.2, highPct: 0.3 }],
  }),
  plain('red', 'colourant', {
    inci: [{ name: 'CI 77491', sharePct: 100, role: 'colourant', names: { US: 'Iron Oxides' } }],
  }),
];

export type ShortLine = [
  id: string,
  material: string,
  stage: Stage,
  value: number,
  unit: Unit,
  more?: Partial<Line>,
];

export function lines(short: ShortLine[]): Line[] {
  return short.map(([id, material, stage, value, unit, more]) => ({
    id,
    material,
    stage,
    amount: { value, unit },
    ...more,
  }));
}

export function request(
  short: ShortLine[],
  formula: Partial<Formula> = {},
  more: Partial<AssessmentRequest> = {},
): AssessmentRequest {
  return {
    format: REQUEST_FORMAT,
    formula: {
      alkali: { superfatPct: 5, purityPct: 100 },
      cure: { residualWaterPct: 10 },
      ...formula,
      lines: lines(short),
    },
    materials: MATERIALS,
    rules: { replace: true },
    markets: ['EU'],
    onDate: '2026-11-24',
    ...more,
  };
}

/** The assessment of a request that has to succeed. */
export function assessed(asked: AssessmentRequest, stored: Stored = NOTHING_STORED): Assessment {
  const result = assess(asked, stored);
  if (!result.ok) expect.fail(JSON.stringify(result.errors));
  return result.assessment;
}

export function limitOn(subject: Limit['subject'], maxPct: number, more: Partial<Limit> = {}): Limit {
  return { id: `max-${subject.id}`, subject, maxPct, basis: 'cured', force: 'certificate', ...more };
}

/** Equal within a relative distance. */
export function near(actual: number | null | undefined, wanted: number, relative = 1e-10): void {
  expect(actual).to.be.a('number');
  expect(Math.abs(actual! - wanted), `${actual} is not ${wanted}`).to.be.at.most(
    relative * Math.max(1, Math.abs(wanted)),
  );
}
