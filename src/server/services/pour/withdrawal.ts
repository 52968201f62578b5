/** A withdrawal list: from a bad lot or a bad batch to everybody who may have a bar of it. */
import Papa from 'papaparse';
import { dayOf } from '../../../core/quantities/day';
import type { Trace } from '../../../core/records/batch';
import type { Withdrawal } from '../../../core/records/withdrawal';
import type { House } from '../../house';
import { fault } from '../../http';
import { onThread } from '../../jobs/threads';
import { told } from '../../jobs/told';
import { findMaker } from '../../repositories/settings';
import { traceForward, traceLot } from '../../store/trace';

const HOW_WORDS = { sale: 'sold', sample: 'sample', loss: 'lost', own: 'kept' } as const;

function letterOf(names: readonly string[], codes: readonly string[], maker: string | null): string {
  const bars = [...new Set(names)].join(', ');
  return [
    `Please stop using and selling ${bars} with ${codes.length === 1 ? 'the code' : 'the codes'} ${codes.join(', ')}.`,
    'The code stands on the band, with the net weight and our address.',
    'Keep the bars apart from others until you hear from us; we take them back and refund them, opened or not.',
    'Should anybody have reacted to one, please tell us, and see a doctor where it does not pass.',
    'Reason: [write what was found, and since when].',
    maker ?? '[your name and address]',
  ].join('\n');
}

function listOf(of: string, { today, zone }: House, maker: string | null, { batches }: Trace): Withdrawal {
  const went = batches.flatMap(({ code, productName, gone }) =>
    gone.map(({ at, bars, how, to, market, note }) => ({
      code,
      productName,
      day: dayOf(at, zone),
      bars,
      how: HOW_WORDS[how],
      to,
      market,
      note,
    })),
  );
  const sum = (rows: readonly { bars: number }[]) => rows.reduce((total, { bars }) => total + bars, 0);
  return {
    of,
    onDate: today,
    maker,
    batches: batches.map(({ code, productName, bars, labels }) => ({
      code,
      productName,
      good: bars.good,
      left: bars.left,
      labels: labels.map(({ id }) => id),
    })),
    went: went.sort((a, b) => a.day.localeCompare(b.day)),
    gone: sum(went),
    unknown: sum(went.filter(({ to, how }) => to === null && how !== 'lost' && how !== 'kept')),
    letter: letterOf(
      batches.map(({ productName }) => productName),
      batches.map(({ code }) => code),
      maker,
    ),
  };
}

/** What would be taken back for a lot or for a batch; 404 for an unknown one, 422 where neither is named. */
export async function withdrawalOf(
  house: House,
  { lot, batch }: { lot: string | null; batch: string | null },
): Promise<Withdrawal> {
  const maker = await findMaker(house.db);
  const address = maker ? [maker.name, ...maker.addressLines].join(', ') : null;
  if (lot) {
    const trace = await traceLot(house, lot);
    const [first] = trace.lots;
    return listOf(first ? `lot ${first.code} of ${first.name}` : `lot ${lot}`, house, address, trace);
  }
  if (!batch) throw fault(422, 'missing', 'Name a lot or a batch.', 'lot');
  const trace = await traceForward(house, batch);
  return listOf(`batch ${trace.batches[0]!.code}`, house, address, trace);
}

/** The same for a spreadsheet; text that a spreadsheet would reckon with is made harmless. */
export function withdrawalCsv({ went }: Withdrawal): string {
  const rows = went.map(({ code, productName, day, bars, how, to, market, note }) => ({
    batch: code,
    bar: productName,
    day,
    bars,
    how,
    where: to ?? '',
    market: market ?? '',
    note: note ?? '',
  }));
  const columns = ['batch', 'bar', 'day', 'bars', 'how', 'where', 'market', 'note'];
  return Papa.unparse({ fields: columns, data: rows }, { escapeFormulae: true });
}

/** The same on paper, with the letter. */
export function withdrawalPdf(list: Withdrawal): Promise<Uint8Array> {
  return told(onThread('withdrawalPdf', list), 'as');
}
