/** The assessment's door: shapes, faults, formats, and what no request may do. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Ajv2020 from 'ajv/dist/2020';
import { expect } from 'chai';
import * as types from '../../src/core/formula/types';
import { UNITS } from '../../src/core/quantities/units';
import { hostilePlace } from '../../src/server/doors/shape';
import { assessValue } from '../../src/server/services/worktable/assessment';
import { shippedStore } from '../../src/server/store/snapshot';
import { generateFormula, seeded } from '../support/generate';
import { MATERIALS, NOTHING_STORED, request, type ShortLine } from '../support/request';
import { many } from '../support/many';

const SHORT: ShortLine[] = [
  ['f', 'olive', 'fats', 1000, 'g'],
  ['w', 'water', 'liquid', 300, 'g'],
  ['p', 'perfume', 'trace', 30, 'g'],
];

/** A fresh request with one field, named by its path, set to something. */
function withField(path: string, value: unknown): unknown {
  const asked = JSON.parse(JSON.stringify(request(SHORT))) as Record<string, unknown>;
  const keys = path.split('.');
  let at = asked;
  for (const key of keys.slice(0, -1)) at = at[key] as Record<string, unknown>;
  at[keys.at(-1)!] = value;
  return asked;
}

const codes = (input: unknown) => {
  const result = assessValue(input, NOTHING_STORED);
  return result.ok ? 'ok' : result.errors.map(({ path, code }) => `${path} ${code}`).join('; ');
};

function schema(name: string): object {
  return JSON.parse(readFileSync(`public/schemas/${name}.schema.json`, 'utf8')) as object;
}

describe('the door of the assessment', () => {
  it('takes a good request, null for what may be left out, and ignores what it does not know', () => {
    expect(codes(request(SHORT))).to.equal('ok');
    expect(codes(withField('formula.portions', null))).to.equal('ok');
    expect(codes(withField('formula.lines.0.colour', { deep: [1, 2, 3] }))).to.equal('ok');
  });

  it('tells each fault with the path to its field', () => {
    const cases: [path: string, value: unknown, code: string][] = [
      ['format', 'other/1', 'format'],
      ['formula', 7, 'not-an-object'],
      ['formula.lines', {}, 'not-a-list'],
      ['formula.lines.0', null, 'not-an-object'],
      ['formula.lines.2.amount.unit', 'stone', 'unknown-unit'],
      ['formula.lines.2.amount.unit', 'constructor', 'unknown-unit'],
      ['formula.lines.2.amount.value', -1, 'negative'],
      ['formula.lines.2.amount.value', 'ten', 'not-a-number'],
      ['formula.lines.2.amount.value', 1e300, 'too-large'],
      ['formula.lines.2.amount', [], 'not-an-object'],
      ['formula.lines.2.stage', 'later', 'not-allowed'],
      ['formula.lines.2.material', '', 'length'],
      ['formula.alkali.purityPct', 0, 'too-small'],
      ['formula.liquid', { basis: 'alkaliConcentration', value: 0 }, 'concentration'],
      ['formula.cure.massRatio', 2, 'too-large'],
      ['materials.0.inci.0.role', 'magic', 'not-allowed'],
      ['materials.0.kind', '__proto__', 'not-allowed'],
      ['rules.replace', 'yes', 'not-a-boolean'],
      ['markets', [], 'empty'],
      ['markets', ['EU', 'Mars'], 'unknown-market'],
      ['onDate', '2026-02-30', 'not-a-day'],
      ['firstPlacedOn', { GB: '2026-01-01' }, 'not-a-day'],
    ];
    for (const [path, value, code] of cases) {
      expect(codes(withField(path, value)), `${path} = ${JSON.stringify(value)}`).to.contain(code);
      const named = path
        .replace(/^formula\.liquid$/, 'formula.liquid.value')
        .replace(/^formula\.lines\.0$/, 'formula.lines');
      expect(codes(withField(path, value))).to.contain(named);
    }
    expect(codes('text')).to.equal(' not-an-object');
    expect(codes([])).to.equal(' not-an-object');
    expect(codes(null)).to.equal(' not-an-object');
  });

  it('refuses deep nesting without walking into it', () => {
    const deep = JSON.parse('{"a":'.repeat(50_000) + '1' + '}'.repeat(50_000)) as unknown;
    expect(codes(withField('formula.extra', deep))).to.equal('ok');
    expect(hostilePlace(withField('formula.extra', deep))).to.include({ code: 'too-deep' });
    for (const key of ['__proto__', 'constructor', 'prototype']) {
      const named = withField('formula.extra', JSON.parse(`[{"a":{"${key}":1}}]`));
      expect(hostilePlace(named)).to.include({ code: 'reserved', path: `formula.extra.0.a.${key}` });
    }
    expect(hostilePlace(withField('formula.extra', ['constructor']))).to.equal(null);
  });

  it('refuses what would take minutes to reckon, and answers what is merely large', () => {
    const constituents = Array.from({ length: 300 }, (_, i) => ({
      id: `c${i}`,
      lowPct: 0,
      typicalPct: 0.1,
      highPct: 0.2,
    }));
    const limits = constituents.flatMap(({ id }) =>
      [1, 2, 3, 4].map((n) => ({
        id: `${id}-${n}`,
        subject: { type: 'constituent' as const, id },
        maxPct: n,
        basis: 'cured' as const,
        force: 'law' as const,
      })),
    );
    const monster = { id: 'monster', name: 'Monster', kind: 'essentialOil' as const, constituents };
    const many = (count: number, portions: number) => ({
      ...request(
        [
          SHORT[0]!,
          ...Array.from({ length: count }, (_, i): ShortLine => [`m${i}`, 'monster', 'trace', 0.1, '%cured']),
        ],
        {
          portions: Array.from({ length: portions }, (_, i) => ({ id: `p${i}`, share: 1 / portions })),
        },
      ),
      materials: [...MATERIALS, monster],
      rules: { replace: true, limits },
    });
    expect(codes(many(450, 40))).to.equal('formula.lines too-complex');
    expect(codes(many(20, 2))).to.equal('ok');
  });

  it('answers with what its published schema says, from requests its published schema takes', () => {
    const ajv = new Ajv2020({ strict: false });
    ajv.addSchema(schema('formula'));
    const takes = ajv.compile(schema('assessment-request'));
    const says = ajv.compile(schema('assessment'));
    for (let seed = 1; seed <= 40; seed++) {
      const asked = {
        ...request([]),
        formula: generateFormula(14, seeded(seed)),
        rules: null,
        materials: null,
        explain: seed % 2 === 0,
      };
      expect(takes(asked), JSON.stringify(takes.errors)).to.equal(true);
      const result = assessValue(asked, shippedStore('2026-11-24'));
      if (!result.ok) expect.fail(JSON.stringify(result.errors));
      expect(says(JSON.parse(JSON.stringify(result.assessment))), JSON.stringify(says.errors)).to.equal(true);
    }
    expect(takes(withField('formula.lines.0.amount.unit', 'stone'))).to.equal(false);
  });

  it('publishes the very words the core knows', () => {
    const text =
      readFileSync('public/schemas/assessment-request.schema.json', 'utf8') +
      readFileSync('public/schemas/formula.schema.json', 'utf8');
    const words = [
      types.MARKETS,
      types.STAGES,
      types.KINDS,
      types.MEASURES,
      types.LIQUID_BASES,
      types.SAPONIFIES_AS,
      types.INCI_ROLES,
      types.LIMIT_BASES,
      types.FORCES,
      types.SUBJECT_TYPES,
      types.PROCESSES,
      types.SCENT_NAMINGS,
      UNITS,
    ];
    for (const word of words.flat()) expect(text).to.contain(`"${word}"`);
  });
});

/** Values that have broken programs before. */
const NASTY: unknown[] = [
  null,
  true,
  0,
  -0,
  -1,
  1e308,
  1e-320,
  5e-324,
  0.1 + 0.2,
  '',
  ' ',
  '𝟙',
  'Ώ',
  '\u202Eabc',
  '\u0000',
  '__proto__',
  'constructor',
  'toString',
  [],
  [[]],
  {},
  { __proto__: null },
  { length: 3 },
  JSON.parse('{"__proto__":{"x":1}}'),
  'a'.repeat(5000),
  ['EU', 'EU'],
  100,
  99.999999,
  '2026-13-01',
  '%pour',
  '%cured',
  '%fats',
  '%liquid',
];

/** Every place in a JSON value that can be changed. */
function places(value: unknown, found: [object, string][] = []): [object, string][] {
  if (typeof value === 'object' && value !== null) {
    for (const key of Object.keys(value)) {
      found.push([value, key]);
      places((value as Record<string, unknown>)[key], found);
    }
  }
  return found;
}

function mutate(input: unknown, random: () => number): unknown {
  const copy = JSON.parse(JSON.stringify(input)) as unknown;
  const pick = <T>(items: readonly T[]) => items[Math.floor(random() * items.length)]!;
  for (let count = 1 + Math.floor(random() * 3); count > 0; count--) {
    const [holder, key] = pick(places(copy));
    const at = holder as Record<string, unknown>;
    const how = random();
    if (how < 0.55) at[key] = pick(NASTY);
    else if (how < 0.7) delete at[key];
    else if (how < 0.85) {
      const [other, otherKey] = pick(places(copy));
      at[key] = JSON.parse(JSON.stringify((other as Record<string, unknown>)[otherKey] ?? null)) as unknown;
    } else if (typeof at[key] === 'number') at[key] = (at[key] as number) * 10 ** (random() * 40 - 20);
    else if (Array.isArray(at[key])) at[key] = [...(at[key] as unknown[]), ...(at[key] as unknown[])];
  }
  return copy;
}

function badNumber(value: unknown): boolean {
  if (typeof value === 'number') return !Number.isFinite(value);
  return typeof value === 'object' && value !== null && Object.values(value).some(badNumber);
}

describe('mutated requests, ten thousand of them by hand', () => {
  it('never throw, hang, or answer a number that is none; faults name path, code and remedy', () => {
    const random = seeded(42);
    const rules = {
      replace: false,
      limits: [
        {
          id: 'x',
          subject: { type: 'material' as const, id: 'perfume' },
          maxPct: 3,
          basis: 'cured' as const,
          force: 'law' as const,
        },
      ],
      declarables: [
        {
          id: 'linalool',
          name: 'Linalool',
          markets: ['EU' as const],
          thresholdPct: 0.01,
          newFrom: '2020-01-01',
          allFrom: null,
        },
      ],
    };
    const short: ShortLine[] = [
      ...SHORT,
      ['a', 'citric', 'lye', 1, '%pour'],
      ['m', 'milk', 'liquid', 50, '%liquid'],
      ['s', 'salt', 'trace', 2, 'tbsp', { portion: 'B' }],
      ['k', 'clay', 'trace', 1, '%cured', { measuredBy: 'eye' }],
      ['c', 'clove', 'trace', 1, '%fats'],
    ];
    const start = request(
      short,
      {
        fatsMassG: 1000,
        liquid: { basis: 'ofFats', value: 33 },
        portions: [
          { id: 'A', share: 0.7 },
          { id: 'B', share: 0.3 },
        ],
      },
      { rules, markets: ['EU', 'US'], firstPlacedOn: { EU: '2026-01-01' } },
    );
    const outcomes = { answered: 0, refused: 0 };
    const count = many(1200, 10_000);
    for (let one = 0; one < count; one++) {
      const input = JSON.parse(JSON.stringify(mutate(start, random))) as unknown;
      const result = assessValue(input, NOTHING_STORED);
      if (result.ok) {
        outcomes.answered++;
        if (badNumber(result.assessment)) expect.fail(`bad number for ${JSON.stringify(input)}`);
      } else {
        outcomes.refused++;
        expect(result.errors.length).to.be.above(0);
        for (const { path, code, message } of result.errors) {
          expect(path).to.be.a('string');
          expect(code).to.match(/^[a-z-]+$/);
          expect(message.length).to.be.above(10);
        }
      }
    }
    expect(outcomes.answered / count).to.be.above(0.05);
    expect(outcomes.refused / count).to.be.above(0.2);
    expect(({} as { x?: number }).x).to.equal(undefined);
  });
});

describe('npm run assess', () => {
  const folder = mkdtempSync(join(tmpdir(), 'proportia-'));
  const run = (text: string) => {
    const file = join(folder, 'request.json');
    writeFileSync(file, text);
    try {
      const env = { ...process.env, PROPORTIA_DATA: join(folder, 'none') };
      return {
        status: 0,
        out: JSON.parse(
          execFileSync(process.execPath, ['--import=tsx', 'scripts/assess.ts', file], { env }).toString(),
        ) as Record<string, unknown>,
      };
    } catch (error) {
      const { status, stdout } = error as { status: number; stdout: Buffer };
      return { status, out: JSON.parse(stdout.toString()) as Record<string, unknown> };
    }
  };

  it('answers as the server does, and fails with the same errors', () => {
    const good = request(SHORT);
    const expected = assessValue(good, shippedStore('2026-11-24'));
    expect(run(JSON.stringify(good))).to.deep.equal({
      status: 0,
      out: JSON.parse(JSON.stringify(expected.ok && expected.assessment)) as object,
    });
    const bad = run(
      JSON.stringify({
        ...good,
        materials: MATERIALS.slice(1),
        rules: null,
        formula: { ...good.formula, lines: [{ ...good.formula.lines[0]!, material: 'nowhere' }] },
      }),
    );
    expect(bad.status).to.equal(1);
    expect(bad.out).to.have.nested.property('errors[0].code', 'unknown-material');
    expect(run('{').out).to.have.nested.property('errors[0].code', 'not-json');
  });
});
