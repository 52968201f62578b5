/**
 * The colour of a bar from photographs on a grey card: what light and camera do to the card they do to the bar, so the
 * card takes it out again (von Kries scaling in linear light), and weeks can be held beside each other.
 */

/** A colour as screens show it, sRGB, 0 to 255. */
export type Rgb = readonly [red: number, green: number, blue: number];

/** CIE L*a*b* under D65: lightness 0 to 100, green to red, blue to yellow. */
export type Lab = readonly [lightness: number, red: number, yellow: number];

/** How much light a grey card gives back; what photographers' cards are made to. */
const CARD_REFLECTANCE = 0.18;
/** Two colours nearer than this are hardly told apart (a just noticeable difference in L*a*b*). */
const NOTICEABLE = 2.3;
/** The frame of a picture that is card, and the middle that is bar, as shares of its sides. */
const FRAME = 0.12;
const MIDDLE = 0.4;
/** Beyond these the frame is no grey card: too dark, too bright, or coloured by more than light does. */
const CARD = { darkest: 0.03, brightest: 0.75, mostTint: 3 };

const TOP = 255;

/** sRGB's own curve (IEC 61966-2-1). */
const linear = (value: number) => {
  const share = value / TOP;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
};
const shown = (light: number) => {
  const share = Math.min(1, Math.max(0, light));
  return TOP * (share <= 0.0031308 ? 12.92 * share : 1.055 * share ** (1 / 2.4) - 0.055);
};

const median = (values: number[]) => values.sort((a, b) => a - b)[values.length >> 1] ?? 0;

/** The middle value of each channel over some pixels. */
function medianOf(pixels: Uint8ClampedArray, width: number, isIn: (x: number, y: number) => boolean): Rgb {
  const channels: [number[], number[], number[]] = [[], [], []];
  for (let at = 0; at < pixels.length; at += 4) {
    const place = at / 4;
    if (!isIn(place % width, Math.floor(place / width))) continue;
    for (const [channel, values] of channels.entries()) values.push(pixels[at + channel]!);
  }
  return [median(channels[0]), median(channels[1]), median(channels[2])];
}

/**
 * The bar's colour in a picture of it in the middle of a grey card, as it would be in even light; null where the frame
 * of the picture is no grey card, as black all over is none. `pixels` are RGBA, row by row.
 *
 * @example swatchOf(new Uint8ClampedArray(4 * 9), 3, 3) // null
 */
export function swatchOf(pixels: Uint8ClampedArray, width: number, height: number): Rgb | null {
  const inFrame = (x: number, y: number) =>
    x < FRAME * width || x >= (1 - FRAME) * width || y < FRAME * height || y >= (1 - FRAME) * height;
  const inMiddle = (x: number, y: number) =>
    Math.abs(x + 0.5 - width / 2) < (MIDDLE / 2) * width &&
    Math.abs(y + 0.5 - height / 2) < (MIDDLE / 2) * height;
  const card = medianOf(pixels, width, inFrame).map(linear);
  const [least, most] = [Math.min(...card), Math.max(...card)];
  if (least < CARD.darkest || most > CARD.brightest || most / least > CARD.mostTint) return null;
  const [red, green, blue] = medianOf(pixels, width, inMiddle).map((value, channel) =>
    shown((linear(value) * CARD_REFLECTANCE) / card[channel]!),
  ) as [number, number, number];
  return [red, green, blue];
}

/** White of D65, and sRGB's way to XYZ. */
const WHITE = [0.95047, 1, 1.08883] as const;
const TO_XYZ = [
  [0.4124564, 0.3575761, 0.1804375],
  [0.2126729, 0.7151522, 0.072175],
  [0.0193339, 0.119192, 0.9503041],
] as const;

/** A colour in L*a*b* (CIE 15). */
export function labOf(colour: Rgb): Lab {
  const light = colour.map(linear);
  const [x, y, z] = TO_XYZ.map((row, at) => {
    const share = row.reduce((sum, weight, channel) => sum + weight * light[channel]!, 0) / WHITE[at]!;
    return share > 216 / 24389 ? Math.cbrt(share) : ((24389 / 27) * share + 16) / 116;
  }) as [number, number, number];
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

/**
 * How a bar's colour moved from one picture to another: how far, and in words.
 *
 * @example colourMoved([200, 190, 170], [160, 140, 110]).words // 'darker, yellower, redder'
 */
export function colourMoved(before: Rgb, after: Rgb): { far: number; words: string } {
  const [from, to] = [labOf(before), labOf(after)];
  const [light, red, yellow] = [to[0] - from[0], to[1] - from[1], to[2] - from[2]];
  const far = Math.hypot(light, red, yellow);
  if (far < NOTICEABLE) return { far, words: 'no change to be seen' };
  // What was green and fades is less green before it is red.
  const ways: [number, string, string][] = [
    [light, 'lighter', 'darker'],
    [red, from[1] < -NOTICEABLE ? 'less green' : 'redder', from[1] > NOTICEABLE ? 'less red' : 'greener'],
    [
      yellow,
      from[2] < -NOTICEABLE ? 'less blue' : 'yellower',
      from[2] > NOTICEABLE ? 'less yellow' : 'bluer',
    ],
  ];
  const words = ways
    .filter(([by]) => Math.abs(by) >= NOTICEABLE / Math.sqrt(ways.length))
    .sort(([a], [b]) => Math.abs(b) - Math.abs(a))
    .map(([by, more, less]) => (by > 0 ? more : less));
  return { far, words: words.join(', ') };
}
