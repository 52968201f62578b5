/** A maker's mould as heat sees it: its own measures where they are on file, else guessed from what it holds. */
import type { Mould } from '../making/size';
import type { MouldShape, MouldWall } from './types';

/** Length, width and height of usual moulds, as parts of each other. */
const BLOCK = [3, 1.1, 1] as const;
const CAVITY = [3.2, 2.2, 1] as const;
const MM3_PER_ML = 1000;

/** What a mould is made of and how wide and long it is inside; its height follows from what it holds. */
export interface MouldMake {
  wall: MouldWall;
  form: MouldShape['form'];
  widthMm: number;
  /** Of a column its width again. */
  lengthMm: number;
}

function guessed(volumeMl: number, [long, wide, high]: readonly [number, number, number]): MouldMake {
  const unit = Math.cbrt((volumeMl * MM3_PER_ML) / (long * wide * high));
  return { wall: 'silicone', form: 'block', widthMm: wide * unit, lengthMm: long * unit };
}

export interface Filled {
  shape: MouldShape;
  /** From what the mould holds, since nobody measured it. */
  isGuessed: boolean;
}

/**
 * What so much batter fills of a mould, or of each cavity. A mould that nobody measured is taken for an ordinary
 * silicone one.
 */
export function filledShape({ volumeMl, cavities, isSingle, make }: Mould, batterMl: number): Filled {
  const holdsMl = isSingle ? volumeMl / cavities : volumeMl;
  const own = make ?? guessed(holdsMl, isSingle ? CAVITY : BLOCK);
  const { form, wall, widthMm, lengthMm } = own;
  const area = form === 'column' ? (Math.PI * widthMm ** 2) / 4 : widthMm * lengthMm;
  const fills = Math.min(holdsMl, Math.max(1, batterMl));
  return {
    shape: { form, wall, widthMm, lengthMm, heightMm: (fills * MM3_PER_ML) / area },
    isGuessed: make == null,
  };
}
