import { degreesWords } from '../../ui/habits';
import 'apexcharts/dist/apexcharts.css';
import type { ApexOptions } from 'apexcharts';
import Chart from 'react-apexcharts';
import type { Reading } from '../../core/heat/calibrate';
import type { Band, Range } from '../../core/heat/ensemble';
import type { Run } from '../../core/heat/types';
import { INK, MADDER, PLAIN_CHART, SOFT, ULTRA } from '../../ui/chart';

const MIDDLE_BAND = '#d9b3bd';
const EDGE_BAND = '#b9c4de';
/** By series: both bands, both lines, both kinds of points. */
const COLOURS = [MIDDLE_BAND, EDGE_BAND, MADDER, ULTRA, MADDER, ULTRA];
const HEIGHT = 260;
const LAST_HOUR = 24;

const one = (value: number) => Number(value.toFixed(1));

function optionsOf(gelC: number): ApexOptions {
  return {
    ...PLAIN_CHART,
    colors: COLOURS,
    fill: { type: 'solid', colors: COLOURS, opacity: [0.55, 0.55, 1, 1, 1, 1] },
    stroke: { width: [0, 0, 2.5, 2.5, 0, 0], curve: 'straight', dashArray: [0, 0, 0, 6, 0, 0] },
    markers: { size: [0, 0, 0, 0, 5, 5], strokeWidth: 1.5, strokeColors: INK, hover: { sizeOffset: 1 } },
    xaxis: {
      type: 'numeric',
      min: 0,
      max: LAST_HOUR,
      tickAmount: 8,
      labels: { formatter: (value) => String(Math.round(Number(value))), style: { colors: SOFT } },
      title: { text: 'hours since the pour', style: { color: SOFT, fontWeight: 400 } },
    },
    yaxis: {
      min: 0,
      max: 100,
      tickAmount: 5,
      labels: { formatter: (value) => degreesWords(value), style: { colors: SOFT } },
    },
    annotations: {
      yaxis: [{ y: gelC, borderColor: INK, strokeDashArray: 3, label: { text: 'gel', borderWidth: 0 } }],
    },
  };
}

interface Props {
  run: Run;
  band: Band | null;
  readings: readonly Reading[];
}

/** Middle (drawn through) and edge (dashed) over a day, with what holds in 80 of 100 cases and what was measured. */
export default function HeatChart({ run, band, readings }: Props) {
  const hours = band?.hours ?? run.course.hours;
  const area = (name: string, ranges: readonly Range[] | undefined) => ({
    name,
    type: 'rangeArea',
    data: (ranges ?? []).map(({ low, high }, at) => ({ x: hours[at]!, y: [one(low), one(high)] })),
  });
  const line = (name: string, plain: readonly number[], ranges: readonly Range[] | undefined) => ({
    name,
    type: 'line',
    data: hours.map((x, at) => ({ x, y: one(ranges?.[at]?.likely ?? plain[at]!) })),
  });
  const points = (where: Reading['where']) => ({
    name: `${where} measured`,
    type: 'scatter',
    data: readings
      .filter((reading) => reading.where === where)
      .map(({ hour, c }) => ({ x: one(hour), y: one(c) })),
  });
  const series = [
    area('middle band', band?.middle),
    area('edge band', band?.edge),
    line('middle', run.course.middleC, band?.middle),
    line('edge', run.course.edgeC, band?.edge),
    points('middle'),
    points('edge'),
  ];
  return <Chart options={optionsOf(run.gelC[0]!)} series={series} height={HEIGHT} />;
}
