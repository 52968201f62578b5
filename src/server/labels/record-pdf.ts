/** A batch's record on paper. */
import { plainNumber } from '../../core/quantities/amount';
import type { BatchRecord } from '../../core/batch/record';
import { clockOf, dayOf } from '../../core/quantities/day';
import { flowingPdf, heading, rows, set, type Document } from './flow';

const grams = (massG: number) => `${plainNumber(massG, 1)} g`;

export interface RecordJob {
  record: BatchRecord;
  zone: string;
}

function drawLines(document: Document, { lines }: BatchRecord): void {
  heading(document, 'Planned and weighed');
  const said = lines.map(({ name, portion, plannedG, massG, offPct, how, lots, skipped }) => [
    portion === null ? name : `${name} (${portion})`,
    plannedG === null ? 'not planned' : grams(plannedG),
    skipped === null ? grams(massG) : 'left out',
    offPct === null || skipped !== null ? '' : `${offPct >= 0 ? '+' : ''}${offPct.toFixed(1)} %`,
    [...how, ...lots].join(', '),
  ]);
  rows(document, [50, 210, 275, 340, 390], [['Material', 'Planned', 'Weighed', 'Off', 'How, lots'], ...said]);
}

function drawCost(document: Document, { cost }: BatchRecord): void {
  if (!cost) return;
  const { currency, total, perBar, unpriced } = cost;
  const bar = perBar === null ? '' : `, ${perBar.toFixed(2)} a good bar`;
  const without = unpriced.length > 0 ? ` Without a price: ${unpriced.join(', ')}.` : '';
  heading(document, 'Cost in materials');
  rows(document, [50], [[`${total.toFixed(2)} ${currency}${bar}.${without}`]]);
}

function draw(document: Document, { record, zone }: RecordJob): void {
  const moment = (at: string) => `${dayOf(at, zone)} ${clockOf(at, zone)}`;
  const {
    productName,
    code,
    startedAt,
    startedBy,
    verdicts,
    deviations,
    temperatures,
    lists,
    checks,
    notes,
  } = record;
  set(document, 'display', 18).text(`${productName}, ${code}`);
  const by = startedBy === null ? '' : ` by ${startedBy}`;
  const held = verdicts.map(({ onDate, verdict }) => `${verdict} (${onDate})`).join(', ');
  set(document, 'text', 9).text(
    `Begun ${moment(startedAt)}${by}. Stands: ${record.state}${record.isQuarantined ? ', in quarantine' : ''}. Held against the limits on file: ${held || 'does not reckon'}. This record does not replace a qualified assessor.`,
  );
  drawLines(document, record);
  heading(document, 'What differed');
  rows(
    document,
    [50],
    deviations.length > 0 ? deviations.map((text) => [text]) : [['Nothing that is told.']],
  );
  heading(document, 'Times and warmth');
  const { poured, cut, rested } = record;
  rows(
    document,
    [50, 200],
    [
      ...temperatures.map(({ of, c, at }) => [moment(at), `${of} ${c} °C`]),
      ...(poured
        ? [[moment(poured.at), `Poured; left over ${grams(poured.leftoverG)}${rested ? `; ${rested}` : ''}`]]
        : []),
      ...(cut
        ? [
            [
              moment(cut.at),
              `Cut: ${cut.bars} bars, ${cut.seconds} seconds, trimmings ${grams(cut.trimmingsG)}`,
            ],
          ]
        : []),
      ...checks.map(({ at, check, outcome, value }) => [
        moment(at),
        `${check}: ${outcome}${value === null ? '' : `, ${value}`}`,
      ]),
      ...notes.map(({ at, text }) => [moment(at), text]),
    ],
  );
  drawCost(document, record);
  heading(document, 'Ingredients as weighed');
  rows(
    document,
    [50, 130],
    lists.map(({ market, school, text }) => [`${market}, ${school}`, text]),
  );
}

/** The record as PDF, its times in the zone. */
export function recordPdf(job: RecordJob): Promise<Uint8Array> {
  const { productName, code } = job.record;
  return flowingPdf(`${productName}, batch ${code}`, (document) => draw(document, job));
}
