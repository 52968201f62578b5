/** What a maker has to see of a label: what does not fit and the ways out, what cannot be drawn or read, what is not measured. */
import type { Market } from '../formula/types';
import type { LabelContent } from './content';
import { contrast } from './heights';
import type { LabelFinding, Layout, Metrics } from './layout';

const LEAST_CONTRAST = 4.5;
/** Letters told at most of those that the fonts lack. */
const MOST_TOLD = 12;

const WAYS_OUT: Record<string, string[]> = {
  EU: ['a larger band or sticker', 'a leaflet or tag with the list', 'a notice beside small unwrapped bars'],
  UK: ['a larger band or sticker', 'a leaflet or tag with the list', 'a notice beside small unwrapped bars'],
  US: ['a larger label', 'a box, whose outer panels hold the list', 'English names, which are shorter'],
  CA: ['a larger label', 'a leaflet where the package is small', 'English and French in columns on a box'],
  AU: ['a larger label', 'the list at the point of sale, if the container is too small for it'],
};

const ELEMENT_WORDS: Record<string, string> = {
  name: 'name',
  identity: 'statement of what it is',
  net: 'net content',
  ingredients: 'ingredient list',
  use: 'use',
  cautions: 'cautions',
  responsible: 'address',
  batch: 'batch code',
  durability: 'durability',
  text: 'your own text',
};

export const FACE_UNMEASURED: LabelFinding = {
  element: 'face',
  code: 'missing',
  message:
    'Measure the face of the package that is shown at sale, the bar with its label on: how high the figures of its weight must be hangs on it.',
};

/** Tells of an element that lacks so much height, millimetres, and what the market allows instead. */
export function reportLack(layout: Layout, market: Market, element: string, lacksMm: number): void {
  layout.findings.push({
    element,
    code: 'does-not-fit',
    message: `The ${ELEMENT_WORDS[element]} needs ${lacksMm.toFixed(1)} mm more height than there is.`,
    waysOut: WAYS_OUT[market],
  });
}

/** Tells of letters that the shipped fonts cannot draw. */
export function checkText(layout: Layout, { front, info }: LabelContent, metrics: Metrics): void {
  const letters = metrics.missing([front.name, front.identity, ...info.map(({ text }) => text)].join(' '));
  if (letters.length === 0) return;
  const message = `The shipped fonts cannot draw ${letters.slice(0, MOST_TOLD).join(' ')}. Write it in Latin letters.`;
  layout.findings.push({ element: 'text', code: 'cannot-draw', message });
}

/** Tells of ink that is hard to read on its paper; colours as #rrggbb. */
export function checkLook(layout: Layout, { paper, ink }: { paper: string; ink: string }): void {
  const ratio = contrast(paper, ink);
  if (ratio >= LEAST_CONTRAST) return;
  const message = `Ink on paper has a contrast of ${ratio.toFixed(1)} to 1; take at least ${LEAST_CONTRAST}.`;
  layout.findings.push({ element: 'look', code: 'contrast', message });
}
