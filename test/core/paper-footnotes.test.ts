/** Notes that a mark beside the level of bar soap leads to. */
import { expect } from 'chai';
import { linesFromRows } from '../../src/core/paperwork/page';
import { readPaper } from '../../src/core/paperwork/read';
import { knownConstituents } from '../../src/library/constituents';

/** What is asked of the notes of a certificate with such a row and such lines below its table. */
function asked(row: readonly string[], ...below: string[]) {
  const rows = [
    ['Certificate of conformity, 51st amendment'],
    ['Product: Salt Meadow'],
    ['Category', 'Maximum in the finished product, %'],
    ['Category 4', '0.9'],
    ['Category 5A', '0.25'],
    [...row],
    ['Category 10A', '1.1'],
    ...below.map((text) => [text]),
    ['2. Issued on 3 March 2026 by Tallow Lane Aromatics'],
  ];
  const read = readPaper({ lines: linesFromRows(rows) }, knownConstituents);
  const nine = read.categories.find(({ value }) => value.category === '9')!.value.maxPct;
  const notes = read.questions.filter((question) => question.includes('stands with a mark'));
  return [nine, ...notes.map((question) => /“(.*)”/.exec(question)![1])];
}

describe('notes of a mark beside a level', () => {
  it('are told where they set a condition, however the mark is written', () => {
    const said = 'Only where the peroxide value is below 20 mmol/l';
    expect(asked(['Category 9', '0.5¹'], `¹ ${said}`)).to.deep.equal([0.5, said]);
    expect(asked(['Category 9¹', '0.5'], `1 ${said}`)).to.deep.equal([0.5, said]);
    expect(asked(['Category 9', '0.5 (1)'], `(1) ${said}`)).to.deep.equal([0.5, said]);
    expect(asked(['Category 9', '0.5*'], `* ${said}`)).to.deep.equal([0.5, said]);
    expect(asked(['Category 9', '0.5³'], 'Note 1: not for sale.', `Note 3: ${said}`)).to.deep.equal([
      0.5,
      said,
    ]);
  });

  it('are told in other languages, and where they hold a figure of their own', () => {
    for (const said of [
      'nur in abzuspülenden Produkten',
      'sauf pour les enfants de moins de 3 ans',
      'solo se il prodotto si risciacqua',
      'alleen voor producten die worden afgespoeld',
      '0.3 % in bars for the face',
    ])
      expect(asked(['Category 9', '0.5²'], `² ${said}`), said).to.deep.equal([0.5, said]);
  });

  it('of several marks are each told, and no other’s', () => {
    const notes = ['* Rounded down.', '** Not for children under 3.', '*** Only with sunscreen.'];
    expect(asked(['Category 9', '0.5**'], ...notes)).to.deep.equal([0.5, 'Not for children under 3']);
    expect(
      asked(['Category 9', '0.5¹,³'], '1 Only as a wash.', '2 Not in Canada.', '3 Without added citral.'),
    ).to.deep.equal([0.5, 'Only as a wash', 'Without added citral']);
  });

  it('that say what every level is, or that are not there, are not', () => {
    expect(asked(['Category 9', '0.5¹'], '1 In the finished product.')).to.deep.equal([0.5]);
    expect(asked(['Category 9', '0.5²'])).to.deep.equal([0.5]);
    expect(asked(['Category 9', '0.5'], '* Only as a wash.')).to.deep.equal([0.5]);
  });
});
