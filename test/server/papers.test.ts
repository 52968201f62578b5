/** Every paper of the demo's inbox, read as the paper tray reads it, against what its supplier wrote. */
import { expect } from 'chai';
import Papa from 'papaparse';
import { linesFromRows, linesFromText } from '../../src/core/paperwork/page';
import { readPaper, type PaperReading } from '../../src/core/paperwork/read';
import { demoPapers } from '../../src/demo/papers';
import type { DemoPaper } from '../../src/demo/papers/types';
import { draftFrom, faultsOf, papersFrom } from '../../src/islands/papers/draft';
import { knownConstituents } from '../../src/library/constituents';
import { pdfLines } from '../papers/print';
import { DAY } from './database';

async function reading(paper: DemoPaper): Promise<PaperReading> {
  const bytes = await paper.make();
  const text = () => new TextDecoder().decode(bytes);
  const lines =
    paper.mime === 'application/pdf'
      ? await pdfLines(bytes)
      : paper.mime === 'text/csv'
        ? linesFromRows(Papa.parse<string[]>(text()).data)
        : linesFromText(text());
  return readPaper({ lines }, knownConstituents);
}

/** What a supplier's paper says: material, number, day, edition, category 9, and constituents low to high. */
type Said = [
  material: string,
  number: string,
  issuedOn: string,
  edition: string | undefined,
  nine: number | undefined,
  rows: string,
];

const SAID: Record<string, Said> = {
  'ba-1407-r2': ['Coal & Violets', 'BA-1407-R2', '2026-11-18', '51st', 3.9, ''],
  'ba-1502': ['Wet Slate', 'BA-1502', '2026-11-22', '51st', 5.2, ''],
  'ba-1502-a': [
    'Wet Slate',
    'BA-1502-A',
    '2026-11-22',
    undefined,
    undefined,
    'linalool 1.1-1.1, limonene 2.5-2.5, citronellol 0.8-0.8, hexyl-cinnamal 0-0.1, coumarin 0-0',
  ],
  'ba-1391-a': [
    'Verbena Lane',
    'BA-1391-A',
    '2026-11-12',
    undefined,
    undefined,
    'citral 6-8, limonene 10-13, geraniol 1.5-1.5, linalool 2-2, pinene 0.4-0.4, terpineol 0.25-0.25, hexyl-cinnamal 0.8-0.8',
  ],
  'nb-252': [
    'Sweet orange oil',
    'NB-252',
    '2026-10-31',
    '51st',
    8.5,
    'limonene 93-96.5, linalool 0.2-0.7, citral 0.05-0.15, pinene 0.4-0.7',
  ],
  'nb-240-a': [
    'Petitgrain oil',
    'NB-240-A',
    '2026-10-22',
    undefined,
    undefined,
    'linalyl-acetate 48-58, linalool 22-30, terpineol 4-7, geranyl-acetate 2-4, geraniol 2-3.5, limonene 0.5-2',
  ],
  'nb-226-a': [
    'Palmarosa oil',
    'NB-226-A',
    '2026-10-15',
    undefined,
    undefined,
    'geraniol 78.5-78.5, geranyl-acetate 9.2-9.2, linalool 3.1-3.1, limonene 0.3-0.3, farnesol 0-0.5',
  ],
  'nb-198-a': [
    'Clove bud oil',
    'NB-198-A',
    '2026-10-10',
    undefined,
    undefined,
    'eugenol 82.5-82.5, eugenyl-acetate 7.2-7.2, beta-caryophyllene 6.1-6.1, isoeugenol 0.09-0.15, methyl-eugenol 0-0.01',
  ],
  'nb-228-b': [
    'Litsea cubeba oil',
    'NB-228-B',
    '2026-05-04',
    '50th',
    1.1,
    'citral 74.5-74.5, limonene 13.2-13.2, linalool 1.6-1.6, geraniol 0-0',
  ],
  'nb-261': ['Peppermint oil', 'NB-261', '2026-11-10', '51st', 3.6, ''],
  'nb-215-a': [
    'Scots pine oil',
    'NB-215-A',
    '2026-09-23',
    undefined,
    undefined,
    'pinene 55-55, limonene 5-5, beta-caryophyllene 2-2, terpinolene 1-1, camphor 0-0',
  ],
  'ba-1391-r1': ['Verbena Lane', 'BA-1391-R1', '2026-11-19', '51st', 2.9, ''],
  'hd-77': ['Signal Lamp', 'HD-77', '2026-09-15', '49th', undefined, ''],
};

describe('the demo’s papers', () => {
  it('are a dozen and more, every one with what it says written down here', () => {
    expect(demoPapers(DAY).map(({ id }) => id)).to.have.members(Object.keys(SAID));
  });

  for (const paper of demoPapers(DAY)) {
    it(`are read as written: ${paper.fileName}`, async () => {
      const found = await reading(paper);
      const nine = found.categories.find(({ value }) => value.category === '9')?.value.maxPct;
      const rows = found.rows.map(
        ({ constituent, lowPct, highPct }) => `${constituent} ${lowPct}-${highPct}`,
      );
      const { material, number, issuedOn, edition } = found;
      expect([
        material?.value,
        number?.value,
        issuedOn?.value,
        edition?.value,
        nine,
        rows.join(', '),
      ]).to.deep.equal(SAID[paper.id]);
    });
  }

  it('ask where they are unsure: a day that reads two ways, wrong digits, traces, thousands, no soap', async () => {
    const of = async (id: string) => reading(demoPapers(DAY).find((paper) => paper.id === id)!);
    const litsea = await of('nb-228-b');
    expect(litsea.issuedOn!.question).to.contain('day first');
    expect(litsea.rows.map(({ question }) => question !== null)).to.deep.equal([false, false, true, true]);
    expect((await of('nb-198-a')).rows[0]!.question).to.contain('thousands');
    expect((await of('hd-77')).questions.join()).to.contain('No maximum for category 9');
  });
});

describe('what the maker accepts of a paper', () => {
  const materials = [{ id: 'litsea-cubeba-oil', name: 'Litsea cubeba oil' }];
  const litsea = async () => {
    const paper = demoPapers(DAY).find(({ id }) => id === 'nb-228-b')!;
    return draftFrom(await reading(paper), materials, null);
  };

  it('leaves doubtful rows out and waits until doubtful fields were looked at', async () => {
    const draft = await litsea();
    expect(draft.material).to.equal('litsea-cubeba-oil');
    expect(draft.rows.map(({ isTaken }) => isTaken)).to.deep.equal([true, true, false, false]);
    expect(faultsOf(draft)).to.deep.equal(['Issued on: tick that you have looked at it.']);
    draft.fields.issuedOn.isLooked = true;
    expect(faultsOf(draft)).to.deep.equal([]);
    const [certificate, allergens] = papersFrom(draft, 'x.pdf');
    expect(certificate).to.include({ type: 'certificate', number: 'NB-228-B', maxPct: 1.1, edition: '50th' });
    expect(certificate!.otherCategories).to.deep.include({ category: '6', maxPct: 0 });
    expect(allergens!.constituents!.map(({ id }) => id)).to.deep.equal(['citral', 'limonene']);
  });

  it('adds isomers up and refuses ranges that are none', async () => {
    const draft = await litsea();
    draft.fields.issuedOn.isLooked = true;
    draft.rows[1] = { ...draft.rows[1]!, constituent: 'citral', low: '5', typical: '6', high: '7' };
    expect(papersFrom(draft, 'x')[1]!.constituents).to.deep.equal([
      { id: 'citral', lowPct: 79.5, typicalPct: 80.5, highPct: 81.5 },
    ]);
    draft.rows[1] = { ...draft.rows[1]!, low: '9' };
    expect(faultsOf(draft).join()).to.contain('from low to high');
    draft.rows[1] = { ...draft.rows[1]!, low: 'some' };
    expect(faultsOf(draft).join()).to.contain('0 to 100 %');
  });

  it('asks which material a paper belongs to where that is not plain', async () => {
    const paper = demoPapers(DAY).find(({ id }) => id === 'ba-1502')!;
    const other = draftFrom(await reading(paper), materials, 'litsea-cubeba-oil');
    expect(other.materialQuestion).to.contain('“Wet Slate”');
    const none = draftFrom(await reading(paper), materials, null);
    expect(none.material).to.equal('');
    expect(faultsOf(none)).to.include('Choose the material the paper belongs to.');
  });
});
