/** Teaching the reader: a correction on one paper is found again on the next that is laid out alike, and asked about. */
import { expect } from 'chai';
import { lessonFrom, remember, type Lesson } from '../../src/core/paperwork/lessons';
import { linesFromRows, linesFromText } from '../../src/core/paperwork/page';
import { readPaper } from '../../src/core/paperwork/read';
import { knownConstituents } from '../../src/library/constituents';

/** A made-up house whose words no list of labels holds. */
const housePaper = (number: string, day: string, soap: string, name: string) => ({
  lines: linesFromRows([
    ['Quarry Lane Odours', 'our word on this scent'],
    ['the scent', name],
    ['ledger mark', number, 'kept since', '2 May 2019'],
    ['set down', day],
    ['where it goes', 'remark', 'at most'],
    ['rinsed bars and the like', 'hands too', soap],
    ['worn on skin all day', 'never faces', '0.8 %'],
    ['with regards from the still room', 'signed by nobody'],
  ]),
});
const first = housePaper('QL 7741', '4 March 2026', '3.6 %', 'Wet Chalk');
const second = housePaper('QL 8102', '19 June 2026', '5.25 %', 'Barn Owl');

const teach = (field: Lesson['field'], value: string) => lessonFrom(first, field, value, 'QL 7741')!;

describe('teaching the reader', () => {
  it('finds number, day and maximum again where they stood, and asks', () => {
    const untaught = readPaper(second, knownConstituents);
    expect(untaught.number?.value).not.to.equal('QL 8102');
    const lessons = [teach('number', 'QL 7741'), teach('maxPct', '3.6'), teach('issuedOn', '2026-03-04')];
    const { number, issuedOn, categories } = readPaper(second, knownConstituents, lessons);
    expect([number?.value, issuedOn?.value]).to.deep.equal(['QL 8102', '2026-06-19']);
    expect(categories[0]?.value).to.deep.equal({ category: '9', maxPct: 5.25 });
    for (const taken of [number!, categories[0]!])
      expect(taken.question).to.match(/^As you read it last time, on QL 7741/);
    expect(second.lines[number!.line]!.cells.map(({ text }) => text)).to.include('QL 8102');
  });

  it('knows an issuer that is nowhere on the paper by the layout alone', () => {
    const lessons = [teach('issuer', 'Quarry Lane Ltd')];
    expect(lessons[0]!.place).to.equal('always');
    expect(readPaper(second, knownConstituents, lessons).issuer?.value).to.equal('Quarry Lane Ltd');
  });

  it('reads behind a label in the same cell, and below one', () => {
    const paper = (mark: string, peak: string) => ({
      lines: linesFromText(
        `Hilltop Works sheet\nledger mark: ${mark}\nfor the scent      warmest peak\nBarn Owl           ${peak}\nkept dry and dark`,
      ),
    });
    const [one, two] = [paper('HW-11', '93 C'), paper('HW-12', '71 C')];
    const lessons = [
      lessonFrom(one, 'number', 'HW-11', 'HW-11')!,
      lessonFrom(one, 'flashPointC', '93', 'HW-11')!,
    ];
    expect(lessons.map(({ place }) => place)).to.deep.equal(['behind', 'below']);
    const reading = readPaper(two, knownConstituents, lessons);
    expect([reading.number?.value, reading.flashPointC?.value]).to.deep.equal(['HW-12', 71]);
  });

  it('leaves papers laid out otherwise alone, and its own reading where both agree', () => {
    const lessons = [teach('number', 'QL 7741')];
    const other = { lines: linesFromText('Certificate no: AB-1\nledger mark: QL 1\nIssued 3 May 2026') };
    expect(readPaper(other, knownConstituents, lessons)).to.deep.equal(readPaper(other, knownConstituents));
    const plain = { lines: linesFromText('Certificate no: AB-1\nThe scent: Owl\nIssued on: 3 May 2026') };
    const same = [lessonFrom(plain, 'number', 'AB-1', 'AB-1')!];
    expect(readPaper(plain, knownConstituents, same).number?.question).to.equal(null);
  });

  it('forgets an older lesson for the same field of the same layout, and keeps others', () => {
    const [old, fresh, issuer] = [
      teach('number', 'QL 7741'),
      teach('number', 'QL 7741'),
      teach('issuer', 'Q'),
    ];
    expect(remember([old, issuer], [fresh])).to.deep.equal([fresh, issuer]);
  });

  it('teaches nothing from a value that stands nowhere', () => {
    expect(lessonFrom(first, 'number', 'XX 1', 'XX 1')).to.equal(null);
    expect(lessonFrom({ lines: [] }, 'issuer', 'Quarry Lane Ltd', 'X')).to.equal(null);
  });
});

describe('an issuer whose legal form stands apart', () => {
  const issuer = (text: string) => readPaper({ lines: linesFromText(text) }, knownConstituents).issuer?.value;
  it('is read whole after a comma and over two lines', () => {
    expect(issuer('Supplier: Fallow Fragrance Co., Ltd\nCertificate no: A-12')).to.equal(
      'Fallow Fragrance Co., Ltd',
    );
    expect(issuer('Supplier:   Fallow Fragrance Co.\n            Ltd\nCertificate no: A-12')).to.equal(
      'Fallow Fragrance Co. Ltd',
    );
    expect(issuer('Supplier: Fallow & Sons, 3 Mill Lane\nCertificate no: A-12')).to.equal('Fallow & Sons');
  });
});
