/** A lye stock as makers say it: in percent, or in parts of hydroxide to parts of water. Pure. */
import { readNumber } from '../quantities/number';

const PARTS = /^(.+?)\s*(?::|\/|to|zu|à|a)\s*(.+)$/iu;

/**
 * The share of hydroxide in a stock, percent; null for nothing written, NaN for what is no stock.
 *
 * @example readLyeStock('1 to 1') // 50
 * @example readLyeStock('50 %') // 50
 */
export function readLyeStock(text: string): number | null {
  const said = text.trim();
  if (said === '') return null;
  const parts = PARTS.exec(said);
  if (!parts) {
    const pct = readNumber(said.replace(/\s*%$/, ''));
    return pct > 0 && pct < 100 ? pct : NaN;
  }
  const [alkali, water] = [readNumber(parts[1]!), readNumber(parts[2]!)];
  return alkali > 0 && water > 0 ? (100 * alkali) / (alkali + water) : NaN;
}

/** A stock in words: "1 to 1 (50 %)", or percent alone where it is no such ratio. */
export function lyeStockWords(concentrationPct: number): string {
  const ratio = (100 - concentrationPct) / concentrationPct;
  const isPlain = [1, 1.5, 2].some((one) => Math.abs(ratio - one) < 1e-6);
  const pct = `${Number(concentrationPct.toFixed(1))} %`;
  return isPlain ? `1 to ${Number(ratio.toFixed(1))} (${pct})` : pct;
}
