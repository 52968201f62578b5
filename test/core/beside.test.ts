/** Two batches side by side, and what a batch leaves as a material of its own. */
import { expect } from 'chai';
import { assess } from '../../src/core/assess';
import { besideRows } from '../../src/core/batch/beside';
import { foldBatch } from '../../src/core/batch/fold';
import { partMaterial } from '../../src/core/batch/part';
import { batchRequest } from '../../src/core/batch/request';
import type { Batch, BatchEvent } from '../../src/core/batch/types';
import type { TraitMaterial } from '../../src/core/formula/traits';
import type { Formula } from '../../src/core/formula/types';
import { runSheet } from '../../src/core/making/run-sheet';
import { LIBRARY } from '../../src/library';

const SCENT: TraitMaterial = {
  id: 'fog',
  name: 'Fog',
  kind: 'fragrance',
  inci: [{ name: 'Parfum', sharePct: 100, role: 'scent' }],
  constituents: [{ id: 'linalool', lowPct: 8, typicalPct: 10, highPct: 12 }],
  limits: [
    {
      id: 'cert-fog',
      subject: { type: 'material', id: 'fog' },
      maxPct: 4,
      basis: 'cured',
      force: 'certificate',
      source: 'Certificate F-1',
    },
  ],
};
const materials = [...LIBRARY.filter(({ id }) => ['olive', 'coconut', 'water'].includes(id)), SCENT];
const formula: Formula = {
  alkali: { superfatPct: 5, purityPct: 100 },
  bars: 10,
  lines: [
    { id: 'o', material: 'olive', stage: 'fats', amount: { value: 600, unit: 'g' } },
    { id: 'c', material: 'coconut', stage: 'fats', amount: { value: 400, unit: 'g' } },
    { id: 'w', material: 'water', stage: 'liquid', amount: { value: 330, unit: 'g' } },
    { id: 's', material: 'fog', stage: 'trace', amount: { value: 30, unit: 'g' } },
  ],
};
const made = runSheet(formula, materials);
if (!made.ok) throw new Error('The sheet is not made.');
const { ok: _ok, ...sheet } = made;

let count = 0;
const at = (hours: number) => new Date(Date.parse('2026-10-01T08:00:00Z') + hours * 3_600_000).toISOString();
const event = (type: string, hours: number, more: object): BatchEvent =>
  ({ id: `b${++count}`, type, at: at(hours), by: null, ...more }) as unknown as BatchEvent;

/** A batch of the bar at a size, with its scent off by a factor, cut after so many hours. */
function batchOf(
  code: string,
  size: number,
  scent: number,
  cutHours: number,
  more: BatchEvent[] = [],
): Batch {
  return foldBatch([
    event('started', 0, { product: 'p', version: 1, formula: sheet.formula, materials, sheet, code }),
    ...sheet.steps
      .flatMap(({ weigh }) => weigh)
      .map(({ line, massG }) =>
        event('weighed', 1, {
          line,
          massG: massG * size * (line === 's' ? scent : 1),
          readabilityG: 0.1,
          how: 'scale',
        }),
      ),
    event('temperature', 1, { of: 'lye', c: 38 }),
    event('poured', 2, { moulds: [{ id: 'block', count: 1 }], leftoverG: 0 }),
    event('cut', 2 + cutHours, { bars: 10, seconds: 1, trimmingsG: 25 }),
    ...more,
  ])!;
}

describe('two batches side by side', () => {
  const rows = (a: Batch, b: Batch) => new Map(besideRows(a, b).map((row) => [row.name, row]));
  it('match in shares of the fats, whatever their sizes', () => {
    const found = rows(batchOf('A', 1, 1, 24), batchOf('B', 2, 1, 24));
    const olive = [...found.values()].find(({ name }) => /olive/i.test(name))!;
    expect([olive.a, olive.b, olive.differs]).to.deep.equal([
      '600.0 g, 60.00 % of fats',
      '1200.0 g, 60.00 % of fats',
      false,
    ]);
    expect([...found.values()].filter(({ group, differs }) => group === 'weighed' && differs)).to.deep.equal(
      [],
    );
  });
  it('part where one was scented, cut or judged otherwise, and where only one was measured', () => {
    const b = batchOf('B', 1, 1.2, 30, [
      event('checked', 40, { check: 'scent', outcome: 'good', value: 'strong' }),
    ]);
    const found = rows(batchOf('A', 1, 1, 24), b);
    expect(found.get('Fog')).to.include({
      a: '30.0 g, 3.00 % of fats',
      b: '36.0 g, 3.60 % of fats',
      differs: true,
    });
    expect(found.get('Cut after')).to.include({ a: '24.0 h', b: '30.0 h', differs: true });
    expect(found.get('scent')).to.include({ a: '', b: 'good, strong', differs: true });
    expect(found.get('lye')).to.include({ a: '38 °C', differs: false });
    expect(found.has('batter')).to.equal(false);
  });
});

describe('a part of a batch as a material', () => {
  const batch = batchOf('A', 1, 1, 24);
  const rules = { material: () => undefined, limits: [], declarables: [] };
  const request = batchRequest(batch, rules, { markets: ['EU'], onDate: '2026-11-24' });
  const result = assess(request, rules);
  if (!result.ok) throw new Error('The batch does not reckon.');
  const { assessment } = result;
  const part = partMaterial(batch, assessment, { id: 'ends', name: 'Ends', find: () => undefined });

  it('has the batch’s list as formed: soaps as soaps, nothing that takes up lye again', () => {
    const names = part.inci!.map(({ name }) => name);
    expect(names.some((name) => /^Sodium Olivate$/.test(name))).to.equal(true);
    expect(names).to.include.members(['Glycerin', 'Parfum']);
    expect(names).not.to.include('Sodium Hydroxide');
    expect(part.inci!.reduce((sum, { sharePct }) => sum + sharePct, 0)).to.be.closeTo(100, 1e-6);
    expect([part.saponification, part.fatPct]).to.deep.equal([undefined, undefined]);
  });
  it('brings its constituents and scents at their share of the cured bar', () => {
    const share = 30 / assessment.masses.curedG;
    expect(part.constituents![0]!.typicalPct).to.be.closeTo(10 * share, 1e-9);
    expect(part.madeOf!.find(({ material }) => material === 'fog')!.sharePct).to.be.closeTo(
      100 * share,
      1e-9,
    );
    expect(part.madeOf!.reduce((sum, { sharePct }) => sum + sharePct, 0)).to.be.closeTo(100, 1e-9);
    expect(part.limits!.map(({ id }) => id)).to.deep.equal(['cert-fog']);
  });
  it('put back into a bar alone, it is the bar it came from', () => {
    const again: Formula = {
      alkali: { superfatPct: 5, purityPct: 100 },
      lines: [
        { id: 'o', material: 'olive', stage: 'fats', amount: { value: 100, unit: 'g' } },
        { id: 'w', material: 'water', stage: 'liquid', amount: { value: 33, unit: 'g' } },
        { id: 'e', material: 'ends', stage: 'trace', amount: { value: 50, unit: 'g' } },
      ],
    };
    const put = assess({ ...request, formula: again, materials: [...materials, part] }, rules);
    if (!put.ok) throw new Error(JSON.stringify(put.errors));
    const row = put.assessment.limits.find(({ id }) => id === 'cert-fog')!;
    const expected = (50 * (30 / assessment.masses.curedG) * 100) / put.assessment.masses.curedG;
    expect(row.nominalPct).to.be.closeTo(expected, 1e-9);
    expect(put.assessment.unproven).to.deep.equal([]);
  });
});
