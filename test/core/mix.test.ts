/** Materials made of materials: what they hold, what limits them, and what cannot be mixed. */
import { expect } from 'chai';
import fc from 'fast-check';
import { mixFinder, mixMaterial, type Mix } from '../../src/core/formula/mix';
import { isUnknown, type TraitMaterial } from '../../src/core/formula/traits';
import type { Material } from '../../src/core/formula/types';
import { assessed, limitOn, MATERIALS, near, request } from '../support/request';

const byId = new Map(MATERIALS.map((material) => [material.id, material]));
const find = (id: string) => byId.get(id);

function mixed(parts: [string, number][], id = 'mix'): Material {
  const named = parts.map(([material, share]) => ({ material, parts: share }));
  const result = mixMaterial({ id, name: 'Mix', parts: named }, find);
  if (!result.ok) expect.fail(JSON.stringify(result.errors));
  return result.material;
}

describe('mixes', () => {
  it('hold what their parts hold, by weight', () => {
    const blend = mixed([
      ['clove', 3],
      ['cinnamon', 1],
    ]);
    expect(blend.kind).to.equal('essentialOil');
    expect(blend.constituents).to.deep.equal([
      { id: 'eugenol', lowPct: 71.25, typicalPct: 77.5, highPct: 87.5 },
    ]);
    expect(blend.inci!.map(({ name, sharePct }) => [name, sharePct])).to.deep.equal([
      ['Clove Oil', 75],
      ['Cinnamon Oil', 25],
    ]);
    expect(
      mixed([
        ['clove', 1],
        ['perfume', 1],
      ]).kind,
    ).to.equal('fragrance');
  });

  it('are known to behave as their fragrances were said to, and not known where one was not', () => {
    const perfume = find('perfume')!;
    const ways = (behaviour?: TraitMaterial['behaviour']) => {
      const told = { ...perfume, ...(behaviour ? { behaviour } : {}) };
      const parts = [
        { material: 'perfume', parts: 1 },
        { material: 'clove', parts: 1 },
      ];
      const made = mixMaterial({ id: 'mix', name: 'Mix', parts }, (id) =>
        id === 'perfume' ? told : find(id),
      );
      if (!made.ok) expect.fail(JSON.stringify(made.errors));
      return made.material as TraitMaterial;
    };
    expect(isUnknown(ways())).to.equal(true);
    expect([isUnknown(ways({ speeds: false })), ways({ rices: true }).behaviour?.rices]).to.deep.equal([
      false,
      true,
    ]);
  });

  it('of mostly fat saponify as their fat does; a little fat in a premix is carried as a milk carries it', () => {
    const steeped = mixed([
      ['olive', 98],
      ['clay', 2],
    ]);
    expect(steeped.kind).to.equal('fat');
    near(steeped.saponification!.naohPerGram, 0.98 * 0.135);
    expect(steeped.saponification!.formedInci).to.equal('Soap olive');
    const premix = mixed([
      ['clay', 3],
      ['olive', 1],
    ]);
    expect(premix.kind).to.equal('clay');
    near(premix.fatPct, 25);
    near(premix.fatSaponification!.naohPerGram, 0.135);
    const brine = mixed([
      ['water', 4],
      ['salt', 1],
    ]);
    expect(brine).to.include({ kind: 'liquid', waterPct: 80 });
  });

  it('cannot hold an acid, nothing, something unknown, or themselves', () => {
    const fault = (parts: [string, number][]) => {
      const named = parts.map(([material, share]) => ({ material, parts: share }));
      const result = mixMaterial({ id: 'mix', name: 'Mix', parts: named }, find);
      return result.ok ? 'none' : `${result.errors[0]!.path} ${result.errors[0]!.code}`;
    };
    expect(
      fault([
        ['olive', 1],
        ['citric', 1],
      ]),
    ).to.equal('parts.1.material reacts');
    expect(fault([['olive', 0]])).to.equal('parts empty');
    expect(fault([['nothing', 1]])).to.equal('parts.0.material unknown-material');
    expect(fault([['mix', 1]])).to.equal('parts.0.material unknown-material');
    const circle = new Map<string, Mix>([
      ['a', { id: 'a', name: 'A', parts: [{ material: 'b', parts: 1 }] }],
      ['b', { id: 'b', name: 'B', parts: [{ material: 'a', parts: 1 }] }],
    ]);
    expect(mixFinder(find, circle)('a')).to.equal(undefined);
  });

  it('stand in a bar as their parts would stand by themselves', () => {
    const limits = [
      limitOn({ type: 'constituent', id: 'eugenol' }, 0.5),
      limitOn({ type: 'material', id: 'clove' }, 0.4),
      limitOn({ type: 'material', id: 'cinnamon' }, 0.4),
      limitOn({ type: 'kind', id: 'essentialOil' }, 3),
    ];
    const rules = { replace: true, limits };
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99 }), fc.integer({ min: 1, max: 60 }), (clovePct, massG) => {
        const blend = mixed(
          [
            ['clove', clovePct],
            ['cinnamon', 100 - clovePct],
          ],
          'blend',
        );
        const whole = assessed(
          request(
            [
              ['f', 'olive', 'fats', 1000, 'g'],
              ['b', 'blend', 'trace', massG, 'g'],
            ],
            {},
            {
              rules,
              materials: [...MATERIALS, blend],
            },
          ),
        );
        const apart = assessed(
          request(
            [
              ['f', 'olive', 'fats', 1000, 'g'],
              ['c', 'clove', 'trace', (massG * clovePct) / 100, 'g'],
              ['n', 'cinnamon', 'trace', massG - (massG * clovePct) / 100, 'g'],
            ],
            {},
            { rules },
          ),
        );
        expect(whole.verdict).to.equal(apart.verdict);
        const figures = (from: typeof whole) =>
          new Map(from.limits.map(({ id, nominalPct, lowPct }) => [id, [nominalPct, lowPct]] as const));
        for (const [id, [nominal]] of figures(apart)) near(figures(whole).get(id)![0], nominal);
      }),
      { numRuns: 60 },
    );
  });

  it('are proven only where every scent in them is', () => {
    const blend = mixed(
      [
        ['clove', 1],
        ['perfume', 1],
      ],
      'blend',
    );
    const verdict = (limits: ReturnType<typeof limitOn>[]) =>
      assessed(
        request(
          [
            ['f', 'olive', 'fats', 1000, 'g'],
            ['b', 'blend', 'trace', 5, 'g'],
          ],
          {},
          {
            rules: { replace: true, limits },
            materials: [...MATERIALS, blend],
          },
        ),
      ).verdict;
    const clove = limitOn({ type: 'material', id: 'clove' }, 5);
    expect(verdict([clove])).to.equal('unproven');
    expect(verdict([clove, limitOn({ type: 'material', id: 'perfume' }, 5)])).to.equal('clear');
    expect(verdict([limitOn({ type: 'material', id: 'blend' }, 5)])).to.equal('clear');
  });

  it('bring a part’s certificate once, also where the part stands on a line of its own', () => {
    const certified = { ...byId.get('clove')!, limits: [limitOn({ type: 'material', id: 'clove' }, 1)] };
    const result = mixMaterial(
      {
        id: 'blend',
        name: 'Blend',
        parts: [
          { material: 'clove', parts: 1 },
          { material: 'cinnamon', parts: 1 },
        ],
      },
      (id) => (id === 'clove' ? certified : find(id)),
    );
    const blend = result.ok ? result.material : expect.fail();
    const a = assessed(
      request(
        [
          ['f', 'olive', 'fats', 1000, 'g'],
          ['b', 'blend', 'trace', 6, 'g'],
          ['c', 'clove', 'trace', 2, 'g'],
        ],
        {},
        { materials: [certified, blend, ...MATERIALS.filter(({ id }) => id !== 'clove')] },
      ),
    );
    const rows = a.limits.filter(({ id }) => id === 'max-clove');
    expect(rows).to.have.length(1);
    near(rows[0]!.nominalPct, (100 * 5) / a.masses.curedG);
  });
});
