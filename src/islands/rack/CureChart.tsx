import 'apexcharts/dist/apexcharts.css';
import type { ApexOptions } from 'apexcharts';
import Chart from 'react-apexcharts';
import type { CureData } from '../../core/records/rack';
import { daysSince } from '../../core/curing/batch-cure';
import { BAND, INK, PLAIN_CHART, SOFT, ULTRA } from '../../ui/chart';

const one = (value: number) => Number(value.toFixed(2));

/** Every bar's weighings in percent of what it weighed at the pour, as the curve has it. */
function weighingsPct({ detail, cure }: CureData) {
  const { batch } = detail;
  const ratio = cure.massRatio?.typical ?? 1;
  const pouredG = new Map(cure.bars.map(({ bar, settledG }) => [bar, (settledG?.likely ?? 1) / ratio]));
  const from = batch.poured?.at ?? batch.startedAt;
  return batch.barWeighings
    .filter(({ leftOut }) => leftOut === null)
    .map(({ bar, at, massG }) => ({
      x: one(daysSince(from, at)),
      y: one((100 * massG) / (pouredG.get(bar) ?? massG)),
    }));
}

function optionsOf({ cure, ageDays }: CureData, minDays: number): ApexOptions {
  const ready = cure.readyOnDay;
  const lastDay = 7 * Math.ceil(Math.max(ageDays, cure.curve.at(-1)!.day) / 7);
  return {
    ...PLAIN_CHART,
    colors: [BAND, INK, ULTRA],
    fill: { opacity: [0.7, 1, 1] },
    stroke: { width: [0, 2.5, 0], curve: 'straight' },
    markers: { size: [0, 0, 4], strokeWidth: 0, hover: { sizeOffset: 1 } },
    xaxis: {
      type: 'numeric',
      min: 0,
      max: lastDay,
      tickAmount: lastDay / 7,
      labels: { formatter: (value) => String(Math.round(Number(value))), style: { colors: SOFT } },
      title: { text: 'days since the pour', style: { color: SOFT, fontWeight: 400 } },
    },
    yaxis: {
      labels: { formatter: (value) => `${value.toFixed(0)} %`, style: { colors: SOFT } },
      title: { text: 'of the poured weight', style: { color: SOFT, fontWeight: 400 } },
    },
    annotations: {
      xaxis: [
        { x: minDays, borderColor: INK, strokeDashArray: 0, label: { text: 'least', borderWidth: 0 } },
        { x: ageDays, borderColor: ULTRA, strokeDashArray: 0, label: { text: 'today', borderWidth: 0 } },
        ...(ready
          ? [
              {
                x: ready.low,
                x2: ready.high,
                fillColor: BAND,
                opacity: 0.4,
                label: { text: 'ready', borderWidth: 0 },
              },
            ]
          : []),
      ],
    },
  };
}

/** The course of weight with its 80 % band, the bars' weighings, and the day it will be ready. */
export default function CureChart({ data, minDays }: { data: CureData; minDays: number }) {
  const { curve } = data.cure;
  const poured = curve[0]!.likelyG;
  const pct = (massG: number) => one((100 * massG) / poured);
  const series = [
    {
      name: 'band',
      type: 'rangeArea',
      data: curve.map(({ day, lowG, highG }) => ({ x: one(day), y: [pct(lowG), pct(highG)] })),
    },
    {
      name: 'likely',
      type: 'line',
      data: curve.map(({ day, likelyG }) => ({ x: one(day), y: pct(likelyG) })),
    },
    { name: 'weighed', type: 'scatter', data: weighingsPct(data) },
  ];
  return <Chart options={optionsOf(data, minDays)} series={series} height={300} />;
}
