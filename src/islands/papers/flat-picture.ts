/** A photograph of a page made ready for reading: laid flat, turned straight, evenly lit, its rules taken out. */
import { evened, flattened, pageCorners } from '../../core/paperwork/flatten';
import { withoutRules } from '../../core/paperwork/rules-out';
import { clean, skewOf, type GreyPicture } from '../../core/paperwork/straighten';

/** A page is read at about so many pixels across: small print needs them, more only takes longer. */
const READ_WIDTH_PX = 1800;
/** Photographs are looked at so many pixels across at most. */
const MOST_WIDTH_PX = 2600;
export interface PictureOfPage {
  source: CanvasImageSource;
  width: number;
  height: number;
}

export function canvasOf(width: number, height: number): [HTMLCanvasElement, CanvasRenderingContext2D] {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.fillStyle = 'white';
  context.fillRect(0, 0, width, height);
  return [canvas, context];
}

function greyOf(context: CanvasRenderingContext2D, width: number, height: number): GreyPicture {
  const { data } = context.getImageData(0, 0, width, height);
  const grey = new Uint8ClampedArray(width * height);
  for (let at = 0; at < grey.length; at++)
    grey[at] = 0.299 * data[4 * at]! + 0.587 * data[4 * at + 1]! + 0.114 * data[4 * at + 2]!;
  return { width, height, grey };
}

/** Grey values on a canvas of their own. */
function shownOn({ width, height, grey }: GreyPicture): HTMLCanvasElement {
  const [canvas, context] = canvasOf(width, height);
  const shown = context.createImageData(width, height);
  for (let at = 0; at < grey.length; at++) {
    shown.data.fill(grey[at]!, 4 * at, 4 * at + 3);
    shown.data[4 * at + 3] = 255;
  }
  context.putImageData(shown, 0, 0);
  return canvas;
}

/** A photograph turned by quarters, so many pixels across at most. */
function turned({ source, width, height }: PictureOfPage, quarters: number): GreyPicture {
  const scale = Math.min(1, MOST_WIDTH_PX / width);
  const [w, h] = [Math.round(width * scale), Math.round(height * scale)];
  const [across, down] = quarters % 2 === 0 ? [w, h] : [h, w];
  const [, context] = canvasOf(across, down);
  context.translate(across / 2, down / 2);
  context.rotate((quarters * Math.PI) / 2);
  context.drawImage(source, -w / 2, -h / 2, w, h);
  return greyOf(context, across, down);
}

/** A picture drawn so many pixels across, turned about its middle. */
function drawn(picture: GreyPicture, width: number, degrees: number): GreyPicture {
  const scale = width / picture.width;
  const height = Math.round(picture.height * scale);
  if (degrees === 0 && scale === 1) return picture;
  const [, context] = canvasOf(width, height);
  context.translate(width / 2, height / 2);
  context.rotate((-degrees * Math.PI) / 180);
  context.scale(scale, scale);
  context.drawImage(shownOn(picture), -picture.width / 2, -picture.height / 2);
  return greyOf(context, width, height);
}

/** The page at reading size, flat and straight, paper white and ink black. */
export function straightened(page: PictureOfPage, quarters: number) {
  const photograph = turned(page, quarters);
  const corners = pageCorners(photograph);
  const flat = corners ? flattened(photograph, corners, READ_WIDTH_PX) : photograph;
  const degrees = skewOf(drawn(flat, READ_WIDTH_PX, 0));
  // From what it was taken as, in one step: every step blurs small points a little more.
  const picture = drawn(flat, READ_WIDTH_PX, degrees);
  evened(picture);
  /** As it was taken: cleaning wipes out small points. */
  const plain: GreyPicture = { ...picture, grey: picture.grey.slice() };
  clean(picture);
  const ruled = picture.grey.slice();
  withoutRules(picture);
  // Beside a rule no point of a figure is looked for.
  for (let at = 0; at < ruled.length; at++) if (picture.grey[at] !== ruled[at]) plain.grey[at] = 255;
  return { canvas: shownOn(picture), plain };
}
