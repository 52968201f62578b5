/** Examples worked by hand. The arithmetic stands beside each; figures are rounded nowhere but at the end. */
import { expect } from 'chai';
import { assessed, limitOn, near, request, type ShortLine } from '../support/request';

const KILO: ShortLine = ['f', 'olive', 'fats', 1000, 'g'];
const lineOf = (a: ReturnType<typeof assessed>, id: string) => a.lines.find((line) => line.id === id)!;

describe('worked examples', () => {
  it('1: units, among them three kinds of tablespoon, and doses per pound and per kilo', () => {
    const a = assessed(
      request([
        ['f', 'olive', 'fats', 2, 'lb'],
        ['us', 'clay', 'trace', 1, 'tbsp'],
        ['metric', 'clay', 'trace', 1, 'tbspMetric'],
        ['au', 'clay', 'trace', 1, 'tbspAU'],
        ['perLb', 'clay', 'trace', 1.5, 'tspPerLbFats'],
        ['ozPerLb', 'salt', 'trace', 0.5, 'ozPerLbFats'],
        ['perKg', 'salt', 'trace', 20, 'gPerKgFats'],
        ['cup', 'salt', 'trace', 0.5, 'cup'],
      ]),
    );
    near(a.masses.fatsG, 907.18474); // 2 x 453.59237
    near(lineOf(a, 'us').massG, 14.78676478125 * 0.6);
    near(lineOf(a, 'metric').massG, 9); // 15 mL x 0.6
    near(lineOf(a, 'au').massG, 12); // 20 mL x 0.6
    near(lineOf(a, 'perLb').massG, 3 * 4.92892159375 * 0.6); // 1.5 tsp for each of 2 lb
    near(lineOf(a, 'ozPerLb').massG, 28.349523125); // half an ounce for each of 2 lb
    near(lineOf(a, 'perKg').massG, 18.1436948); // 20 g for 0.90718474 kg
    near(lineOf(a, 'cup').massG, 0.5 * 236.5882365 * 1.2);
    near(lineOf(a, 'us').highG / lineOf(a, 'us').massG, 1.15); // a spoon unless said otherwise
    near(lineOf(a, 'perKg').highG / lineOf(a, 'perKg').massG, 1.01); // weighed
  });

  it('2: lye from superfat, purity and an acid; the weighed alkali', () => {
    const a = assessed(
      request(
        [
          ['o', 'olive', 'fats', 70, '%fats'],
          ['c', 'coconut', 'fats', 30, '%fats'],
          ['a', 'citric', 'lye', 10, 'g'],
        ],
        { fatsMassG: 1000, alkali: { superfatPct: 6, purityPct: 99 } },
      ),
    );
    // demand 700 x 0.135 + 300 x 0.18 = 148.5; x 0.94 = 139.59; + 10 x 0.6 = 145.59; / 0.99 = 147.0606
    near(a.masses.alkaliPureG, 145.59);
    near(a.masses.alkaliG, 145.59 / 0.99);
    near(a.superfat.nominalPct, 6);
    near(a.masses.alkaliImpurityG, 145.59 / 0.99 - 145.59);
    // citrate: 10 + 6 - 6 x 18.015/39.997
    near(a.masses.acidSaltsG, 16 - (6 * 18.015) / 39.997);
  });

  it('3: the liquid in its three bases, and a mismatch said', () => {
    const of = (liquid: { basis: 'ofFats' | 'perAlkali' | 'alkaliConcentration'; value: number }) =>
      assessed(request([KILO, ['w', 'water', 'liquid', 100, '%liquid']], { liquid, alkali: { massG: 130 } }));
    near(of({ basis: 'ofFats', value: 33 }).masses.liquidG, 330);
    near(of({ basis: 'perAlkali', value: 2 }).masses.liquidG, 260);
    near(lineOf(of({ basis: 'alkaliConcentration', value: 25 }), 'w').massG, 390); // 130 x 75 / 25
    const short: ShortLine[] = [
      KILO,
      ['w', 'water', 'liquid', 200, 'g'],
      ['h', 'water', 'heldBack', 100, 'g'],
    ];
    const a = assessed(request(short, { liquid: { basis: 'ofFats', value: 33 } }));
    expect(a.notes.map(({ code }) => code)).to.include('liquid-mismatch');
    const b = assessed(request(short, { liquid: { basis: 'ofFats', value: 30 } }));
    expect(b.notes.map(({ code }) => code)).not.to.include('liquid-mismatch');
  });

  it('4: percents of the pour and of the cured bar hold the line itself', () => {
    const a = assessed(
      request(
        [
          KILO,
          ['w', 'water', 'liquid', 300, 'g'],
          ['p', 'clay', 'trace', 2, '%pour'],
          ['c', 'salt', 'trace', 3, '%cured'],
        ],
        {
          alkali: { massG: 128.25 },
        },
      ),
    );
    near(lineOf(a, 'p').pctPour, 2, 1e-12);
    near(lineOf(a, 'c').pctCured, 3, 1e-12);
    // P = 1428.25 + 0.02 P + 0.03 C and C = (P - 300) / 0.9, so P (0.98 - 0.03/0.9) = 1428.25 - 10
    near(a.masses.pourG, 1418.25 / (0.98 - 0.03 / 0.9));
    near(a.masses.curedG, (a.masses.pourG - 300) / 0.9);
  });

  it('5: a triglyceride gives soap and glycerin and leaves its superfat free', () => {
    const a = assessed(request([KILO, ['w', 'water', 'liquid', 300, 'g']]));
    // pure lye 135 x 0.95 = 128.25; glycerin 128.25 x 92.094 / 119.991; soap 950 + 128.25 - glycerin
    const glycerin = (128.25 * 92.094) / 119.991;
    near(a.masses.glycerinG, glycerin);
    near(a.masses.soapG, 950 + 128.25 - glycerin);
    near(a.masses.freeFatG, 50);
    near(a.masses.pourG, 1428.25);
    near(a.masses.waterG, 300);
    near(a.masses.curedG, 1128.25 / 0.9);
  });

  it('6: a free acid frees water, a wax neither water nor glycerin', () => {
    const a = assessed(
      request(
        [
          ['s', 'stearic', 'fats', 100, 'g'],
          ['x', 'wax', 'fats', 100, 'g'],
        ],
        { alkali: { superfatPct: 0 } },
      ),
    );
    // demand 14 + 7 = 21, all taken up
    near(a.masses.reactionWaterG, (14 * 18.015) / 39.997);
    near(a.masses.glycerinG, 0);
    near(a.masses.soapG, 114 - (14 * 18.015) / 39.997 + 107);
  });

  it('7: a milk brings water and fat; its fat raises the superfat that counts', () => {
    const a = assessed(request([KILO, ['m', 'milk', 'liquid', 300, 'g']]));
    // lye 128.25 for 135; the milk's fat asks for 300 x 0.1 x 0.16 = 4.8 more
    near(a.superfat.nominalPct, 5);
    near(a.superfat.effectivePct, 100 * (1 - 128.25 / 139.8));
    near(a.masses.waterG, 240);
    const saponified = 128.25 / 139.8;
    near(a.masses.freeFatG, (1 - saponified) * 1030);
    const formed = a.ingredients.find(({ school }) => school === 'formed')!;
    // the milk's dry matter, 60 g, less the part of its 30 g of fat that became soap
    near(formed.items.find(({ name }) => name === 'INCI milk')!.massG, 60 - saponified * 30);
  });

  it('8: fats after the cook stay free and are not in the lye', () => {
    const a = assessed(
      request([KILO, ['late', 'coconut', 'afterCook', 80, 'g']], {
        process: 'hot',
        alkali: { superfatPct: 0 },
      }),
    );
    near(a.masses.alkaliPureG, 135);
    near(a.masses.freeFatG, 80);
    near(a.superfat.nominalPct, 0);
    near(a.superfat.effectivePct, 100 * (1 - 135 / (135 + 14.4)));
    expect(a.notes.filter(({ severity }) => severity !== 'info')).to.have.length(1); // no liquid for the lye
  });

  it('9: cured mass from residual water, capped by the pour, or from a measured ratio', () => {
    const short: ShortLine[] = [KILO, ['w', 'water', 'liquid', 100, 'g']];
    near(assessed(request(short, { cure: { massRatio: 0.88 } })).masses.curedG, 1228.25 * 0.88);
    near(assessed(request(short, { cure: { residualWaterPct: 20 } })).masses.curedG, 1228.25); // 1128.25 / 0.8 is more
    near(assessed(request(short, { cure: { residualWaterPct: 5 } })).masses.curedG, 1128.25 / 0.95);
  });

  it('10: portions hold their own add-ins and their share of the batter; the worst is named', () => {
    const a = assessed(
      request(
        [
          KILO,
          ['w', 'water', 'liquid', 300, 'g'],
          ['s', 'salt', 'trace', 150, 'g', { portion: 'B' }],
          ['k', 'clay', 'trace', 20, 'g'],
        ],
        {
          portions: [
            { id: 'A', share: 0.7 },
            { id: 'B', share: 0.3 },
          ],
        },
        {
          rules: {
            replace: true,
            limits: [limitOn({ type: 'kind', id: 'salt' }, 30), limitOn({ type: 'kind', id: 'clay' }, 2)],
          },
        },
      ),
    );
    const common = 1000 + 300 + 128.25 + 20;
    const b = a.portions[1]!;
    near(b.pourG, 0.3 * common + 150);
    near(b.curedG, (0.3 * (common - 300) + 150) / 0.9);
    const salt = a.limits.find(({ id }) => id === 'max-salt')!;
    expect(salt).to.include({ portion: 'B', verdict: 'tight' }); // high 27.5 % is above 0.9 x 30 %
    near(salt.nominalPct, (100 * 150) / b.curedG);
    // high: (151.5) over (cured + the 1.5 g by which the salt may be high)
    near(salt.highPct, (100 * 151.5) / (b.curedG + 1.5));
    const clay = a.limits.find(({ id }) => id === 'max-clay')!;
    expect(clay.portion).to.equal('A'); // unsalted, so its clay is the larger share
    near(clay.nominalPct, (100 * 0.7 * 20) / a.portions[0]!.curedG);
  });

  it('11: a constituent adds up over two oils, with the doubt of both', () => {
    const a = assessed(
      request(
        [
          KILO,
          ['w', 'water', 'liquid', 300, 'g'],
          ['clove', 'clove', 'trace', 6, 'g'],
          ['cin', 'cinnamon', 'trace', 4, 'g', { uncertaintyPct: 5 }],
        ],
        {},
        {
          rules: {
            replace: true,
            limits: [limitOn({ type: 'constituent', id: 'eugenol' }, 0.6, { force: 'standard' })],
          },
        },
      ),
    );
    // dry 1128.25 + 10, cured over 0.9; nominal 6 x 0.8 + 4 x 0.7 = 7.6; high 6.06 x 0.9 + 4.2 x 0.8; low 5.94 x 0.75 + 3.8 x 0.6
    const cured = 1138.25 / 0.9;
    const [row] = a.limits;
    near(row!.nominalPct, 760 / cured);
    near(row!.highPct, (100 * (6.06 * 0.9 + 4.2 * 0.8)) / (cured + 0.06 + 0.2));
    near(row!.lowPct, (100 * (5.94 * 0.75 + 3.8 * 0.6)) / (cured - 0.06 - 0.2));
    expect(row!.verdict).to.equal('over'); // 0.6009 against 0.6
    near(row!.contributors[0]!.sharePct, (100 * 4.8) / 7.6);
    // clove and cinnamon have no certificate of their own
    expect(a.unproven).to.deep.equal([
      { line: 'clove', market: 'EU' },
      { line: 'cin', market: 'EU' },
    ]);
  });

  it('12: the largest load in closed form, in grams and in the line’s own unit', () => {
    const a = assessed(
      request(
        [KILO, ['w', 'water', 'liquid', 300, 'g'], ['p', 'perfume', 'trace', 3, '%fats']],
        {},
        { rules: { replace: true, limits: [limitOn({ type: 'material', id: 'perfume' }, 4.5)] } },
      ),
    );
    // 1.01 x = 0.045 ((1128.25 + x) / 0.9 + 0.01 x)
    const x = ((0.045 / 0.9) * 1128.25) / (1.01 - 0.045 / 0.9 - 0.00045);
    const line = lineOf(a, 'p');
    near(line.maxG, x);
    near(line.maxInUnit!.value, x / 10);
    expect(line.boundBy).to.equal('max-perfume');
    expect(lineOf(a, 'w').maxG).to.equal(null);
  });

  it('13: what must be declared, and how sure that is', () => {
    const linalool = {
      id: 'linalool',
      name: 'Linalool',
      markets: ['EU' as const],
      thresholdPct: 0.01,
      newFrom: '2026-01-01',
      allFrom: '2028-01-01',
    };
    const on = (onDate: string, first: string, grams: number) =>
      assessed(
        request(
          [KILO, ['p', 'perfume', 'trace', grams, 'g']],
          {},
          { onDate, firstPlacedOn: { EU: first }, rules: { replace: true, declarables: [linalool] } },
        ),
      ).declarables;
    expect(on('2025-12-31', '2025-06-01', 90)).to.deep.equal([]);
    expect(on('2026-06-01', '2025-06-01', 90)).to.deep.equal([]); // on the market before, until 2028
    expect(on('2028-01-01', '2025-06-01', 90)).to.have.length(1);
    const [row] = on('2026-06-01', '2026-05-01', 50);
    // cured (1128.25 + 50) / 0.9 capped by the pour 1178.25; high 50.5 x 0.3 % / 1178.75 = 0.01285 %, low 49.5 x 0.1 % = 0.0042 %
    near(row!.highPct, (50.5 * 0.3) / 1178.75);
    expect(row).to.include({ declare: true, certain: false });
  });

  it('14: the list as added and as formed, with colours last and allergens of their own', () => {
    const short: ShortLine[] = [
      KILO,
      ['w', 'water', 'liquid', 300, 'g'],
      ['p', 'perfume', 'trace', 30, 'g'],
      ['e', 'clove', 'trace', 10, 'g'],
      ['r', 'red', 'trace', 40, 'g'],
    ];
    const rules = {
      replace: true,
      declarables: [
        {
          id: 'eugenol',
          name: 'Eugenol',
          markets: ['EU' as const],
          thresholdPct: 0.01,
          newFrom: '2005-03-11',
          allFrom: '2005-03-11',
        },
      ],
    };
    const a = assessed(request(short, {}, { rules, markets: ['EU', 'US'] }));
    const text = (market: string, school: string) =>
      a.ingredients.find((list) => list.market === market && list.school === school)!.text;
    expect(text('EU', 'added')).to.equal('INCI olive, Aqua, Sodium Hydroxide, Parfum, Eugenol, CI 77491');
    // soap 979.8, free fat 50, glycerin 98.4, water left 120.4 (1208.25 / 0.9 - 1208.25 = 134.25)
    expect(text('US', 'formed')).to.equal('Soap olive, Water, Glycerin, INCI olive, Fragrance, Iron Oxides');
    const named = assessed(request(short, { scentNaming: 'named' }, { rules }));
    expect(named.ingredients[0]!.text).to.equal(
      'INCI olive, Aqua, Sodium Hydroxide, Parfum, Clove Oil, Eugenol, CI 77491',
    );
  });

  it('15: too little lye, too much lye, and lye that will not dissolve', () => {
    const codes = (superfatPct: number) =>
      assessed(request([KILO, ['w', 'water', 'liquid', 100, 'g']], { alkali: { superfatPct } })).notes.map(
        ({ code }) => code,
      );
    expect(codes(5)).to.deep.equal(['liquid-under-alkali']); // 128.25 g in 100 g
    expect(codes(1)).to.include('danger-near');
    expect(codes(-3)).to.include('lye-heavy');
    const heavy = assessed(
      request([KILO, ['w', 'water', 'liquid', 300, 'g']], { alkali: { superfatPct: -10 } }),
    );
    near(heavy.masses.unreactedAlkaliG, 13.5);
    near(heavy.masses.freeFatG, 0);
  });
});
