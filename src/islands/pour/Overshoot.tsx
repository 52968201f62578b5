import { useEffect, useState } from 'react';
import { batchRequest } from '../../core/batch/request';
import type { Batch } from '../../core/batch/types';
import type { Market } from '../../core/formula/types';
import type { Assessment } from '../../core/formula/answer';
import { ALKALI_LINE, LYE_STOCK_LINE } from '../../core/making/run-sheet-types';
import { address, send } from '../../ui/api';
import { percent, VERDICT_WORDS } from '../../ui/words';
import { SCALED, scaledBy, type Wanted } from './sheet-view';
import type { Write } from './writing';

/** The verdict on the batch as it stands, what is still to come as planned; null until it is there. */
function useStanding(batch: Batch, markets: Market[], asks: boolean): Assessment | null {
  const [assessment, setAssessment] = useState<Assessment | null>(null);
  useEffect(() => {
    if (!asks) return;
    let isStale = false;
    const request = batchRequest(
      batch,
      { material: () => undefined },
      { markets, onDate: batch.startedAt.slice(0, 10) },
    );
    void send<Assessment>('POST', address('assess'), request).then((answer) => {
      if (!isStale && answer.ok) setAssessment(answer.body);
    });
    return () => {
      isStale = true;
    };
  }, [batch, markets, asks]);
  return assessment;
}

function Verdict({ assessment, line }: { assessment: Assessment; line: string }) {
  const rows = assessment.limits.filter(
    ({ contributors, force }) => force !== 'craft' && contributors.some((one) => one.line === line),
  );
  const [worst] = [...rows].sort((a, b) => b.highPct / b.maxPct - a.highPct / a.maxPct);
  const { effectivePct } = assessment.superfat;
  return (
    <p>
      As it stands now: <strong>{VERDICT_WORDS[assessment.verdict]}</strong>
      {worst &&
        `, ${percent(worst.nominalPct)} in the bar of a most of ${percent(worst.maxPct)} (${worst.source ?? worst.id})`}
      {effectivePct !== null && `. Superfat ${percent(effectivePct)}.`}
    </p>
  );
}

interface Props {
  batch: Batch;
  markets: Market[];
  wanted: Wanted;
  write: Write;
}

/** Too much went in: what it does, and the honest ways on. */
export function Overshoot({ batch, markets, wanted, write }: Props) {
  const overG = wanted.doneG - wanted.massG;
  const isOver = overG > wanted.overG;
  const [isKept, setKept] = useState(false);
  const assessment = useStanding(batch, markets, isOver);
  if (!isOver || isKept) return null;
  const isLye = wanted.line === ALKALI_LINE || wanted.line === LYE_STOCK_LINE;
  const factor = wanted.doneG / (wanted.massG / scaledBy(batch));
  const { sheet } = batch;
  const scale = () => {
    write('checked', {
      check: SCALED,
      outcome: 'good',
      value: factor.toFixed(4),
      note: `${wanted.name} ran over`,
    });
    write('noted', {
      text: `${wanted.name} ran over by ${overG.toFixed(1)} g; what was still to come was scaled by ${factor.toFixed(3)}.`,
      for: 'record',
    });
  };
  return (
    <div role="alert" className={isLye ? 'bench-caution' : 'bench-note'}>
      <p className="text-2xl font-semibold">
        {overG.toFixed(1)} g too much {wanted.name}
      </p>
      {isLye && (
        <p>
          Too much lye leaves a bar that burns. Do not go on as planned. Nothing can be taken out of it again:
          raise the fats with it, or stop.
        </p>
      )}
      {assessment && <Verdict assessment={assessment} line={wanted.line} />}
      <div className="mt-2 grid gap-2">
        {!isLye && (
          <button
            type="button"
            className="bench-action"
            onClick={() => {
              write('noted', {
                text: `${wanted.name} ran over by ${overG.toFixed(1)} g and was kept.`,
                for: 'record',
              });
              setKept(true);
            }}
          >
            Keep it and write it down
          </button>
        )}
        <button type="button" className="bench-action" onClick={scale}>
          Scale what is still to come by {factor.toFixed(3)}: fats {Math.round(sheet.fatsG * factor)} g, lye{' '}
          {Math.round(sheet.alkaliG * factor)} g, pour {Math.round(sheet.pourG * factor)} g, more than the
          moulds were set out for by {Math.round(sheet.pourG * (factor - 1))} g
        </button>
        <button
          type="button"
          className="bench-action"
          onClick={() => write('stopped', { reason: `${wanted.name} ran over by ${overG.toFixed(1)} g` })}
        >
          Stop this batch
        </button>
      </div>
    </div>
  );
}
