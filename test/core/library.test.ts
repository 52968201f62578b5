/** The checker of what ships as data: library, rulebook, craft advice. */
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { membersOf } from '../../src/core/formula/subject';
import { LIBRARY, libraryMaterial } from '../../src/library';
import { isCasNumber } from '../../src/core/paperwork/figures';
import { constituent } from '../../src/library/constituents';
import type { Shelf } from '../../src/library/types';
import { colourPermission, rulebook } from '../../src/rulebook';
import { near } from '../support/request';

const faults = (of: (material: (typeof LIBRARY)[number]) => string | false | undefined) =>
  LIBRARY.flatMap((material) => of(material) || []);

describe('library', () => {
  it('holds at least what a maker expects on every shelf', () => {
    const least: Record<Shelf, number> = {
      fats: 45,
      liquids: 20,
      scents: 45,
      clays: 20,
      dissolved: 15,
      botanicals: 25,
      colourants: 30,
      fibres: 8,
    };
    for (const [shelf, count] of Object.entries(least)) {
      expect(LIBRARY.filter((material) => material.shelf === shelf).length, shelf).to.be.at.least(count);
    }
  });

  it('gives each material an id of its own, an ingredient name, a standing and a source', () => {
    expect(new Set(LIBRARY.map(({ id }) => id)).size).to.equal(LIBRARY.length);
    expect(faults(({ id, inci }) => !inci?.length && id)).to.deep.equal([]);
    expect(
      faults(({ id, inci }) => inci!.some(({ name }) => name.trim() !== name || name === '') && id),
    ).to.deep.equal([]);
    expect(
      faults(
        ({ id, provenance }) =>
          (provenance.source.length < 10 || !/^\d{4}-\d\d-\d\d$/.test(provenance.asOf)) && id,
      ),
    ).to.deep.equal([]);
  });

  it('has parts that add up to 100 and shares that can be', () => {
    const sum = (parts: { sharePct: number }[]) => parts.reduce((total, { sharePct }) => total + sharePct, 0);
    expect(faults(({ id, inci }) => Math.abs(sum(inci!) - 100) > 1e-9 && id)).to.deep.equal([]);
    expect(faults(({ id, waterPct, fatPct }) => (waterPct ?? 0) + (fatPct ?? 0) > 100 && id)).to.deep.equal(
      [],
    );
    const acids = (material: (typeof LIBRARY)[number]) =>
      Object.values(material.fattyAcids ?? {}).reduce((a, b) => a + b, 0);
    expect(
      faults((m) => m.shelf === 'fats' && (acids(m) < 90 || acids(m) > 100.5) && `${m.id} ${acids(m)}`),
    ).to.deep.equal([]);
  });

  it('has water in its parts only where it says it holds water', () => {
    const water = (m: (typeof LIBRARY)[number]) =>
      m.inci!.filter(({ role }) => role === 'water').reduce((t, { sharePct }) => t + sharePct, 0);
    expect(faults((m) => water(m) > 0 && Math.abs(water(m) - (m.waterPct ?? 0)) > 0.2 && m.id)).to.deep.equal(
      [],
    );
  });

  it('keeps ranges in order, and typical constituents within the whole', () => {
    for (const { id, constituents, saponificationValue: sv } of LIBRARY) {
      for (const { id: what, lowPct, typicalPct, highPct } of constituents ?? []) {
        expect(lowPct <= typicalPct && typicalPct <= highPct && highPct <= 100, `${id} ${what}`).to.equal(
          true,
        );
      }
      if (sv) expect(sv.lowMgKoh <= sv.typicalMgKoh && sv.typicalMgKoh <= sv.highMgKoh, id).to.equal(true);
      const substances = (constituents ?? []).filter((c) => !(c.lowPct === 100 && c.highPct === 100));
      const lowest = substances.reduce((total, { lowPct }) => total + lowPct, 0);
      const typical = substances.reduce((total, { typicalPct }) => total + typicalPct, 0);
      expect(lowest, id).to.be.at.most(100);
      expect(typical, id).to.be.at.most(101);
    }
  });

  it('reckons sodium hydroxide from the saponification value, and saponifies every fat', () => {
    near(libraryMaterial('olive')!.saponification!.naohPerGram, 0.1354, 1e-9); // 190 mg KOH/g x 39.997 / 56.106
    expect(
      faults(
        ({ id, shelf, saponification }) =>
          shelf === 'fats' && !(saponification!.naohPerGram > 0.03 && saponification!.formedInci) && id,
      ),
    ).to.deep.equal([]);
  });

  it('knows every constituent by name, with CAS numbers whose check digit holds', () => {
    const ids = new Set(LIBRARY.flatMap(({ constituents }) => (constituents ?? []).map(({ id }) => id)));
    const limited = rulebook()
      .limits.filter(({ subject }) => subject.type === 'constituent')
      .flatMap(({ subject }) => membersOf(subject));
    for (const id of [...ids, ...limited]) {
      const entry = constituent(id);
      expect(entry, id).to.not.equal(undefined);
      for (const cas of entry!.cas) expect(isCasNumber(cas), `${id} ${cas}`).to.equal(true);
    }
    expect(isCasNumber('78-70-7')).to.equal(false);
    expect(isCasNumber('linalool')).to.equal(false);
  });
});

describe('rulebook', () => {
  it('holds every allergen of the rules, with all its numbers and its list', () => {
    const [, ...rows] = readFileSync('test/core/fragrance-allergens.csv', 'utf8').trim().split(/\r?\n/);
    const known = new Map(rulebook().allergens.map((entry) => [entry.cas, entry]));
    const renamed: Record<string, string> = { 'Cymbopogon Oil (Lemongrass)': 'Lemongrass Oil' };
    expect(rows).to.have.length(81);
    for (const row of rows) {
      const [name, cas, list, kind, also] = row.split(',') as [string, string, string, string, string];
      const entry = known.get(cas);
      expect(entry, name).to.deep.include({ name: renamed[name] ?? name, list, kind });
      expect(entry!.alsoCas, name).to.include.members(also.split(' ').filter(Boolean));
      for (const other of entry!.alsoCas) expect(isCasNumber(other), `${name} ${other}`).to.equal(true);
    }
  });

  it('gives each limit a source, a standing and a day, and never calls advice published', () => {
    const { limits, craft, allergenLists } = rulebook();
    for (const limit of [...limits, ...craft]) {
      expect(limit.source, limit.id).to.be.a('string').and.not.equal('');
      expect(limit.asOf, limit.id).to.match(/^\d{4}-\d\d-\d\d$/);
      if (limit.force === 'craft') expect(limit.standing, limit.id).not.to.equal('published');
    }
    for (const { note, usualPct, maxPct, id } of craft) {
      if (!usualPct) continue;
      expect(note, id).to.be.a('string');
      expect(usualPct[0] <= usualPct[1] && usualPct[1] <= maxPct, id).to.equal(true);
    }
    expect(new Set([...limits, ...craft].map(({ id }) => id)).size).to.equal(limits.length + craft.length);
    expect(allergenLists.filter(({ market }) => market === 'UK').map(({ allFrom }) => allFrom)).to.deep.equal(
      ['2005-03-11', null],
    );
  });

  it('speaks only of materials and kinds that there are', () => {
    const kinds = new Set(LIBRARY.map(({ kind }) => kind as string));
    for (const { subject } of rulebook().craft) {
      if (subject.type === 'material')
        expect(libraryMaterial(subject.id), subject.id).to.not.equal(undefined);
      if (subject.type === 'kind' && subject.id !== 'fragrance')
        expect(kinds.has(subject.id), subject.id).to.equal(true);
    }
  });

  it('knows which colours a market does not let into a cosmetic, and says when it does not know', () => {
    const book = rulebook();
    expect(colourPermission(book, 'CI 77268:1', 'EU')).to.equal('permitted');
    expect(colourPermission(book, 'CI 77268:1', 'US')).to.equal('notPermitted');
    expect(colourPermission(book, 'Rubia Tinctorum Root Powder', 'EU')).to.equal('notPermitted');
    expect(colourPermission(book, 'Rubia Tinctorum Root Powder', 'CA')).to.equal('unlisted');
  });

  it('refuses an edition that does not ship', () => {
    expect(rulebook('2026-11').edition).to.equal('2026-11');
    expect(() => rulebook('1999-01')).to.throw(RangeError);
  });
});
