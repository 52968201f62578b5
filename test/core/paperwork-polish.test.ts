/** Polish papers, written down before the reader was tried on them. */
import { expect } from 'chai';
import { linesFromText } from '../../src/core/paperwork/page';
import { readPaper } from '../../src/core/paperwork/read';
import { knownConstituents } from '../../src/library/constituents';

interface Wanted {
  material: string;
  number: string;
  issuedOn: string;
  edition: string | null;
  nine: number | null;
}

const PAPERS: readonly [text: string, wanted: Wanted][] = [
  [
    `Wrzosowa Aromaty Sp. z o.o.
Deklaracja zgodności nr WA/118
Nazwa handlowa: Mokry Łupek
Data wystawienia: 5 października 2025
Zgodność z 51. poprawką do standardów IFRA
Kategoria 5A   0,9 %
Kategoria 9    2,4 %`,
    { material: 'Mokry Łupek', number: 'WA/118', issuedOn: '2025-10-05', edition: '51st', nine: 2.4 },
  ],
  [
    `CERTYFIKAT
Numer certyfikatu: KO-2207
Produkt: Kawa i Tytoń
Dostawca: Kolejowa Olejki Sp. z o.o.
Data wydania: 18.02.2026
Poprawka IFRA 50
Kategoria | Maksymalny poziom w produkcie
9 | 1,75 %`,
    { material: 'Kawa i Tytoń', number: 'KO-2207', issuedOn: '2026-02-18', edition: '50th', nine: 1.75 },
  ],
  [
    `Nazwa produktu: Olejek lawendowy
Świadectwo nr: LA 3301
Wydano dnia: 9 maja 2026
Produkt spełnia wymagania 49 poprawki
Kategoria 9: nie dotyczy ograniczeń`,
    { material: 'Olejek lawendowy', number: 'LA 3301', issuedOn: '2026-05-09', edition: '49th', nine: null },
  ],
  [
    `Kompozycja zapachowa: Deszczowa Figa
Nr dokumentu: DF-88-2
Data wydania: 30 listopada 2025 r.
Zgodny z 51. poprawką
Kategoria 4 - 0,35%
Kategoria 9 - 11,05%`,
    { material: 'Deszczowa Figa', number: 'DF-88-2', issuedOn: '2025-11-30', edition: '51st', nine: 11.05 },
  ],
  [
    `Producent: Zielona Śluza
Nazwa produktu: Miedziany Irys
Certyfikat nr ZS-7061
Data aktualizacji: 21 lipca 2025
Wydrukowano: 2 sierpnia 2026
Kategoria 9 7,5 %`,
    { material: 'Miedziany Irys', number: 'ZS-7061', issuedOn: '2025-07-21', edition: null, nine: 7.5 },
  ],
  [
    `Nazwa: Słona Łąka
Numer: SL-3390
Data: 3 września 2026
51. poprawka
Kategoria 9 – 0,84 %`,
    { material: 'Słona Łąka', number: 'SL-3390', issuedOn: '2026-09-03', edition: '51st', nine: 0.84 },
  ],
];

describe('a Polish paper', () => {
  it('takes no number of a batch or an order for that of the paper', () => {
    for (const text of [
      'This certificate is for batch no 4471',
      'Certyfikat dla partii nr P-4471',
      'Certificate for order no. AB-4471',
    ])
      expect(readPaper({ lines: linesFromText(text) }, knownConstituents).number, text).to.equal(null);
  });

  for (const [text, wanted] of PAPERS)
    it(`is read: ${wanted.material}`, () => {
      const { material, number, issuedOn, edition, categories } = readPaper(
        { lines: linesFromText(text) },
        knownConstituents,
      );
      const nine = categories.find(({ value }) => value.category === '9');
      expect({
        material: material?.value,
        number: number?.value,
        issuedOn: issuedOn?.value,
        edition: edition?.value ?? null,
        nine: nine?.value.maxPct ?? null,
      }).to.deep.equal(wanted);
    });
});
