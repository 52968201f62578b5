import type { Keeping } from './bench-ready';

const WORDS = {
  kept: 'Works offline',
  notYet: 'Does not work offline yet',
} as const;

/** Whether this screen of the bench comes up again where the network is gone. */
export function KeptMark({ keeping }: { keeping: Keeping }) {
  return (
    <p role="status" className="text-soft">
      {keeping === null ? 'Opens online only' : WORDS[keeping]}
    </p>
  );
}
