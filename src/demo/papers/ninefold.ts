/** Papers of Ninefold Botanicals: decimal commas, wrapped names, parts per million, table files. */
import { format, parseISO } from 'date-fns';
import { dayAfter } from '../../core/quantities/day';
import { drawPairs, drawPaper, drawTable } from './draw';
import type { DemoPaper } from './types';

const written = (text: string) => Promise.resolve(new TextEncoder().encode(text));

function sweetOrange(today: string): DemoPaper {
  return {
    id: 'nb-252',
    fileName: 'NB-252 Sweet orange.pdf',
    mime: 'application/pdf',
    receivedOn: dayAfter(today, -20),
    make: () =>
      drawPaper('Sweet orange', (document) => {
        document.font('Helvetica').fontSize(10);
        document.text('Ninefold Botanicals, Hopyard 9').moveDown();
        document.fontSize(14).text('Sweet orange oil: maximum use and composition').fontSize(10).moveDown();
        drawPairs(document, [
          ['Issued by', 'Ninefold Botanicals'],
          ['Product', 'Sweet orange oil'],
          ['Statement no.', 'NB-252'],
          ['Date', format(parseISO(dayAfter(today, -24)), 'dd.MM.yyyy')],
          ['Edition', '51'],
          ['Flash-point', '46 °C'],
        ]);
        document.text('Category 9 (soap and other products rinsed off): 8,5 %').moveDown();
        drawTable(
          document,
          [50, 130, 300, 420],
          [
            ['CAS', 'EC', 'Name', 'Content, %'],
            ['5989-27-5', '227-813-5', 'Limonene', '93,0 - 96,5'],
            ['78-70-6', '201-134-4', 'Linalool', '0,2 - 0,7'],
            ['5392-40-5', '226-394-6', 'Citral', '0,05 - 0,15'],
            ['80-56-8', '201-291-9', 'Pinene', '0,4 - 0,7'],
          ],
        );
      }),
  };
}

function petitgrain(today: string): DemoPaper {
  return {
    id: 'nb-240-a',
    fileName: 'NB-240-A Petitgrain allergens.pdf',
    mime: 'application/pdf',
    receivedOn: dayAfter(today, -31),
    make: () =>
      drawPaper('Petitgrain', (document) => {
        document.font('Times-Roman').fontSize(11);
        document.text('Ninefold Botanicals').moveDown();
        document.text('ALLERGEN DECLARATION NB-240-A').text('Oil: Petitgrain oil');
        document.text(`Date of issue: ${format(parseISO(dayAfter(today, -33)), 'd MMM yyyy')}`).moveDown();
        drawTable(
          document,
          [50, 190, 330],
          [
            ['Constituent', 'CAS no.', 'Share (%)'],
            ['Linalyl Acetate (3,7-dimethyl-1,6-octadien-3-yl acetate)', '115-95-7', '48 to 58'],
            ['Linalool', '78-70-6', '22 to 30'],
            ['Terpineol (mixture of isomers)', '8000-41-7', '4 to 7'],
            ['Geranyl Acetate', '105-87-3', '2 to 4'],
            ['Geraniol', '106-24-1', '2 to 3,5'],
            ['Limonene', '138-86-3', '0,5 to 2'],
          ],
        );
      }),
  };
}

function palmarosa(today: string): DemoPaper {
  const rows = [
    'Ninefold Botanicals;;',
    'Declaration no.;NB-226-A;',
    'Product;Palmarosa oil;',
    `Issued on;${dayAfter(today, -40)};`,
    ';;',
    'Name;CAS;Share %',
    'Geraniol;106-24-1;78,5',
    'Geranyl Acetate;105-87-3;9,2',
    'Linalool;78-70-6;3,1',
    'Limonene;138-86-3;0,3',
    'Farnesol;4602-84-0;<0,5',
  ];
  return {
    id: 'nb-226-a',
    fileName: 'NB-226-A Palmarosa.csv',
    mime: 'text/csv',
    receivedOn: dayAfter(today, -38),
    make: () => written(rows.join('\r\n')),
  };
}

function cloveBud(today: string): DemoPaper {
  return {
    id: 'nb-198-a',
    fileName: 'NB-198-A Clove bud, ppm.pdf',
    mime: 'application/pdf',
    receivedOn: dayAfter(today, -44),
    make: () =>
      drawPaper('Clove bud', (document) => {
        document.font('Courier').fontSize(9);
        document.text('NINEFOLD BOTANICALS   LABORATORY').moveDown();
        document.text('Material: Clove bud oil').text('Report no: NB-198-A');
        document.text(`Issued on ${dayAfter(today, -45)}`).moveDown();
        drawTable(
          document,
          [50, 150, 330],
          [
            ['CAS', 'Substance', 'mg/kg'],
            ['97-53-0', 'Eugenol', '825,000'],
            ['93-28-7', 'Eugenyl Acetate', '72000'],
            ['87-44-5', 'Beta-Caryophyllene', '61000'],
            ['97-54-1', 'Isoeugenol', '900 - 1500'],
            ['93-15-2', 'Methyl eugenol', '<100'],
          ],
        );
      }),
  };
}

function litsea(today: string): DemoPaper {
  return {
    id: 'nb-228-b',
    fileName: 'NB-228-B Litsea cubeba.pdf',
    mime: 'application/pdf',
    receivedOn: dayAfter(today, -50),
    make: () =>
      drawPaper('Litsea', (document) => {
        document.font('Helvetica').fontSize(10);
        drawPairs(document, [
          ['Supplier', 'Ninefold Botanicals'],
          ['Name of the oil', 'Litsea cubeba oil'],
          ['Certificate number', 'NB-228-B'],
          ['Date of certificate', '04/05/2026'],
          ['Amendment', '50'],
        ]);
        document.text('Permitted maximum for categories of the finished product').moveDown(0.5);
        drawTable(
          document,
          [50, 110, 420],
          [
            ['4', 'Fine fragrance', '3.2 %'],
            ['5A', 'Body lotion', '0.8 %'],
            ['6', 'Mouth', 'Not permitted'],
            ['9', 'Bar soap, shampoo, rinsed off', '1.1 %'],
            ['12', 'Not for skin', 'No restriction'],
          ],
        );
        drawTable(
          document,
          [50, 250, 380],
          [
            ['Name', 'CAS', '%'],
            ['Citral', '5392-40-5', '74.5'],
            ['Limonene', '138-86-3', '13.2'],
            ['Linalool', '78-70-7', '1.6'],
            ['Geraniol', '106-24-1', 'traces'],
          ],
        );
      }),
  };
}

function peppermint(today: string): DemoPaper {
  const rows = [
    'Supplier,Ninefold Botanicals',
    'Material,Peppermint oil',
    'Certificate number,NB-261',
    `Date,${format(parseISO(dayAfter(today, -14)), 'd MMMM yyyy')}`,
    'Edition,51st edition',
    'Category,Maximum %',
    '1,Not permitted',
    '2,0.4',
    '3,0.5',
    '4,6.0',
    '5A,1.5',
    '8,0.5',
    '9,3.6',
    '12,No restriction',
  ];
  return {
    id: 'nb-261',
    fileName: 'NB-261 Peppermint certificate.csv',
    mime: 'text/csv',
    receivedOn: dayAfter(today, -12),
    make: () => written(rows.join('\n')),
  };
}

function scotsPine(today: string): DemoPaper {
  return {
    id: 'nb-215-a',
    fileName: 'NB-215-A Scots pine.pdf',
    mime: 'application/pdf',
    receivedOn: dayAfter(today, -61),
    make: () =>
      drawPaper('Scots pine', (document) => {
        document.font('Helvetica').fontSize(10);
        document.text('From: Ninefold Botanicals').text('Article: Scots pine oil');
        document
          .text('Declaration NB-215-A')
          .text(`Revision date ${dayAfter(today, -62)}`)
          .moveDown();
        drawTable(
          document,
          [50, 190, 290, 410],
          [
            ['Name', 'CAS', '% in product at 2 %', '% in the oil'],
            ['Pinene', '80-56-8', '1.10', '55'],
            ['Limonene', '138-86-3', '0.10', '5.0'],
            ['Beta-Caryophyllene', '87-44-5', '0.04', '2.0'],
            ['Terpinolene', '586-62-9', '0.02', '1.0'],
            ['Camphor', '76-22-2', 'n.d.', 'n.d.'],
          ],
        );
      }),
  };
}

/** The papers of Ninefold Botanicals. */
export const ninefoldPapers = [sweetOrange, petitgrain, palmarosa, cloveBud, litsea, peppermint, scotsPine];
