/** What all charts share: paper, ink, no decoration, and nothing that moves. */
import type { ApexOptions } from 'apexcharts';

export const INK = '#18222d';
export const SOFT = '#4b5763';
export const BAND = '#c3c8bf';
export const ULTRA = '#26459a';
export const MADDER = '#a01d3f';

const UNTOUCHED = { filter: { type: 'none' } };

/** Options of every chart; the rest is its own. */
export const PLAIN_CHART: ApexOptions = {
  chart: {
    type: 'line',
    toolbar: { show: false },
    zoom: { enabled: false },
    animations: { enabled: false },
    fontFamily: 'Archivo, sans-serif',
    background: 'transparent',
  },
  dataLabels: { enabled: false },
  states: { hover: UNTOUCHED, active: UNTOUCHED },
  legend: { show: false },
  tooltip: { enabled: false },
  grid: { borderColor: '#dde0d8' },
};
