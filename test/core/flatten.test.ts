/** Photographs of pages: where the page lies in them, how it is drawn flat, and how its light is made even. */
import { expect } from 'chai';
import { evened, flattened, pageCorners, type Corners, type Point } from '../../src/core/paperwork/flatten';
import { cellGapOf, linesFromItems, type TextItem } from '../../src/core/paperwork/page';
import { startsEarlier } from '../../src/core/paperwork/points';
import type { GreyPicture } from '../../src/core/paperwork/straighten';
import { seeded } from '../support/generate';

const [WIDTH, HEIGHT] = [900, 1200];

const inside = ({ x, y }: Point, corners: Corners) =>
  corners.every((a, at) => {
    const b = corners[(at + 1) % 4]!;
    return (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x) >= 0;
  });

/** A photograph of a bright page on a dark table, with some grain; `shade` darkens all of it towards one side. */
function photograph(corners: Corners, { page = 235, table = 90, shade = 0 } = {}): GreyPicture {
  const random = seeded(7);
  const grey = new Uint8ClampedArray(WIDTH * HEIGHT);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const light = 1 - (shade * x) / WIDTH;
      const bright = inside({ x, y }, corners) ? page : table;
      grey[y * WIDTH + x] = bright * light + 4 * (random() - 0.5);
    }
  return { width: WIDTH, height: HEIGHT, grey };
}

const off = (found: Corners, wanted: Corners) =>
  Math.max(...found.map(({ x, y }, at) => Math.hypot(x - wanted[at]!.x, y - wanted[at]!.y)));

const corners = (...values: number[]): Corners =>
  [0, 2, 4, 6].map((at) => ({ x: values[at]!, y: values[at + 1]! })) as unknown as Corners;

describe('a photograph of a page', () => {
  it('shows the four corners of the page: at a slant, turned, in the shade, on a pale table', () => {
    const seen: [string, Corners, object][] = [
      ['straight', corners(120, 140, 780, 140, 780, 1060, 120, 1060), {}],
      ['from below', corners(200, 150, 700, 160, 830, 1100, 60, 1090), {}],
      ['from the right', corners(90, 60, 760, 190, 770, 1000, 100, 1140), {}],
      ['turned', corners(230, 90, 830, 210, 660, 1110, 60, 980), {}],
      ['in the shade', corners(120, 140, 780, 170, 760, 1060, 140, 1030), { shade: 0.55 }],
      ['on a pale table', corners(120, 140, 780, 140, 780, 1060, 120, 1060), { table: 205 }],
    ];
    for (const [name, wanted, light] of seen) {
      const found = pageCorners(photograph(wanted, light));
      expect(found, name).to.not.equal(null);
      expect(off(found!, wanted), name).to.be.below(14);
    }
  });

  it('shows none where the page goes beyond it, or where there is nothing on the table', () => {
    expect(pageCorners(photograph(corners(-50, -50, 950, -50, 950, 1250, -50, 1250)))).to.equal(null);
    expect(pageCorners(photograph(corners(100, 100, 800, 100, 800, 1300, 100, 1300)))).to.equal(null);
    const bare = new Uint8ClampedArray(WIDTH * HEIGHT).map((_, at) => (at * 7919) % 251);
    expect(pageCorners({ width: WIDTH, height: HEIGHT, grey: bare })).to.equal(null);
    expect(pageCorners({ width: 40, height: 30, grey: new Uint8ClampedArray(1200).fill(200) })).to.equal(
      null,
    );
  });

  it('is drawn flat so that every mark on the page stands where it stood on paper', () => {
    const slanted = corners(200, 150, 700, 160, 830, 1100, 60, 1090);
    // Where a point of the page lies in the photograph, worked out from its diagonals and not by the core's own way.
    const solve = (u: number, v: number): Point => {
      const [a, b, c, d] = slanted;
      const rows = [
        [a, 0, 0],
        [b, 1, 0],
        [c, 1, 1],
        [d, 0, 1],
      ].flatMap(([point, s, t]) => {
        const { x, y } = point as Point;
        const [p, q] = [s as number, t as number];
        return [
          [p, q, 1, 0, 0, 0, -p * x, -q * x, x],
          [0, 0, 0, p, q, 1, -p * y, -q * y, y],
        ];
      });
      for (let at = 0; at < 8; at++) {
        const pivot = rows.findIndex((row, place) => place >= at && Math.abs(row[at]!) > 1e-9);
        [rows[at], rows[pivot]] = [rows[pivot]!, rows[at]!];
        rows.forEach((row, place) => {
          if (place === at) return;
          const times = row[at]! / rows[at]![at]!;
          row.forEach((_, column) => (row[column]! -= times * rows[at]![column]!));
        });
      }
      const h = rows.map((row, at) => row[8]! / row[at]!);
      const w = h[6]! * u + h[7]! * v + 1;
      return { x: (h[0]! * u + h[1]! * v + h[2]!) / w, y: (h[3]! * u + h[4]! * v + h[5]!) / w };
    };
    const picture = photograph(slanted);
    const marks = [
      [0.2, 0.1],
      [0.8, 0.3],
      [0.5, 0.5],
      [0.3, 0.9],
    ] as const;
    for (const [u, v] of marks) {
      const { x, y } = solve(u, v);
      for (let dy = -4; dy <= 4; dy++)
        for (let dx = -4; dx <= 4; dx++) picture.grey[(Math.round(y) + dy) * WIDTH + Math.round(x) + dx] = 0;
    }
    const flat = flattened(picture, slanted, 600);
    expect(flat.width).to.equal(600);
    for (const [u, v] of marks) {
      const at = Math.round(v * flat.height) * flat.width + Math.round(u * flat.width);
      expect(flat.grey[at], `${u} ${v}`).to.be.below(60);
    }
  });

  it('has evenly bright paper whatever shadow lies on it, and ink as dark as it was beside it', () => {
    const grey = new Uint8ClampedArray(WIDTH * HEIGHT);
    for (let y = 0; y < HEIGHT; y++)
      for (let x = 0; x < WIDTH; x++) {
        const light = 1 - (0.6 * (x + y)) / (WIDTH + HEIGHT);
        const isInk = y % 30 < 8 && x % 24 < 9;
        grey[y * WIDTH + x] = (isInk ? 60 : 240) * light;
      }
    const picture = { width: WIDTH, height: HEIGHT, grey };
    evened(picture);
    for (const [x, y] of [
      [15, 20],
      [450, 620],
      [880, 1190],
    ] as const) {
      const paper = picture.grey[(y - (y % 30) + 20) * WIDTH + x - (x % 24) + 15]!;
      const ink = picture.grey[(y - (y % 30) + 3) * WIDTH + x - (x % 24) + 3]!;
      expect(paper, `paper at ${x} ${y}`).to.be.above(240);
      expect(ink, `ink at ${x} ${y}`).to.be.within(45, 85);
    }
  });
});

describe('a figure’s own picture', () => {
  it('tells that one more digit stands before where it was begun', () => {
    const [width, height] = [60, 30];
    const grey = new Uint8ClampedArray(width * height).fill(255);
    const bar = (left: number, wide: number, top: number) => {
      for (let y = top; y < 25; y++) for (let x = left; x < left + wide; x++) grey[y * width + x] = 0;
    };
    bar(20, 10, 5);
    bar(38, 10, 5);
    expect(startsEarlier({ width, height, grey }, 20)).to.equal(false);
    bar(3, 3, 22); // a crumb at the foot
    expect(startsEarlier({ width, height, grey }, 20)).to.equal(false);
    bar(8, 4, 6);
    expect(startsEarlier({ width, height, grey }, 20)).to.equal(true);
  });
});

describe('words that are known one by one', () => {
  /** A line of words whose letters are so wide and whose blanks are so wide, in points at a height of ten. */
  const line = (text: string, yPt: number, letterPt: number, blankPt: number): TextItem[] => {
    let xPt = 0;
    return text.split(' ').map((word) => {
      const item = { text: word, xPt, yPt, widthPt: word.length * letterPt, heightPt: 10 };
      xPt += item.widthPt + blankPt;
      return item;
    });
  };
  const said = [
    'We certify that this product meets the standard',
    'Issued by the works at Saltby on the quay',
  ];

  it('are one cell to a sentence, set in a common face or on a typewriter', () => {
    for (const [letterPt, blankPt] of [
      [5, 2.8],
      [5.2, 7.6],
    ] as const) {
      const lines = said.map((text, at) => line(text, 20 + 20 * at, letterPt, blankPt));
      const read = linesFromItems(1, lines.flat(), cellGapOf(lines));
      expect(read.map(({ cells }) => cells.map(({ text }) => text))).to.deep.equal(
        said.map((text) => [text]),
      );
    }
  });

  it('are cells where the gaps are wider than their blanks', () => {
    const lines = said.map((text, at) => line(text, 20 + 20 * at, 5.2, 7.6));
    const row = [
      ...line('Category 9', 80, 5.2, 7.6),
      { text: '3.18', xPt: 120, yPt: 80, widthPt: 20, heightPt: 10 },
    ];
    const read = linesFromItems(1, [...lines.flat(), ...row], cellGapOf([...lines, row]));
    expect(read.at(-1)!.cells.map(({ text }) => text)).to.deep.equal(['Category 9', '3.18']);
  });
});
