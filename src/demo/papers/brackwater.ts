/** Papers of Brackwater Aromatics: a certificate down the page, one across it, and tables of names and numbers. */
import { format, parseISO } from 'date-fns';
import { dayAfter } from '../../core/quantities/day';
import { drawPairs, drawPaper, drawTable } from './draw';
import type { DemoPaper } from './types';

const FALLING = [
  '1',
  '2',
  '3',
  '4',
  '5A',
  '5B',
  '5C',
  '5D',
  '6',
  '7A',
  '7B',
  '8',
  '9',
  '10A',
  '10B',
  '11A',
  '12',
];
const ADDRESS = 'Quay Sheds, Brackwater';

function coalAndViolets(today: string): DemoPaper {
  const issued = dayAfter(today, -6);
  return {
    id: 'ba-1407-r2',
    fileName: 'BA-1407-R2 Coal & Violets certificate.pdf',
    mime: 'application/pdf',
    receivedOn: dayAfter(today, -3),
    make: () =>
      drawPaper('Certificate', (document) => {
        document.font('Helvetica-Bold').fontSize(16).text('Brackwater Aromatics');
        document.font('Helvetica').fontSize(9).text(ADDRESS).moveDown();
        document
          .fontSize(13)
          .text('Certificate of conformity with the fragrance industry standard')
          .moveDown();
        document.fontSize(10);
        drawPairs(document, [
          ['Certificate no.', 'BA-1407-R2'],
          ['Product name', 'Coal & Violets'],
          ['Issue date', format(parseISO(issued), 'd MMMM yyyy')],
          ['Standard', '51st Amendment'],
          ['Flash point', '92 °C'],
          ['Vanillin', '1.4 %'],
        ]);
        document.text('Maximum level in the finished product, by category').moveDown(0.5);
        const maxima = [
          '0.3',
          '0.9',
          '1.9',
          '8.2',
          '2.1',
          '1.9',
          '1.9',
          '0.6',
          '0.1',
          '1.2',
          '1.2',
          '0.6',
          '3.9',
          '3.9',
          '12.4',
          '0.6',
          '100',
        ];
        drawTable(
          document,
          [60, 220],
          FALLING.map((category, index) => [`Category ${category}`, `${maxima[index]!} %`]),
        );
      }),
  };
}

function wetSlate(today: string): DemoPaper {
  return {
    id: 'ba-1502',
    fileName: 'BA-1502 Wet Slate certificate.pdf',
    mime: 'application/pdf',
    receivedOn: dayAfter(today, -1),
    make: () =>
      drawPaper('Certificate', (document) => {
        document.font('Times-Bold').fontSize(15).text('CERTIFICATE OF CONFORMITY', { align: 'center' });
        document.font('Times-Roman').fontSize(10).moveDown();
        document.text('Supplier: Brackwater Aromatics').text('Fragrance: Wet Slate');
        document.text('Ref: BA-1502').text(`Dated ${format(parseISO(dayAfter(today, -2)), 'dd.MM.yyyy')}`);
        document.text('Assessed against Edition 51 of the standard. Flash point > 93 °C.').moveDown();
        document.text('Highest use level (%) for each category of finished product:').moveDown(0.5);
        const columns = FALLING.slice(0, 13).map((_, index) => 50 + index * 38);
        drawTable(document, columns, [
          FALLING.slice(0, 13),
          ['0.4', '1.1', '2.2', '9.5', '2.6', '2.2', '2.2', '0.7', '0.2', '1.4', '1.4', '0.7', '5.2'],
        ]);
      }),
  };
}

function wetSlateAllergens(today: string): DemoPaper {
  return {
    id: 'ba-1502-a',
    fileName: 'BA-1502-A Wet Slate allergens.pdf',
    mime: 'application/pdf',
    receivedOn: dayAfter(today, -1),
    make: () =>
      drawPaper('Allergens', (document) => {
        document.font('Helvetica').fontSize(10).text('Brackwater Aromatics');
        document.fontSize(14).text('Allergen declaration').fontSize(10).moveDown();
        document.text('Product: Wet Slate').text('Document no: BA-1502-A');
        document.text(`Issued on ${dayAfter(today, -2)}`).moveDown();
        drawTable(
          document,
          [50, 260, 400],
          [
            ['Substance', 'CAS number', '% in fragrance'],
            ['Linalool', '78-70-6', '1.1'],
            ['Limonene', '5989-27-5', '2.5'],
            ['Citronellol', '106-22-9', '0.8'],
            ['Hexyl Cinnamal', '101-86-0', '<0.1'],
            ['Coumarin', '91-64-5', 'n.d.'],
          ],
        );
      }),
  };
}

function verbenaLane(today: string): DemoPaper {
  return {
    id: 'ba-1391-a',
    fileName: 'BA-1391-A Verbena Lane allergens.pdf',
    mime: 'application/pdf',
    receivedOn: dayAfter(today, -9),
    make: () =>
      drawPaper('Allergens', (document) => {
        document.font('Helvetica').fontSize(10).text('Brackwater Aromatics');
        document.fontSize(14).text('Declaration of named substances').fontSize(10).moveDown();
        drawPairs(document, [
          ['Product', 'Verbena Lane'],
          ['Declaration no.', 'BA-1391-A'],
          ['Date of issue', format(parseISO(dayAfter(today, -12)), 'MMMM d, yyyy')],
        ]);
        document.text('Shares in the fragrance as supplied. The list goes on over the page.');
        document.y = 700;
        drawTable(
          document,
          [50, 250, 380],
          [
            ['Name', 'CAS', 'Conc. %'],
            ['Citral (sum of both isomers)', '5392-40-5', '6.0 - 8.0'],
            ['Limonene', '138-86-3', '10 - 13'],
            ['Geraniol', '106-24-1', '1.5'],
            ['Linalool', '78-70-6', '2.0'],
            ['Pinene (alpha and beta)', '80-56-8 / 127-91-3', '0.4'],
            ['Terpineol', '8000-41-7', '0.25'],
            ['Hexyl Cinnamal', '101-86-0', '0.8'],
          ],
        );
      }),
  };
}

/** The papers of Brackwater Aromatics. */
export const brackwaterPapers = [coalAndViolets, wetSlate, wetSlateAllergens, verbenaLane];
