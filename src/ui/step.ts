/** Steps taken so far on this page. */
let steps = 0;

/** The key of a step that is undone by itself, never together with the one before it. */
export function newStep(what: string): string {
  steps++;
  return `${what} ${steps}`;
}
