/** The run sheet holds what the batch page asks for every formula that reckons. */
import { expect } from 'chai';
import fc from 'fast-check';
import { assess } from '../../src/core/assess';
import { REQUEST_FORMAT, STAGES, MARKETS, type Formula, type Line } from '../../src/core/formula/types';
import { mixMaterial } from '../../src/core/formula/mix';
import { runSheet } from '../../src/core/making/run-sheet';
import type { RunSheet, RunSheetOptions, RunStep } from '../../src/core/making/run-sheet-types';
import { LIBRARY } from '../../src/library';
import { certifiedMaterials, seeded } from '../support/generate';

const materials = certifiedMaterials();
const byId = new Map(materials.map((material) => [material.id, material]));
const fatIds = materials.filter(({ kind }) => kind === 'fat').map(({ id }) => id);

/** Any material at any stage, in any portion: more than a sane maker would write down. */
function wildFormula(seed: number): Formula {
  const random = seeded(seed);
  const pick = <T>(items: readonly T[]) => items[Math.floor(random() * items.length)]!;
  const lines: Line[] = [];
  const add = (material: string, stage: Line['stage'], value: number, more: Partial<Line> = {}) =>
    lines.push({ id: `l${lines.length + 1}`, material, stage, amount: { value, unit: 'g' }, ...more });
  for (let i = 0; i < 2 + random() * 4; i++) add(pick(fatIds), 'fats', 100 + random() * 400);
  add('water', 'liquid', 250 + random() * 300);
  const hasPortions = random() < 0.5;
  for (let i = random() * 14; i > 0; i--) {
    const portion = hasPortions && random() < 0.4 ? pick(['A', 'B']) : undefined;
    add(pick(LIBRARY).id, pick(STAGES), random() < 0.05 ? 0 : random() * 60, portion ? { portion } : {});
  }
  return {
    process: random() < 0.2 ? 'hot' : 'cold',
    alkali: { superfatPct: Math.round(random() * 15), purityPct: 99 },
    liquid: null,
    bars: 12,
    portions: hasPortions
      ? [
          { id: 'A', share: 0.7 },
          { id: 'B', share: 0.3 },
        ]
      : null,
    lines,
  };
}

function assessedAt(formula: Formula) {
  const request = { format: REQUEST_FORMAT, formula, materials, markets: [...MARKETS], onDate: '2026-11-24' };
  const result = assess(request, { material: () => undefined, limits: [], declarables: [] });
  if (!result.ok) expect.fail(JSON.stringify(result.errors));
  return result.assessment;
}

/** All steps that must be done before a step, however far back. */
function before(sheet: RunSheet): (id: string) => ReadonlySet<string> {
  const steps = new Map(sheet.steps.map((step) => [step.id, step]));
  const known = new Map<string, Set<string>>();
  const of = (id: string): Set<string> => {
    const found = known.get(id);
    if (found) return found;
    const all = new Set(steps.get(id)!.after.flatMap((one) => [one, ...of(one)]));
    known.set(id, all);
    return all;
  };
  return of;
}

function sheetOf(formula: Formula, options: RunSheetOptions = {}): RunSheet {
  const made = runSheet(formula, materials, options);
  if (!made.ok) expect.fail(JSON.stringify(made.errors));
  return made;
}

const formulas = fc.integer({ min: 1, max: 1e9 }).map(wildFormula);
const RUNS = { numRuns: 120 };
const weighedG = ({ steps }: RunSheet, line: string) =>
  steps.flatMap(({ weigh }) => weigh).reduce((sum, one) => sum + (one.line === line ? one.massG : 0), 0);
const stepsOf = ({ steps }: RunSheet, line: string) =>
  steps.filter(({ weigh }) => weigh.some((one) => one.line === line));

describe('run sheet', () => {
  it('adds up to every line’s assessed mass and to the alkali, at any size', () => {
    fc.assert(
      fc.property(formulas, fc.double({ min: 50, max: 20000, noNaN: true }), (formula, fatsMassG) => {
        const sheet = sheetOf(formula, { fatsMassG });
        const assessment = assessedAt(sheet.formula);
        expect(assessment.masses.fatsG).to.be.closeTo(fatsMassG, fatsMassG * 1e-9);
        for (const { id, massG } of assessment.lines)
          expect(weighedG(sheet, id), id).to.be.closeTo(massG, 1e-9 * Math.max(1, massG));
        expect(weighedG(sheet, 'alkali')).to.be.closeTo(assessment.masses.alkaliG, 1e-9 * fatsMassG);
      }),
      RUNS,
    );
  });

  it('takes from a bucket of fats what it holds of each, and leaves the rest to be weighed', () => {
    let whole = 0;
    fc.assert(
      fc.property(formulas, fc.double({ min: 0.1, max: 0.9, noNaN: true }), (formula, share) => {
        const [first, second] = [
          ...new Set(formula.lines.filter(({ stage }) => stage === 'fats').map(({ material }) => material)),
        ];
        fc.pre(second !== undefined);
        const mix = mixMaterial(
          {
            id: 'bucket',
            name: 'Bucket',
            parts: [
              { material: first!, parts: share },
              { material: second, parts: 1 - share },
            ],
          },
          (id) => byId.get(id),
        );
        if (!mix.ok) return expect.fail(JSON.stringify(mix.errors));
        const sheet = sheetOf(formula, { bucket: mix.material });
        const { bucket } = sheet;
        expect(weighedG(sheet, 'fats-bucket')).to.be.closeTo(bucket!.massG, 1e-9 * bucket!.massG);
        const broughtG = (line: string) => bucket!.parts.find((part) => part.line === line)?.massG ?? 0;
        for (const { id, massG } of assessedAt(formula).lines)
          expect(weighedG(sheet, id) + broughtG(id), id).to.be.closeTo(massG, 1e-8 * Math.max(1, massG));
        const sum = bucket!.parts.reduce((total, { massG }) => total + massG, 0);
        expect(sum).to.be.closeTo(bucket!.massG, 1e-9 * bucket!.massG);
        whole++;
      }),
      RUNS,
    );
    expect(whole).to.be.above(60);
  });

  it('takes the alkali and its water from a lye stock, or says what to change', () => {
    let [refused, made] = [0, 0];
    fc.assert(
      fc.property(formulas, fc.double({ min: 20, max: 60, noNaN: true }), (formula, concentrationPct) => {
        const sheet = runSheet(formula, materials, { lyeStock: { concentrationPct } });
        const assessment = assessedAt(formula);
        const { alkaliG } = assessment.masses;
        const waterG = (alkaliG * 100) / concentrationPct - alkaliG;
        const waters = formula.lines.filter(
          ({ material, stage }) => material === 'water' && stage === 'liquid',
        );
        const massOf = (id: string) => assessment.lines.find((line) => line.id === id)!.massG;
        const thereG = waters.reduce((sum, { id }) => sum + massOf(id), 0);
        if (!sheet.ok) {
          refused++;
          expect(sheet.errors[0]).to.include({
            path: 'lyeStock.concentrationPct',
            code: 'too-little-liquid',
          });
          expect(sheet.errors[0]!.message).to.match(/stock|water/);
          // Part of it as stock, the rest dry: the same alkali, and water is never asked for below nothing.
          const parted = runSheet(formula, materials, { lyeStock: { concentrationPct, restDry: true } });
          if (!parted.ok) return void expect(thereG).to.equal(0);
          const fromStockG = (weighedG(parted, 'lye-stock') * concentrationPct) / 100;
          expect(weighedG(parted, 'alkali')).to.be.above(0);
          expect(fromStockG + weighedG(parted, 'alkali')).to.be.closeTo(alkaliG, 1e-9 * alkaliG);
          const stillG = waters.reduce((sum, { id }) => sum + weighedG(parted, id), 0);
          expect(stillG).to.be.at.least(0);
          expect(stillG + weighedG(parted, 'lye-stock') - fromStockG).to.be.closeTo(thereG, 1e-8 * thereG);
          return;
        }
        made++;
        expect((weighedG(sheet, 'lye-stock') * concentrationPct) / 100).to.be.closeTo(
          alkaliG,
          1e-9 * alkaliG,
        );
        expect(weighedG(sheet, 'alkali')).to.equal(0);
        const left = waters.reduce((sum, { id }) => sum + weighedG(sheet, id), 0);
        expect(left).to.be.closeTo(thereG - waterG, 1e-8 * thereG);
      }),
      RUNS,
    );
    expect(refused).to.be.above(0);
    expect(made).to.be.above(0);
  });

  it('keeps the order that matters', () => {
    fc.assert(
      fc.property(formulas, (formula) => {
        const sheet = sheetOf(formula);
        const earlier = before(sheet);
        const places = new Map(sheet.steps.map(({ id }, at) => [id, at]));
        expect(places.size, 'ids are single').to.equal(sheet.steps.length);
        for (const { id, after } of sheet.steps)
          for (const one of after)
            expect(places.get(one)!, `${one} stands before ${id}`).to.be.below(places.get(id)!);
        const isAfter = (step: RunStep, id: string) =>
          expect(earlier(step.id).has(id), `${step.id} comes after ${id}`).to.equal(true);
        const isBefore = (step: RunStep, id: string) =>
          expect(earlier(id).has(step.id), `${step.id} comes before ${id}`).to.equal(true);
        const melts = sheet.steps.some(({ id }) => id === 'melt');
        for (const line of formula.lines) {
          const { kind, alkaliUptake } = byId.get(line.material)!;
          const inLye = line.stage === 'liquid' || line.stage === 'lye';
          const fatty = kind === 'fat' || kind === 'wax';
          for (const step of stepsOf(sheet, line.id)) {
            if (
              inLye &&
              ['sugar', 'acid', 'salt', 'fibre'].includes(kind) &&
              !(line.portion && kind === 'salt' && !inLye)
            )
              if (!line.portion || (alkaliUptake ?? 0) > 0) isBefore(step, 'lye');
            if (inLye && kind === 'lactate' && !line.portion && !alkaliUptake) isAfter(step, 'cool-lye');
            if (kind === 'wax' && line.stage === 'fats') isBefore(step, 'melt');
            if (fatty && line.stage === 'fats' && melts && !earlier('melt').has(step.id))
              isAfter(step, 'melt');
            if (fatty && line.stage === 'fats') isBefore(step, 'clear');
            if (
              line.stage === 'intoFats' &&
              !line.portion &&
              !['fragrance', 'essentialOil', 'isolate', 'salt'].includes(kind)
            )
              isBefore(step, 'join');
            if (line.stage === 'afterCook') isAfter(step, 'cook-cool');
            if (line.portion && !fatty && !(alkaliUptake ?? 0) && line.stage !== 'top')
              isAfter(step, 'split');
            if (['fragrance', 'essentialOil', 'isolate'].includes(kind)) isAfter(step, 'emulsion');
            if (kind === 'salt' && !inLye && line.stage !== 'top' && !alkaliUptake)
              for (const other of sheet.steps)
                if (other.place === 'join' && !other.id.startsWith('salt-')) isBefore(other, step.id);
            if (line.stage === 'top') isAfter(step, 'pour');
          }
        }
        expect(earlier('join').has('clear') && earlier('join').has('cool-lye')).to.equal(true);
        expect(sheet.steps.find(({ id }) => id === 'cool-lye')!.temperatureC!.to).to.be.below(55);
      }),
      RUNS,
    );
  });

  it('weighs scents into glass or steel, and allows no more than a line may hold', () => {
    fc.assert(
      fc.property(formulas, fc.constantFrom(undefined, 0.1, 1, 5), (formula, readabilityG) => {
        const sheet = sheetOf(formula, readabilityG ? { readabilityG } : {});
        const assessment = assessedAt(formula);
        const overs = new Map<string, number>();
        for (const { line, material, massG, underG, overG, vessel } of sheet.steps.flatMap(
          ({ weigh }) => weigh,
        )) {
          expect(vessel).not.to.match(/alumin/i);
          const kind = byId.get(material)?.kind ?? '';
          if (['fragrance', 'essentialOil', 'isolate'].includes(kind)) expect(vessel).to.match(/glass|steel/);
          const least = readabilityG ?? (massG < 50 ? 0.1 : 1);
          expect(underG).to.be.closeTo(Math.max(least, massG * (line === 'alkali' ? 0.005 : 0.02)), 1e-9);
          expect(overG).to.be.at.most(underG + 1e-12);
          overs.set(line, (overs.get(line) ?? 0) + overG);
        }
        for (const { id, massG, maxG } of assessment.lines)
          if (maxG !== null && massG <= maxG)
            expect(massG + (overs.get(id) ?? 0)).to.be.at.most(maxG * (1 + 1e-9));
      }),
      RUNS,
    );
  });

  it('scales with the size', () => {
    fc.assert(
      fc.property(formulas, fc.double({ min: 0.2, max: 30, noNaN: true }), (formula, factor) => {
        const one = sheetOf(formula);
        const other = sheetOf(formula, { bars: 12 * factor });
        expect(other.steps.map(({ id }) => id)).to.deep.equal(one.steps.map(({ id }) => id));
        one.steps.forEach(({ weigh }, at) =>
          weigh.forEach(({ massG }, place) =>
            expect(other.steps[at]!.weigh[place]!.massG).to.be.closeTo(massG * factor, 1e-8 * massG * factor),
          ),
        );
      }),
      RUNS,
    );
  });

  it('rubs clay in an oil of the formula or in what was held back, and takes it off there', () => {
    const formula: Formula = {
      alkali: { superfatPct: 5, purityPct: 100 },
      lines: [
        { id: 'o', material: 'olive', stage: 'fats', amount: { value: 700, unit: 'g' } },
        { id: 'c', material: 'coconut', stage: 'fats', amount: { value: 300, unit: 'g' } },
        { id: 'w', material: 'water', stage: 'liquid', amount: { value: 330, unit: 'g' } },
        { id: 'k', material: 'kaolin', stage: 'trace', amount: { value: 20, unit: 'g' } },
      ],
    };
    const premix = sheetOf(formula).steps.find(({ place }) => place === 'premix')!;
    expect(premix.weigh.map(({ line }) => line)).to.deep.equal(['o', 'k']);
    expect(premix.weigh[0]!.massG).to.be.within(20, 60);
    expect(premix.how).to.match(/Rub until no lump is left/);
    const held = {
      id: 'h',
      material: 'water',
      stage: 'heldBack' as const,
      amount: { value: 30, unit: 'g' as const },
    };
    const wet = sheetOf({ ...formula, lines: [...formula.lines, held] });
    expect(wet.steps.find(({ place }) => place === 'premix')!.weigh[0]).to.include({ line: 'h', massG: 30 });
    expect(stepsOf(wet, 'o')).to.have.length(1);
  });

  it('says which field cannot be, and how to mend it', () => {
    const formula = wildFormula(5);
    const codes = (options: RunSheetOptions, own = formula) => {
      const made = runSheet(own, materials, options);
      return made.ok ? [] : made.errors.map(({ path, code }) => `${path} ${code}`);
    };
    expect(codes({ fatsMassG: -1 })).to.deep.equal(['fatsMassG out-of-range']);
    expect(codes({ bars: 10 }, { ...formula, bars: null })).to.deep.equal(['bars bars-unknown']);
    expect(codes({ moulds: [{ id: 'none', count: 1 }] })).to.deep.equal(['moulds.0.id unknown-mould']);
    expect(codes({ lyeStock: { concentrationPct: 100 } })).to.deep.equal([
      'lyeStock.concentrationPct out-of-range',
    ]);
    const filled = sheetOf(formula, { moulds: [{ id: 'block', count: 2, volumeMl: 1000 }] });
    expect(filled.pourG).to.be.within(1500, 3500);
  });
});
