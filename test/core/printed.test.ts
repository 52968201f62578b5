/** The rulebook and library as one document: nothing is left out, and nothing runs. */
import { expect } from 'chai';
import { LIBRARY } from '../../src/library';
import { printed } from '../../src/library/printed';
import { rulebook } from '../../src/rulebook';

describe('the printed rulebook', () => {
  const book = rulebook();
  const page = printed(book, LIBRARY, '2026-11-24');
  const cell = (value: string) =>
    `<td>${value.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')}</td>`;

  it('holds every limit with its figure, source, standing and day', () => {
    for (const { id, maxPct, basis, source, standing, asOf } of book.limits) {
      const row = page.split('<tr>').find((one) => one.startsWith(cell(id)));
      expect(row, id).to.include(`${Number(maxPct.toPrecision(6))} % of ${basis}`);
      for (const said of [source!, standing, asOf]) expect(row, id).to.include(cell(said));
    }
  });

  it('holds every material with where it is from, its numbers and its shares', () => {
    for (const { id, provenance, constituents, numbers } of LIBRARY) {
      const from = page.indexOf(`<h3 id="${id}">`);
      expect(from, id).to.be.above(0);
      const end = page.indexOf('<h3 id=', from + 1);
      const own = page.slice(from, end < 0 ? undefined : end);
      expect(own).to.include(provenance.asOf);
      for (const share of constituents ?? []) expect(own, `${id} ${share.id}`).to.include(cell(share.id));
      for (const known of numbers ?? []) expect(own).to.include(known);
    }
  });

  it('says nothing of what is not known, and holds nothing that runs', () => {
    expect(page).to.not.match(/undefined|NaN|\[object|<script|on\w+=|href=/);
  });
});
