/** A clock that all threads read alike and nobody sets back, milliseconds since 1970 as they were when it began. */
export function clockMs(): number {
  return performance.timeOrigin + performance.now();
}
