/** Letters to suppliers: what is asked, in six languages; kept with their day, missed when nothing comes. */
import { expect } from 'chai';
import { speaksOf } from '../../src/core/paperwork/conditions';
import { LETTER_LANGUAGES } from '../../src/core/paperwork/letter-words';
import { asksOf, letterOf, unanswered, type Ask } from '../../src/core/paperwork/supplier-letter';
import type { CupboardEntry } from '../../src/core/records/cupboard';
import { LIBRARY } from '../../src/library';
import { rulebook } from '../../src/rulebook';
import { handsNow } from '../../src/server/services/watch/hands';
import { takeMaterial } from '../../src/server/store/materials';
import { addFat } from './add-line';
import { caller } from './call';
import { useDemo } from './database';

const go = caller({
  letters: () => import('../../src/pages/api/v1/materials/[id]/letters'),
  one: () => import('../../src/pages/api/v1/materials/[id]/conditions/[condition]'),
});

const ASKS: Ask[] = [
  { kind: 'certificate', id: 'certificate' },
  { kind: 'renew', id: 'renew HD-77', number: 'HD-77', issuedOn: '2023-02-01' },
  { kind: 'condition', id: 'condition peanut-protein', asks: 'Peanut protein at most 0.5 ppm' },
  { kind: 'lot', id: 'lot CL2622', code: 'CL2622', why: 'smells of paint' },
];

describe('letters to suppliers', () => {
  const demo = useDemo();
  const asked = rulebook().conditions.find(({ id }) => id === 'peanut-protein')!;
  const peanut = LIBRARY.find((material) => speaksOf(asked, material))!;

  it('name material, paper, condition, lot and maker in every language, each in words of its own', () => {
    const facts = { material: 'Peanut oil', supplier: 'Fennmoor Oils', maker: 'Signal Row' };
    const bodies = LETTER_LANGUAGES.map((language) => {
      const { subject, body } = letterOf(facts, ASKS, language);
      expect(subject, language).to.include('Peanut oil');
      for (const one of ['Fennmoor Oils', 'Peanut oil', 'HD-77', '2023-02-01', 'Signal Row'])
        expect(body, language).to.include(one);
      for (const one of ['Peanut protein at most 0.5 ppm', 'CL2622', 'smells of paint'])
        expect(body, language).to.include(one);
      expect(body.match(/^- /gm), language).to.have.length(ASKS.length);
      // Without asks, a supplier and a name it is still a letter.
      expect(letterOf({ ...facts, supplier: null, maker: null }, [], language).body).not.to.match(
        /null|undefined/,
      );
      return body;
    });
    const lines = bodies.flatMap((body) => body.split('\n').filter((line) => line.length > 20));
    expect(new Set(lines).size).to.equal(lines.length);
  });

  it('wait each for what it alone asked, though another was written since', () => {
    const letter = (on: string, ...about: string[]) => ({
      on,
      about,
      language: 'en' as const,
      subject: 's',
      body: 'b',
    });
    const [certificate, renew, , lot] = ASKS;
    const letters = [letter('2026-11-20', renew!.id), letter('2026-11-01', renew!.id, lot!.id)];
    const waits = (asks: readonly Ask[]) =>
      unanswered(letters, asks).map(({ letter: { on }, asks: left }) => [on, ...left.map(({ id }) => id)]);
    expect(waits(ASKS)).to.deep.equal([
      ['2026-11-01', lot!.id],
      ['2026-11-20', renew!.id],
    ]);
    expect(waits([certificate!])).to.deep.equal([]);
  });

  it('ask what is missing; are kept once a day; are missed after two weeks, until the paper is there', async () => {
    await takeMaterial(demo.db, peanut.id, null);
    const params = { id: peanut.id };
    expect(await addFat(demo.house, 'first-light', peanut.id, 20)).to.equal(200);
    const letter = {
      language: 'de',
      about: [`condition ${asked.id}`],
      subject: 'Unterlagen',
      body: 'Guten Tag,\nbitte …',
    };
    await go('letters', 'PUT', { params, body: letter });
    const kept = await go<CupboardEntry>('letters', 'PUT', { params, body: letter });
    expect(kept.body.letters).to.deep.equal([{ ...letter, on: demo.house.today }]);
    expect(asksOf(kept.body).map(({ id }) => id)).to.deep.equal(letter.about);

    const waiting = async (today: string) =>
      (await handsNow({ ...demo.house, today })).filter(({ what }) => what === peanut.name);
    expect(await waiting('2026-12-07')).to.deep.equal([]);
    const [missed] = await waiting('2026-12-08');
    expect(missed).to.include({
      place: 'Cupboard',
      where: `/cupboard?material=${peanut.id}`,
      urgency: 'due',
    });
    expect(missed!.why).to.match(/asked on 2026-11-24/);

    // The paper that answers ends what was asked; before its own day it is told, and after it is missed.
    const shown = { value: 0.2, paper: 'PR 9, Fennmoor Oils', on: '2026-11-24', until: '2027-06-30' };
    await go('one', 'PUT', { params: { id: peanut.id, condition: asked.id }, body: shown });
    expect(await waiting('2026-12-08')).to.deep.equal([]);
    expect((await waiting('2027-06-10'))[0]!.why).to.match(/PR 9.*counts until 2027-06-30/);
    expect(
      (await waiting('2027-07-01')).map(({ why, urgency }) => `${urgency} ${why.slice(0, 27)}`),
    ).to.include('now Its paper ended on 2027-06-');
    await go('one', 'PUT', { params: { id: peanut.id, condition: asked.id }, body: { ...shown, value: 3 } });
    expect((await waiting('2026-11-24'))[0]).to.include({ urgency: 'now' });

    const off = await go<CupboardEntry>('letters', 'DELETE', { params });
    expect(off.body.letters).to.deep.equal([]);
  });

  it('are refused without a subject, in a language that is not written, for what is not there', async () => {
    const letter = { language: 'en', about: [], subject: 'Papers', body: 'Dear' };
    const path = async (body: object) => {
      const answer = await go<{ errors: { path: string }[] }>('letters', 'PUT', {
        params: { id: 'olive' },
        body,
      });
      return [answer.status, answer.body.errors[0]!.path];
    };
    expect(await path({ ...letter, subject: ' ' })).to.deep.equal([422, 'subject']);
    expect(await path({ ...letter, language: 'fi' })).to.deep.equal([422, 'language']);
    expect(await path({ ...letter, about: [3] })).to.deep.equal([422, 'about']);
    expect((await go('letters', 'PUT', { params: { id: 'none' }, body: letter })).status).to.equal(404);
  });
});
