/** Where a label does not fit: the smallest of each kind of shape in which it does. */
import type { LabelContent } from './content';
import { PANELS, USUAL_FORMATS, type LabelFormat } from './formats';
import { layoutLabel, type LabelLook } from './label';
import type { Metrics } from './layout';

const STEP_MM = 5;
const HIGHEST_BAND_MM = 110;
const HIGHEST_TAG_MM = 220;

/** Formats of a kind, the smallest first. */
function growing(format: LabelFormat, mostMm: number): LabelFormat[] {
  const from = Math.ceil((format.heightMm + 0.5) / STEP_MM) * STEP_MM;
  const formats: LabelFormat[] = [];
  for (let heightMm = from; heightMm <= mostMm; heightMm += STEP_MM) formats.push({ ...format, heightMm });
  return formats;
}

/** A shape in which a label fits, with its size in words. */
export interface Fitting {
  words: string;
  format: LabelFormat;
}

interface Kind {
  formats: LabelFormat[];
  words: (format: LabelFormat) => string;
}

const sized = ({ widthMm, heightMm }: LabelFormat) => `${widthMm} × ${heightMm} mm`;

function kindsFor(format: LabelFormat): Kind[] {
  const face = format.face === undefined ? {} : { face: format.face };
  const { leaflet, tag } = USUAL_FORMATS;
  const panels = Array.from({ length: PANELS.most - PANELS.least + 1 }, (_, at) => at + PANELS.least);
  const own: Kind[] =
    format.shape === 'band' || format.shape === 'sticker'
      ? [
          {
            formats: growing(format, HIGHEST_BAND_MM),
            words: (one) => `a higher ${format.shape}, ${sized(one)}`,
          },
        ]
      : [];
  return [
    ...own,
    {
      formats: [{ ...tag, ...face }, ...growing({ ...tag, ...face }, HIGHEST_TAG_MM)],
      words: (one) => `a tag, ${sized(one)}`,
    },
    {
      formats: panels.map((count) => ({ ...leaflet, ...face, panels: count })),
      words: (one) => `a leaflet folded into ${one.panels}, ${sized(one)} shut`,
    },
  ];
}

/**
 * The smallest higher band or sticker, tag and folded leaflet in which a label fits, each with its size in words; kinds in
 * which it fits in none are left out.
 *
 * @example
 * fittingFormats(content, band, look, 98, metrics)[0].words // 'a higher band, 210 × 75 mm'
 */
export function fittingFormats(
  content: LabelContent,
  format: LabelFormat,
  look: LabelLook,
  netMassG: number,
  metrics: Metrics,
): Fitting[] {
  const fits = (one: LabelFormat) =>
    !layoutLabel(content, one, look, netMassG, metrics).findings.some(
      ({ code }) => code === 'does-not-fit' || code === 'format',
    );
  return kindsFor(format).flatMap(({ formats, words }) => {
    const found = formats.find(fits);
    return found ? [{ words: words(found), format: found }] : [];
  });
}
