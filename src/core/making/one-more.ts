/** One bar more out of the same batch: what each then weighs and how wide it is cut. Pure. */

/** The block that a bar is cut from: its length inside and how many of them are filled. */
export interface Block {
  mould: string;
  lengthMm: number;
  count: number;
}

export interface OneMore {
  bars: number;
  /** A cured bar, grams, with as many as now and with one more. */
  nowG: number;
  thenG: number;
  /** How wide each is cut from the block, millimetres; null where the block is not measured, or not cut along its length. */
  cut: { mould: string; nowMm: number; thenMm: number } | null;
}

/** Bars are cut so wide; what would be wider or thinner is no slice along the block. */
const SLICE_MM = [12, 80] as const;

/**
 * One bar more than `bars`, of so many grams cured in all. Null where every bar has a cavity of its own, or there is none.
 *
 * @example oneMore(1020, 12, { mould: 'Long block', lengthMm: 300, count: 1 })?.thenG.toFixed(1) // '78.5'
 */
export function oneMore(curedG: number, bars: number, from: Block | 'cavities' | null): OneMore | null {
  if (from === 'cavities' || !(bars > 0)) return null;
  const [nowG, thenG] = [curedG / bars, curedG / (bars + 1)];
  const [least, most] = SLICE_MM;
  const wide = (count: number) => (from === null ? 0 : (from.lengthMm * from.count) / count);
  const isSliced = from !== null && wide(bars) <= most && wide(bars + 1) >= least;
  const cut = isSliced ? { mould: from.mould, nowMm: wide(bars), thenMm: wide(bars + 1) } : null;
  return { bars: bars + 1, nowG, thenG, cut };
}
