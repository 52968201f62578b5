/** How a bar is made and how it keeps: method, good practice, batches, stability. */
import { dayOf } from '../quantities/day';
import { plainNumber } from '../quantities/amount';
import { section, type FileInput, type FileSection } from './types';

const grams = (massG: number) => `${plainNumber(massG, 1)} g`;

const PRACTICE = [
  'The bars are made by the method above, in a room and with tools kept for it, by people who were shown how.',
  'Materials are kept closed, dry and labelled with their lots; what is past its day, doubted or without its paper is set apart.',
  'Each weighing is written down with its lot, each batch has a code that stands on its bars, and nothing is released before it was looked at.',
  'Scales are checked against a known weight; complaints and unwanted effects are written down and followed.',
  'Signed, with the day: ______________________________   Name: ______________________________',
];

/** The run sheet at the formula's size, and the statement to sign. */
export function method({ sheet }: FileInput): FileSection {
  const told = section('method', 'Method of making, and good manufacturing practice');
  if (!sheet) told.missing.push('A run sheet: the formula does not reckon as it stands.');
  else {
    told.lines.push(
      `Fats ${grams(sheet.fatsG)}, alkali ${grams(sheet.alkaliG)}, batter ${grams(sheet.pourG)}${sheet.bars === null ? '' : `, ${sheet.bars} bars`}.`,
    );
    told.tables.push({
      columns: ['Step', 'How', 'Weighed', 'Warmth'],
      at: [0, 22, 68, 90],
      rows: sheet.steps.map(({ title, how, weigh, temperatureC }, at) => [
        `${at + 1}. ${title}`,
        how,
        weigh.map(({ name, massG }) => `${name} ${grams(massG)}`).join('; '),
        temperatureC ? `${temperatureC.from} to ${temperatureC.to} °C` : '',
      ]),
    });
  }
  told.closing.push(...PRACTICE);
  return told;
}

/** Batches with what was weighed, what differed, and what was decided. */
export function batches({ batches: all, zone }: FileInput): FileSection {
  const told = section('batches', 'Batches');
  told.tables.push({
    columns: ['Batch', 'Begun', 'Stands', 'Bars', 'What differed', 'Released'],
    at: [0, 13, 24, 38, 46, 82],
    rows: all.map(({ record }) => [
      record.code,
      dayOf(record.startedAt, zone),
      `${record.state}${record.isQuarantined ? ', in quarantine' : ''}`,
      String(record.bars.good),
      record.deviations.join(' ') || 'nothing that is told',
      record.released.map(({ at, bars }) => `${bars} on ${dayOf(at, zone)}`).join('; ') || 'not yet',
    ]),
  });
  if (all.length === 0) told.missing.push('A batch: none was poured of this bar.');
  else if (!all.some(({ record }) => record.released.length > 0))
    told.missing.push('A release: no batch of this bar was released yet.');
  return told;
}

/** What the rack measured: weights over the cure, looks, and why it keeps as long as is said. */
export function stability({ batches: all, wrap, zone }: FileInput): FileSection {
  const told = section('stability', 'Stability, and how long it keeps');
  const rows = all.flatMap(({ record, weighings }) => {
    const good = weighings.filter(({ leftOut }) => leftOut === null);
    const byBar = [...new Set(good.map(({ bar }) => bar))];
    return byBar.map((bar) => {
      const own = good.filter((one) => one.bar === bar).sort((a, b) => a.at.localeCompare(b.at));
      return [
        record.code,
        bar,
        own.map(({ at, massG }) => `${dayOf(at, zone)}: ${grams(massG)}`).join('; '),
        grams(own.at(-1)!.readabilityG),
      ];
    });
  });
  if (rows.length > 0)
    told.tables.push({
      columns: ['Batch', 'Bar', 'Weighed', 'To'],
      at: [0, 14, 22, 90],
      rows,
    });
  else told.missing.push('Weights over the cure: weigh a bar of a batch on the rack, again and again.');
  const looks = all.flatMap(({ record }) =>
    record.checks.map(({ at, check, outcome, value, note }) => [
      record.code,
      dayOf(at, zone),
      check,
      [outcome, value, note].filter(Boolean).join(', '),
    ]),
  );
  if (looks.length > 0)
    told.tables.push({ columns: ['Batch', 'Day', 'Looked at', 'Found'], at: [0, 14, 26, 50], rows: looks });
  const { durability } = wrap;
  if (!durability)
    told.missing.push('How long it keeps, and why: state the months in the wrap, and keep bars back to see.');
  else
    told.lines.push(
      `It is said to keep ${durability.months} months from the pour. What speaks for that are the looks and weights here, the days of its lots, and bars kept back; it is for the assessor to judge.`,
    );
  return told;
}
