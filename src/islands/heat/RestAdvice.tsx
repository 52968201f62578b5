import { useMemo } from 'react';
import type { Batch } from '../../core/batch/types';
import { questionOfBatch } from '../../core/heat/batch-pour';
import type { Mould } from '../../core/making/size';
import { useHeat, useWarmth } from './heat';
import { adviceWords } from './words';

/** Which way to rest what was just poured, and when to look at it: one sentence for the bench. */
export function RestAdvice({ batch, moulds }: { batch: Batch; moulds: readonly Mould[] }) {
  const question = useMemo(() => questionOfBatch(batch, moulds), [batch, moulds]);
  const single = useMemo(() => moulds.find(({ isSingle }) => isSingle) ?? null, [moulds]);
  const { advice, progress } = useHeat(question, useWarmth(question?.mould.id ?? null), single);
  if (!question) return null;
  const said = advice && adviceWords(advice);
  return (
    <div aria-live="polite" className="min-h-12">
      {said ? (
        <p>
          <strong>{said.what}</strong> {said.why} {said.look}{' '}
          <span className="text-soft">An estimate from its warmth.</span>
        </p>
      ) : (
        progress !== null && <p className="text-soft">How it will heat is being reckoned…</p>
      )}
    </div>
  );
}
