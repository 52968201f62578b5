import { useBenchReady } from '../../ui/bench-ready';
import type { BatchDetail } from '../../core/records/batch';
import { guarded } from '../../ui/Guarded';
import { isBenchDevice } from '../../ui/session';
import { KeptMark } from '../../ui/KeptMark';
import { SetAsides } from '../../ui/SetAsides';
import { useWriting } from '../../ui/writing';
import { WeighBars } from './WeighBars';
import benchStyles from '../../ui/bench.module.css';

/** Weighing for the cure at the bench: one bar after the other, taken by itself when it rests. */
function WeighBenchIsland({ detail, readabilityG }: { detail: BatchDetail; readabilityG: number }) {
  const keeping = useBenchReady();
  const writing = useWriting(detail);
  const { batch, write } = writing;
  return (
    <div className={benchStyles.bench}>
      <header className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-2xl">Weigh {detail.code}</h1>
        {isBenchDevice() ? (
          <a className="text-ultra underline" href="/pour">
            Pour day
          </a>
        ) : (
          <a className="text-ultra underline" href={`/rack/${detail.id}`}>
            Back to the batch
          </a>
        )}
        <KeptMark keeping={keeping} />
      </header>
      <SetAsides writing={writing} />
      {batch.cut ? (
        <WeighBars batch={batch} readabilityG={readabilityG} write={write} isBench />
      ) : (
        <p className={benchStyles.benchNote}>It is not cut yet; there is no bar to weigh.</p>
      )}
    </div>
  );
}

export const WeighBench = guarded('Weighing for the cure', WeighBenchIsland);
