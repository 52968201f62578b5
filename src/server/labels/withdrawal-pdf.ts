/** A withdrawal list on paper: what, where it went, and the letter to buyers. */
import type { Withdrawal } from '../../core/records/withdrawal';
import { flowingPdf, heading, rows, set, type Document } from './flow';

function draw(document: Document, { of, onDate, batches, went, gone, unknown, letter }: Withdrawal): void {
  set(document, 'display', 18).text(`Withdrawal: ${of}`);
  set(document, 'text', 9).text(
    `Made on ${onDate}. ${gone} bars went out; of ${unknown} nobody knows to whom. Follow the rules for withdrawals where you sell; authorities may have to be told.`,
  );
  heading(document, 'Batches');
  rows(
    document,
    [50, 190, 280, 340, 400],
    [
      ['Bar', 'Batch', 'Bars', 'Here', 'Labels'],
      ...batches.map(({ productName, code, good, left, labels }) => [
        productName,
        code,
        String(good),
        String(left),
        labels.join(', '),
      ]),
    ],
  );
  heading(document, 'Where they went');
  rows(
    document,
    [50, 120, 200, 240, 290, 330],
    [
      ['Day', 'Batch', 'Bars', 'How', 'Market', 'Where, to whom'],
      ...went.map(({ day, code, bars, how, market, to, note }) => [
        day,
        code,
        String(bars),
        how,
        market ?? '',
        [to ?? 'not known', note ?? ''].filter(Boolean).join('; '),
      ]),
    ],
  );
  heading(document, 'To write to those who have them');
  rows(
    document,
    [50],
    letter.split('\n').map((line) => [line]),
  );
}

/** The list as PDF. */
export function withdrawalPdf(list: Withdrawal): Promise<Uint8Array> {
  return flowingPdf(`Withdrawal: ${list.of}`, (document) => draw(document, list));
}
