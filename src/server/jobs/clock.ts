/** A clock that all threads read alike and nobody sets back, milliseconds. */
export function clockMs(): number {
  return performance.timeOrigin + performance.now();
}
