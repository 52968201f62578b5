import type { CureData } from '../../core/records/rack';
import { useBenchReady } from '../../ui/bench-ready';
import { guarded } from '../../ui/Guarded';
import { KeptMark } from '../../ui/KeptMark';
import { SetAsides } from '../../ui/SetAsides';
import { useWriting } from '../../ui/writing';
import { CutPanel } from './CutPanel';
import benchStyles from '../../ui/bench.module.css';

/** Cutting at the bench: when, what it gave and how it went, and putting it off. */
function CutBenchIsland({ first }: { first: CureData }) {
  const { detail, productName, window } = first;
  const keeping = useBenchReady();
  const writing = useWriting(detail);
  const { batch } = writing;
  return (
    <div className={benchStyles.bench}>
      <header className="flex flex-wrap items-baseline gap-x-4">
        <h1 className="text-2xl">
          Cut {productName} <span className="font-text font-normal">{detail.code}</span>
        </h1>
        <a className="text-ultra underline" href="/pour">
          Pour day
        </a>
        <KeptMark keeping={keeping} />
      </header>
      <SetAsides writing={writing} />
      <CutPanel writing={writing} window={window} />
      {batch.cut && (
        <p className={benchStyles.benchNote}>
          Cut: {batch.cut.bars} bars, {batch.cut.seconds} of them seconds.{' '}
          <a className="text-ultra underline" href={`/rack/${detail.id}/weigh`}>
            Weigh bars for the cure
          </a>
        </p>
      )}
      {batch.state === 'pouring' && (
        <p className={benchStyles.benchNote}>
          It is still being poured.{' '}
          <a className="text-ultra underline" href={`/pour/${detail.id}`}>
            To the pot
          </a>
        </p>
      )}
    </div>
  );
}

export const CutBench = guarded('Cutting', CutBenchIsland);
