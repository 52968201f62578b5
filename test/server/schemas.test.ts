/** The published schemas and the door say the same: what one lets in, the other lets in. */
import { readFileSync } from 'node:fs';
import Ajv2020 from 'ajv/dist/2020';
import { expect } from 'chai';
import fc from 'fast-check';
import { AssessmentRequestDoor } from '../../src/server/doors/assessment-request';
import { checkShape } from '../../src/server/doors/shape';
import { generateFormula, seeded } from '../support/generate';
import { many } from '../support/many';

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };

const schema = (name: string) =>
  JSON.parse(readFileSync(`public/schemas/${name}.schema.json`, 'utf8')) as object;

/** A request with something in every field the exchange format names. */
function fullRequest(seed: number): Json {
  const formula = generateFormula(6, seeded(seed));
  const limit = {
    id: 'limit-1',
    subject: { type: 'material', id: 'perfume' },
    maxPct: 5,
    basis: 'cured',
    force: 'certificate',
    markets: ['EU', 'US'],
    from: '2025-01-01',
    to: '2027-12-31',
    source: 'Certificate 1',
  };
  const material = {
    id: 'own',
    name: 'Own',
    kind: 'fat',
    saponification: { naohPerGram: 0.13, as: 'triglyceride', formedInci: 'Sodium Ownate' },
    fatPct: 1,
    fatSaponification: { naohPerGram: 0.13 },
    waterPct: 2,
    alkaliUptake: 0,
    formedInci: 'Sodium Ownate',
    bulkDensity: 0.9,
    density: 0.9,
    inci: [{ name: 'Own', sharePct: 100, role: 'ingredient', names: { US: 'Own' } }],
    constituents: [{ id: 'linalool', lowPct: 1, typicalPct: 2, highPct: 3 }],
    limits: [limit],
    fattyAcids: { oleic: 70 },
    madeOf: [{ material: 'olive', kind: 'fat', sharePct: 100 }],
  };
  const declarable = {
    id: 'linalool',
    name: 'Linalool',
    markets: ['EU'],
    thresholdPct: 0.01,
    newFrom: '2005-03-11',
    allFrom: '2005-03-11',
  };
  const asked = {
    format: 'proportia.assessment-request/1',
    formula: {
      ...formula,
      format: 'proportia.formula/1',
      name: 'A bar',
      usedOn: 'body',
      bars: 12,
      liquid: { basis: 'ofFats', value: 33 },
      cure: { residualWaterPct: 8 },
    },
    materials: [material],
    rules: { replace: true, limits: [limit], declarables: [declarable] },
    markets: ['EU', 'UK'],
    onDate: '2026-11-24',
    firstPlacedOn: { EU: '2026-11-24' },
    explain: false,
  };
  return JSON.parse(JSON.stringify(asked)) as Json;
}

/** Every place in a value, as a path of keys. */
function places(value: Json, path: readonly string[] = []): string[][] {
  const own = path.length > 0 ? [[...path]] : [];
  if (value === null || typeof value !== 'object') return own;
  return [...own, ...Object.entries(value).flatMap(([key, inner]) => places(inner, [...path, key]))];
}

/** Puts another value in a place, or takes the place out. */
function bent(value: Json, path: readonly string[], put: Json | undefined): Json {
  const copy = structuredClone(value);
  let at = copy as Record<string, Json>;
  for (const key of path.slice(0, -1)) at = at[key] as Record<string, Json>;
  const last = path.at(-1)!;
  if (put !== undefined) at[last] = put;
  else if (Array.isArray(at)) at.splice(Number(last), 1);
  else delete at[last];
  return copy;
}

const LENGTHS = [0, 1, 79, 80, 81, 119, 120, 121, 199, 200, 201, 399, 400, 401, 2001];
const PUT: fc.Arbitrary<Json | undefined> = fc.oneof(
  fc.constantFrom<Json | undefined>(undefined, null, true, '', 'a', [], {}, [null], { a: 1 }),
  fc.constantFrom<Json>(-101, -100, -1, 0, 0.005, 0.01, 0.5, 1, 1.0001, 5, 5.1, 25, 26, 99, 100, 100.5),
  fc.constantFrom<Json>(1000, 1001, 10_000, 10_001, 1e9, 1e9 + 1, 1e300),
  fc.constantFrom<Json>('2026-11-24', '2026-13-01', '2026-1-1', '2026-11-32', '20261124', 'EU', 'g', 'stone'),
  fc.constantFrom<Json>('a\u0000b', 'a\nb', 'a\u2028b', 'a\u009fb', 'ü', 'scale', 'fats', 'trace'),
  fc.constantFrom(...LENGTHS).map((length) => 'a'.repeat(length)),
);

describe('the published schemas and the doors', () => {
  const ajv = new Ajv2020({ strict: true, allowUnionTypes: true });
  ajv.addSchema(schema('formula'));
  const validate = ajv.compile(schema('assessment-request'));

  it('let in the same requests, whatever field is bent to whatever value', () => {
    let refused = 0;
    let taken = 0;
    fc.assert(
      fc.property(fc.nat(), fc.nat(), PUT, (seed, at, put) => {
        const asked = fullRequest(seed);
        const paths = places(asked);
        const path = paths[at % paths.length]!;
        const input = bent(asked, path, put);
        const door = checkShape(AssessmentRequestDoor, input);
        const bySchema = validate(input);
        if (bySchema) taken++;
        else refused++;
        const told = `${path.join('.')} = ${JSON.stringify(put)}`;
        const faults = 'errors' in door ? JSON.stringify(door.errors) : '';
        expect(bySchema, `${told}: ${faults || ajv.errorsText(validate.errors)}`).to.equal(faults === '');
      }),
      { numRuns: many(600, 3000) },
    );
    expect(Math.min(refused, taken) / (refused + taken)).to.be.above(0.08);
  });
});
