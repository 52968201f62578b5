/** A small seeded generator of random numbers, so that the same weighings always give the same answer. */
export interface Random {
  /** From 0 to 1. */
  uniform: () => number;
  /** With mean 0 and standard deviation 1. */
  normal: () => number;
}

/** Numbers from a seed (mulberry32; normals by Box and Muller). */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  const uniform = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
  const normal = () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform());
  return { uniform, normal };
}

/** The value below which a share of sorted values lies; between two, in proportion. */
export function quantile(sorted: readonly number[], share: number): number {
  const at = share * (sorted.length - 1);
  const low = Math.floor(at);
  const high = Math.min(low + 1, sorted.length - 1);
  // Between two that are never, or at one of them, there is nothing to share out.
  if (at === low || sorted[low] === sorted[high]) return sorted[low]!;
  return sorted[low]! + (at - low) * (sorted[high]! - sorted[low]!);
}
