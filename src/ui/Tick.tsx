import { Check } from 'lucide-react';

/** Says that something is done: drawn, as no shipped face has the letter. */
export function Tick() {
  return (
    <Check role="img" aria-label="done" className="mr-1 inline size-[0.9em] align-[-0.1em]" strokeWidth={3} />
  );
}
