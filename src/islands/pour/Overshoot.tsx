import { useEffect, useState } from 'react';
import { canGrow } from '../../core/batch/joined';
import { batchRequest } from '../../core/batch/request';
import { SCALED_CHECK, type Batch } from '../../core/batch/types';
import type { Market } from '../../core/formula/types';
import type { Assessment } from '../../core/formula/answer';
import { ALKALI_LINE, LYE_STOCK_LINE } from '../../core/making/run-sheet-types';
import { batterVolume, heldBy, type Mould } from '../../core/making/size';
import { address, send } from '../../ui/api';
import { dayHere } from '../../ui/habits';
import { percent, VERDICT_WORDS, gramsAt } from '../../ui/words';
import { topUps, type Wanted } from '../../core/batch/targets';
import type { Write } from '../../ui/writing';
import benchStyles from '../../ui/bench.module.css';

interface Standing {
  assessment: Assessment;
  /** The whole pour as it would come out now, millilitres. */
  volumeMl: number;
}

/** How the batch stands, what is still to come as planned; null until it is there. */
function useStanding(batch: Batch, markets: Market[], asks: boolean): Standing | null {
  const [standing, setStanding] = useState<Standing | null>(null);
  useEffect(() => {
    if (!asks) return;
    let isStale = false;
    const request = batchRequest(
      batch,
      { material: () => undefined },
      { markets, onDate: dayHere(batch.startedAt) },
    );
    const material = (id: string) => request.materials?.find((one) => one.id === id);
    void send<Assessment>('POST', address('assess'), request).then((answer) => {
      if (isStale || !answer.ok) return;
      const { volumeMl } = batterVolume(request.formula, answer.body, material);
      setStanding({ assessment: answer.body, volumeMl });
    });
    return () => {
      isStale = true;
    };
  }, [batch, markets, asks]);
  return standing;
}

/** What the moulds make of a pour of a size. */
function roomWords(volumeMl: number, { sheet }: Batch, moulds: readonly Mould[]): string {
  const ml = (value: number) => `${Math.round(value).toLocaleString('en')} ml`;
  const holdsMl = heldBy(sheet.moulds, moulds);
  if (holdsMl !== null) {
    const spareMl = holdsMl - volumeMl;
    const set = sheet.moulds.map(({ count, name }) => `${count} × ${name}`).join(', ');
    const room = spareMl >= 0 ? `${ml(spareMl)} to spare` : `stand something ready for ${ml(-spareMl)}`;
    return `${ml(volumeMl)} for ${set} of ${ml(holdsMl)}: ${room}`;
  }
  const [mould] = moulds;
  if (!mould) return ml(volumeMl);
  return `${ml(volumeMl)}, ${(volumeMl / mould.volumeMl).toFixed(2)} times ${mould.name} (${ml(mould.volumeMl)})`;
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
  moulds: readonly Mould[];
  write: Write;
}

/** Scaling the day by what ran over: what comes of it, and what has to be topped up. */
function ScaleDay({
  batch,
  wanted,
  moulds,
  write,
  standing,
}: Omit<Props, 'markets'> & { standing: Standing | null }) {
  if (!canGrow(batch))
    return <p>The lye is in the fats: what is in the pot can no longer grow in proportion.</p>;
  const factor = (wanted.doneG / wanted.massG) * batch.scale;
  const { sheet } = batch;
  const overG = wanted.doneG - wanted.massG;
  const volumeMl = standing && (standing.volumeMl * sheet.pourG * factor) / standing.assessment.masses.pourG;
  const short = topUps(batch, factor).map(({ name, massG }) => `${name} by ${gramsAt(massG, 0.1)}`);
  const scale = () => {
    write('checked', {
      check: SCALED_CHECK,
      outcome: 'good',
      value: factor.toFixed(4),
      note: `${wanted.name} ran over`,
    });
    write('noted', {
      text: `${wanted.name} ran over by ${gramsAt(overG, 0.1)}; the day was scaled by ${factor.toFixed(3)}.`,
      for: 'record',
    });
  };
  return (
    <>
      <button type="button" className={benchStyles.benchAction} onClick={scale}>
        Scale the day by {factor.toFixed(3)}
      </button>
      <p>
        Scaled, every share of the bar stays as it was planned: fats {gramsAt(sheet.fatsG * factor, 1)}, lye{' '}
        {gramsAt(sheet.alkaliG * factor, 0.1)}, pour {gramsAt(sheet.pourG * factor, 1)}.{' '}
        {short.length > 0 && <strong>To be topped up: {short.join(', ')}. </strong>}
        {volumeMl !== null && `In the mould: ${roomWords(volumeMl, batch, moulds)}.`}
      </p>
    </>
  );
}

/** Too much went in: what it does, and the honest ways on. */
export function Overshoot({ batch, markets, wanted, moulds, write }: Props) {
  const overG = wanted.doneG - wanted.massG;
  const isOver = overG > wanted.overG;
  const [isKept, setKept] = useState(false);
  const standing = useStanding(batch, markets, isOver);
  if (!isOver || isKept) return null;
  const isLye = wanted.line === ALKALI_LINE || wanted.line === LYE_STOCK_LINE;
  return (
    <div role="alert" className={isLye ? benchStyles.benchCaution : benchStyles.benchNote}>
      <p className="text-2xl font-semibold">
        {gramsAt(overG, 0.1)} too much {wanted.name}
      </p>
      {isLye && (
        <p>
          Too much lye leaves a bar that burns. Do not go on as planned. Nothing can be taken out of it again:
          raise the rest with it, or stop.
        </p>
      )}
      {standing && <Verdict assessment={standing.assessment} line={wanted.line} />}
      {standing && <p>In the mould as it stands: {roomWords(standing.volumeMl, batch, moulds)}.</p>}
      <div className="mt-2 grid gap-2">
        {!isLye && (
          <button
            type="button"
            className={benchStyles.benchAction}
            onClick={() => {
              write('noted', {
                text: `${wanted.name} ran over by ${gramsAt(overG, 0.1)} and was kept.`,
                for: 'record',
              });
              setKept(true);
            }}
          >
            Keep it and write it down
          </button>
        )}
        <ScaleDay {...{ batch, wanted, moulds, write, standing }} />
        <button
          type="button"
          className={benchStyles.benchAction}
          onClick={() => write('stopped', { reason: `${wanted.name} ran over by ${gramsAt(overG, 0.1)}` })}
        >
          Stop this batch
        </button>
      </div>
    </div>
  );
}
