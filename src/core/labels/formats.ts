/** The shapes a label comes in, and the places on each where text may stand. */
import type { Market } from '../formula/types';
import type { PlacedRule, Region } from './layout';
import { LABEL_MANNERS } from './manners';

export const SHAPES = ['band', 'sticker', 'round', 'box', 'tag', 'leaflet', 'notice'] as const;
export type Shape = (typeof SHAPES)[number];

/** Width and height of the face of the package that is shown at sale. */
export interface PackageFace {
  widthMm: number;
  heightMm: number;
}

/** A label's size. `depthMm` is a box's; the others have none. */
export interface LabelFormat {
  shape: Shape;
  widthMm: number;
  heightMm: number;
  depthMm?: number;
  /** Of a leaflet, how many panels it folds into; absent is two. */
  panels?: number;
  marginMm: number;
  /** As the maker measured it; absent or null where it is taken from the shape. */
  face?: PackageFace | null;
}

/** Usual sizes to start from. */
export const USUAL_FORMATS: Record<Shape, LabelFormat> = {
  band: { shape: 'band', widthMm: 210, heightMm: 50, marginMm: 3 },
  sticker: { shape: 'sticker', widthMm: 90, heightMm: 60, marginMm: 3 },
  round: { shape: 'round', widthMm: 80, heightMm: 80, marginMm: 3 },
  box: { shape: 'box', widthMm: 85, heightMm: 58, depthMm: 30, marginMm: 3 },
  tag: { shape: 'tag', widthMm: 55, heightMm: 110, marginMm: 3 },
  leaflet: { shape: 'leaflet', widthMm: 74, heightMm: 105, marginMm: 4 },
  notice: { shape: 'notice', widthMm: 148, heightMm: 105, marginMm: 6 },
};

export interface Plan {
  /** The flat sheet. */
  widthMm: number;
  heightMm: number;
  outline: 'rect' | 'disc';
  /** The panel a customer sees first: name, what it is, net content. */
  front: Region;
  /** Where the rest flows, one after the other. */
  info: Region[];
  guides: PlacedRule[];
  /** Set where the front is only the upper part of the panel a customer sees, so that its foot is not the panel's. */
  isStacked: boolean;
  /** Area of the front panel, for letter heights that hang on it, mm². */
  frontAreaMm2: number;
  longestSideMm: number;
  /** The face of the package as measured; null where both follow from the shape. */
  face: PackageFace | null;
}

/** What a shape gives of itself. */
type ShapePlan = Omit<Plan, 'face'>;

const GAP_MM = 4;
const HOLE_MM = 9;
const FRONT_OF_BAND = 0.27;
const FRONT_BESIDE = 0.36;
const FRONT_ABOVE = 0.42;
const FRONT_OF_NOTICE = 0.26;
/** Wider than this against its height, a sticker is set side by side. */
const WIDE = 1.3;

const box = (xMm: number, yMm: number, widthMm: number, heightMm: number): Region => ({
  xMm,
  yMm,
  widthMm,
  heightMm,
});

const fold = (xMm: number, heightMm: number): PlacedRule => ({
  x1Mm: xMm,
  y1Mm: 0,
  x2Mm: xMm,
  y2Mm: heightMm,
  weightMm: 0.1,
  isGuide: true,
});

function areaOf({ widthMm, heightMm }: Pick<LabelFormat, 'widthMm' | 'heightMm'>): number {
  return widthMm * heightMm;
}

function band({ widthMm, heightMm, marginMm: m }: LabelFormat): ShapePlan {
  const inner = widthMm - 2 * m - 2 * GAP_MM;
  const high = heightMm - 2 * m;
  const front = box(m, m, inner * FRONT_OF_BAND, high);
  const column = (inner - front.widthMm) / 2;
  const first = front.xMm + front.widthMm + GAP_MM;
  return {
    widthMm,
    heightMm,
    outline: 'rect',
    front,
    info: [box(first, m, column, high), box(first + column + GAP_MM, m, column, high)],
    guides: [],
    isStacked: false,
    frontAreaMm2: areaOf({ widthMm: front.widthMm + 2 * m, heightMm }),
    longestSideMm: Math.max(widthMm, heightMm),
  };
}

function sideBySide({ widthMm, heightMm, marginMm: m }: LabelFormat, share: number): ShapePlan {
  const inner = widthMm - 2 * m - GAP_MM;
  const front = box(m, m, inner * share, heightMm - 2 * m);
  const info = box(m + front.widthMm + GAP_MM, m, inner - front.widthMm, heightMm - 2 * m);
  return {
    widthMm,
    heightMm,
    outline: 'rect',
    front,
    info: [info],
    guides: [],
    isStacked: false,
    frontAreaMm2: areaOf({ widthMm, heightMm }),
    longestSideMm: Math.max(widthMm, heightMm),
  };
}

function stacked({ widthMm, heightMm, marginMm: m }: LabelFormat, share: number, topMm: number): ShapePlan {
  const inner = heightMm - topMm - m - GAP_MM / 2;
  const front = box(m, topMm, widthMm - 2 * m, inner * share);
  const info = box(m, topMm + front.heightMm + GAP_MM / 2, widthMm - 2 * m, inner * (1 - share));
  return {
    widthMm,
    heightMm,
    outline: 'rect',
    front,
    info: [info],
    guides: [],
    isStacked: true,
    frontAreaMm2: areaOf({ widthMm, heightMm }),
    longestSideMm: Math.max(widthMm, heightMm),
  };
}

function round({ widthMm, marginMm: m }: LabelFormat): ShapePlan {
  const radiusMm = widthMm / 2 - m;
  const disc = { xMm: widthMm / 2, yMm: widthMm / 2, radiusMm };
  const high = 2 * radiusMm;
  const part = (from: number, to: number): Region => ({
    ...box(m, m + high * from, high, high * (to - from)),
    disc,
  });
  return {
    widthMm,
    heightMm: widthMm,
    outline: 'disc',
    front: part(0.04, 0.4),
    info: [part(0.42, 0.98)],
    guides: [],
    isStacked: true,
    frontAreaMm2: Math.PI * (widthMm / 2) ** 2,
    longestSideMm: widthMm,
  };
}

function boxPanels({ widthMm, heightMm, depthMm = 30, marginMm: m }: LabelFormat): ShapePlan {
  const starts = [0, widthMm, widthMm + depthMm, 2 * widthMm + depthMm];
  const panel = (index: number, wide: number) => box(starts[index]! + m, m, wide - 2 * m, heightMm - 2 * m);
  return {
    widthMm: 2 * (widthMm + depthMm),
    heightMm,
    outline: 'rect',
    front: panel(0, widthMm),
    info: [panel(2, widthMm), panel(1, depthMm), panel(3, depthMm)],
    guides: starts.slice(1).map((x) => fold(x, heightMm)),
    isStacked: false,
    frontAreaMm2: areaOf({ widthMm, heightMm }),
    longestSideMm: Math.max(widthMm, heightMm, depthMm),
  };
}

/** Panels of a leaflet, at least and at most. */
export const PANELS = { least: 2, most: 8 } as const;

function leaflet({ widthMm, heightMm, panels = PANELS.least, marginMm: m }: LabelFormat): ShapePlan {
  const others = Array.from({ length: panels - 1 }, (_, at) => (at + 1) * widthMm);
  return {
    widthMm: panels * widthMm,
    heightMm,
    outline: 'rect',
    front: box(m, m, widthMm - 2 * m, heightMm - 2 * m),
    info: others.map((xMm) => box(xMm + m, m, widthMm - 2 * m, heightMm - 2 * m)),
    guides: others.map((xMm) => fold(xMm, heightMm)),
    isStacked: false,
    frontAreaMm2: areaOf({ widthMm, heightMm }),
    longestSideMm: Math.max(widthMm, heightMm),
  };
}

/** The face a format's shape proposes, in whole millimetres: a band's is its front, a disc's the square of its area. */
export function proposedFace(format: LabelFormat): PackageFace {
  const { frontAreaMm2, heightMm } = planShape(format);
  const high = format.shape === 'round' ? Math.sqrt(frontAreaMm2) : heightMm;
  return { widthMm: Math.round(frontAreaMm2 / high), heightMm: Math.round(high) };
}

/** Whether a market's heights hang on a face that the shape does not tell: a box shows its own panel, all else lies on a bar. */
export const asksForFace = (market: Market, { shape, face }: LabelFormat): boolean =>
  LABEL_MANNERS[market].asksForFace && shape !== 'box' && !face;

/** The places of a format; what hangs on the face of the package follows the one that was measured. */
export function planFormat(format: LabelFormat): Plan {
  const plan = planShape(format);
  const { face } = format;
  if (!face) return { ...plan, face: null };
  return {
    ...plan,
    face,
    frontAreaMm2: areaOf(face),
    longestSideMm: Math.max(face.widthMm, face.heightMm),
  };
}

function planShape(format: LabelFormat): ShapePlan {
  switch (format.shape) {
    case 'band':
      return band(format);
    case 'sticker':
      return format.widthMm >= WIDE * format.heightMm
        ? sideBySide(format, FRONT_BESIDE)
        : stacked(format, FRONT_ABOVE, format.marginMm);
    case 'round':
      return round(format);
    case 'box':
      return boxPanels(format);
    case 'tag':
      return stacked(format, FRONT_ABOVE, format.marginMm + HOLE_MM);
    case 'leaflet':
      return leaflet(format);
    case 'notice':
      return stacked(format, FRONT_OF_NOTICE, format.marginMm);
  }
}

/** Sides a label may have, millimetres. */
export const SMALLEST_MM = 15;
const LARGEST_MM = 1200;

/** What is wrong with a format, in words; null where nothing. */
export function formatFault({
  widthMm,
  heightMm,
  marginMm,
  depthMm,
  panels = PANELS.least,
  face,
}: LabelFormat): string | null {
  const sides = [widthMm, heightMm, ...(depthMm === undefined ? [] : [depthMm])];
  if (face && [face.widthMm, face.heightMm].some((side) => !(side > 0 && side <= LARGEST_MM)))
    return `Give the face of the package in millimetres, up to ${LARGEST_MM}.`;
  if (sides.some((side) => !(side >= SMALLEST_MM && side <= LARGEST_MM)))
    return `Give sides from ${SMALLEST_MM} to ${LARGEST_MM} mm.`;
  if (!(panels >= PANELS.least && panels <= PANELS.most && Number.isInteger(panels)))
    return `Give a leaflet ${PANELS.least} to ${PANELS.most} panels.`;
  if (!(marginMm >= 0 && marginMm * 2 < Math.min(widthMm, heightMm) / 2))
    return 'Give a margin that leaves more than half of the label.';
  return null;
}
