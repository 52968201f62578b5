/** A batch's record on paper. */
import { plainNumber } from '../../core/quantities/amount';
import type { BatchRecord } from '../../core/batch/record';
import { massSaid, toldIn, type Weights } from '../../core/quantities/say';
import type { Habits } from '../../core/records/house';
import { clockOf, dayOf } from '../../core/quantities/day';
import { flowingPdf, heading, rows, set, type Document } from './flow';

/** A mass to the tenth of a gram; ounces first in a house of ounces. */
const sayer = (weights: Weights) => (massG: number) =>
  weights === 'g' ? `${plainNumber(massG, 1)} g` : massSaid(massG, weights);

const warmth = (c: number, degrees: Habits['degrees']) =>
  degrees === 'F' ? `${plainNumber(c * 1.8 + 32, 1)} °F (${c} °C)` : `${c} °C`;

export interface RecordJob {
  record: BatchRecord;
  zone: string;
  weights: Weights;
  degrees: Habits['degrees'];
}

function drawLines(document: Document, { lines }: BatchRecord, grams: (massG: number) => string): void {
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

function drawTimes(
  document: Document,
  { record, degrees }: RecordJob,
  grams: (massG: number) => string,
  moment: (at: string) => string,
): void {
  const { temperatures, checks, notes, poured, cut, rested } = record;
  heading(document, 'Times and warmth');
  rows(
    document,
    [50, 200],
    [
      ...temperatures.map(({ of, c, at }) => [moment(at), `${of} ${warmth(c, degrees)}`]),
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
}

function draw(document: Document, job: RecordJob): void {
  const { record, zone, weights } = job;
  const grams = sayer(weights);
  const moment = (at: string) => `${dayOf(at, zone)} ${clockOf(at, zone)}`;
  const { productName, code, startedAt, startedBy, verdicts, deviations, lists } = record;
  set(document, 'display', 18).text(`${productName}, ${code}`);
  const by = startedBy === null ? '' : ` by ${startedBy}`;
  const held = verdicts.map(({ onDate, verdict }) => `${verdict} (${onDate})`).join(', ');
  set(document, 'text', 9).text(
    `Begun ${moment(startedAt)}${by}. Stands: ${record.state}${record.isQuarantined ? ', in quarantine' : ''}. Held against the limits on file: ${held || 'does not reckon'}. This record does not replace a qualified assessor.`,
  );
  drawLines(document, record, grams);
  heading(document, 'What differed');
  rows(
    document,
    [50],
    deviations.length > 0 ? deviations.map((text) => [toldIn(text, weights)]) : [['Nothing that is told.']],
  );
  drawTimes(document, job, grams, moment);
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
