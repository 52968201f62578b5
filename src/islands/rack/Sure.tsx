import { useEffect, useState } from 'react';
import type { SureData } from '../../core/records/sure';
import {
  ENOUGH,
  farOut,
  MOST_WIDER,
  type Foretold,
  type ForetoldKind,
  type Held,
} from '../../core/sure/held';
import { address, send, type Fault } from '../../ui/api';
import { Faults } from '../../ui/Faults';
import { guarded } from '../../ui/Guarded';
import { habits } from '../../ui/habits';
import { dayInWords, money } from '../../ui/words';
import styles from './sure.module.css';

/** What is foretold: its name, from what, its unit, and decimals worth saying. */
const KINDS: Record<ForetoldKind, { name: string; from: string; unit: string; digits: number }> = {
  weight: {
    name: 'Weight of a bar at the end of the cure',
    from: 'from the first half of a batch’s weighings, against the last one; the mean of the bars weighed',
    unit: 'g',
    digits: 1,
  },
  ready: {
    name: 'Day it is ready',
    from: 'from the first half of a batch’s weighings, against what all of them say once it has settled',
    unit: 'days',
    digits: 0,
  },
  cut: {
    name: 'Hour of the cut',
    from: 'the window at the pour, against when it was cut; a window says when to come, and no 80 of 100',
    unit: 'h',
    digits: 1,
  },
  heat: {
    name: 'Warmth of the block',
    from: 'from formula and mould alone, against the highest the thermometer said',
    unit: '°C',
    digits: 1,
  },
  pace: {
    name: 'Bars sold in four weeks',
    from: 'from what had sold before, against what sold then',
    unit: 'bars',
    digits: 0,
  },
  cost: {
    name: 'Cost of a bar in materials',
    from: 'by the plan at the prices known then, against what was weighed at the prices of its lots, shared by its good bars; of batches of which every price was known',
    unit: '',
    digits: 2,
  },
};

const FAHRENHEIT = 1.8;
const FREEZING_F = 32;

/** A figure in the unit of its kind; degrees and money as the house says them. `isStep` is a difference. */
function figure(currency: string, kind: ForetoldKind, value: number, isStep = false): string {
  if (kind === 'cost') return money(value, currency);
  const { unit, digits } = KINDS[kind];
  const isF = kind === 'heat' && habits().degrees === 'F';
  const said = isF ? value * FAHRENHEIT + (isStep ? 0 : FREEZING_F) : value;
  return `${said.toFixed(digits)} ${isF ? '°F' : unit}`;
}

/** Ticks are drawn this far out at most, in halves of a range. */
const FARTHEST = 3;
const WIDTH = 600;
const HEIGHT = 40;
const xOf = (out: number) =>
  WIDTH / 2 + (Math.max(-FARTHEST, Math.min(FARTHEST, out)) / FARTHEST) * (WIDTH / 2 - 6);

/** Where in its range each one came: the grey field is the range, the middle what was likely. */
function Strip({ held, all, currency }: { held: Held; all: readonly Foretold[]; currency: string }) {
  const words = `${held.within} of ${held.of} within the range, ${held.below} below it, ${held.above} above it`;
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className={styles.strip} role="img" aria-label={words}>
      <rect x={xOf(-1)} y={4} width={xOf(1) - xOf(-1)} height={HEIGHT - 8} className={styles.range} />
      <line x1={xOf(0)} x2={xOf(0)} y1={2} y2={HEIGHT - 2} className={styles.likely} />
      {all.map((one, at) => {
        const side = one.came >= one.likely ? 1 : -1;
        const out = farOut(one);
        const x = xOf(side * out);
        return (
          <line
            key={at}
            x1={x}
            x2={x}
            y1={10}
            y2={HEIGHT - 10}
            className={out > 1 ? styles.outside : styles.inside}
          >
            <title>{`${one.of}: ${figure(currency, one.kind, one.came)}`}</title>
          </line>
        );
      })}
    </svg>
  );
}

const LEAST_OF_A_BAR = 4;
const RARELY = 0.6;

/** Bars of which a kind is rarely foretold well. */
function rarelyFor(all: readonly Foretold[], names: Record<string, string>): string[] {
  return [...new Set(all.map(({ product }) => product))].flatMap((product) => {
    const own = all.filter((one) => one.product === product);
    const within = own.filter((one) => farOut(one) <= 1).length;
    if (own.length < LEAST_OF_A_BAR || within >= RARELY * own.length) return [];
    return [`${names[product] ?? product} (${within} of ${own.length})`];
  });
}

const hundred = (share: number) => Math.round(100 * share);

/** What is made wider by itself. */
const WIDENED: Partial<Record<ForetoldKind, string>> = {
  pace: 'the pace is made',
  cost: 'the doubt of a bar’s cost is made',
};

/** What follows from how a kind held, in words. */
function Follows({ held, rarely, currency }: { held: Held; rarely: readonly string[]; currency: string }) {
  const { kind, of, typicalMiss, leans, drift, wider } = held;
  const says: string[] = [];
  if (of >= LEAST_OF_A_BAR)
    says.push(`Half came within ${figure(currency, kind, typicalMiss, true)} of what was likely.`);
  if (of < ENOUGH) says.push(`${of === 1 ? 'One is' : `${of} are`} too few to say how well it holds.`);
  const isLeaning = of >= ENOUGH && Math.abs(leans) > typicalMiss / 2;
  if (isLeaning)
    says.push(
      `It is foretold ${figure(currency, kind, Math.abs(leans), true)} too ${leans > 0 ? 'low' : 'high'} in the middle.`,
    );
  if (drift)
    says.push(`Held in ${hundred(drift.earlier)} of 100 earlier, in ${hundred(drift.later)} lately.`);
  if (rarely.length > 0) says.push(`Do not lean on it for ${rarely.join(', ')}.`);
  if (wider > 1)
    says.push(
      WIDENED[kind] === undefined
        ? `It holds too little: take its range as ${wider.toFixed(1)} times as wide.`
        : `It held too little: ${WIDENED[kind]} ${wider.toFixed(1)} times as wide wherever it is used, until it holds.`,
    );
  if (wider >= MOST_WIDER) says.push('At that width the model is wrong for this house: go by what you see.');
  return <p>{says.join(' ')}</p>;
}

const MOST_ROWS = 60;

function Rows({ all, data: { names, currency } }: { all: readonly Foretold[]; data: SureData }) {
  return (
    <details>
      <summary className="cursor-pointer text-ultra">each of them</summary>
      <div className="max-h-80 overflow-auto" tabIndex={0} role="group" aria-label="Each of them, to scroll">
        <table className="plain-table table-auto font-narrow">
          <thead>
            <tr>
              {['Bar', 'Of', 'Foretold on', 'Range', 'Likely', 'Came'].map((head) => (
                <th key={head} scope="col" className="pr-4 text-left">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {all.slice(0, MOST_ROWS).map((one, at) => (
              <tr key={at}>
                <td className="pr-4">{names[one.product] ?? one.product}</td>
                <td className="pr-4">{one.kind === 'pace' ? 'four weeks' : one.of}</td>
                <td className="pr-4">{dayInWords(one.on)}</td>
                <td className="pr-4">
                  {figure(currency, one.kind, one.low)} to {figure(currency, one.kind, one.high)}
                </td>
                <td className="pr-4">{figure(currency, one.kind, one.likely)}</td>
                <td className={farOut(one) > 1 ? 'font-medium text-madder' : ''}>
                  {figure(currency, one.kind, one.came)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {all.length > MOST_ROWS && (
          <p className="text-soft">{all.length - MOST_ROWS} older ones are not shown.</p>
        )}
      </div>
    </details>
  );
}

function Kind({ held, data }: { held: Held; data: SureData }) {
  const { foretold, names, currency } = data;
  const all = foretold.filter(({ kind }) => kind === held.kind);
  const { name, from } = KINDS[held.kind];
  return (
    <section aria-label={name} className="sheet grid gap-1">
      <h2 className="flex flex-wrap items-baseline gap-x-4 text-lg">
        {name}
        <span className="text-base tabular-nums">
          held in {held.within} of {held.of}
        </span>
      </h2>
      <p className="text-soft">{from}.</p>
      <div className={styles.drawn}>
        <Strip held={held} all={all} currency={currency} />
        <p className={styles.sides} aria-hidden="true">
          <span>came lower</span>
          <span>as likely</span>
          <span>came higher</span>
        </p>
      </div>
      <Follows held={held} rarely={rarelyFor(all, names)} currency={currency} />
      <Rows all={all} data={data} />
    </section>
  );
}

const NOTHING =
  'Nothing has come to its end yet. Once batches are cut, weighed to the end, released and sold, what was foretold of them stands here beside what came.';

function SureIsland() {
  const [data, setData] = useState<SureData | null>(null);
  const [faults, setFaults] = useState<Fault[]>([]);
  useEffect(() => {
    void send<SureData>('GET', address('sure')).then((answer) => {
      if (answer.ok) setData(answer.body);
      else setFaults(answer.faults);
    });
  }, []);
  if (faults.length > 0) return <Faults faults={faults} />;
  if (!data) return <p role="status">The last batches are being looked back at…</p>;
  if (data.held.length === 0) return <p>{NOTHING}</p>;
  const missing = (Object.keys(KINDS) as ForetoldKind[]).filter(
    (kind) => !data.held.some((one) => one.kind === kind),
  );
  return (
    <div className="grid gap-4">
      {data.held.map((held) => (
        <Kind key={held.kind} held={held} data={data} />
      ))}
      {missing.length > 0 && (
        <p className="text-soft">
          Nothing to hold yet: {missing.map((kind) => KINDS[kind].name.toLowerCase()).join(', ')}.
        </p>
      )}
    </div>
  );
}

/** The house's own foretellings against what came, kind by kind. */
export const Sure = guarded('What was foretold', SureIsland);
