import { useMemo, useState } from 'react';
import type { Batch, EventFields } from '../../core/batch/types';
import { heatBatters } from '../../core/heat/batter';
import { measuredBatch, questionOfBatch, readingsOf } from '../../core/heat/batch-pour';
import { courseAt, type Reading } from '../../core/heat/calibrate';
import type { Run } from '../../core/heat/types';
import { filledShape } from '../../core/heat/mould';
import type { Mould } from '../../core/making/size';
import { readNumberOrNull } from '../../core/quantities/number';
import { useHeat, useWarmth } from '../heat/heat';
import { HeatView } from '../heat/HeatView';
import { degreesWords, fromDegrees, habits } from '../../ui/habits';
import type { Writing } from '../../ui/writing';
import { TextField } from '../../ui/TextField';

type Of = EventFields['temperature']['of'];
const PLACES: readonly (readonly [Of, string])[] = [
  ['batter', 'Middle'],
  ['mould', 'Edge'],
  ['room', 'Room'],
];
const [COLDEST, HOTTEST] = [-50, 300];

/** What the thermometer says now. */
function Measure({ write }: Pick<Writing, 'write'>) {
  const [texts, setTexts] = useState<Partial<Record<Of, string>>>({});
  const read = PLACES.flatMap(([of]) => {
    const said = readNumberOrNull(texts[of] ?? '');
    const c = said === null ? null : Number(fromDegrees(said).toFixed(1));
    return c !== null && c >= COLDEST && c <= HOTTEST ? [{ of, c }] : [];
  });
  const keep = () => {
    for (const one of read) write('temperature', one);
    setTexts({});
  };
  return (
    <div className="flex flex-wrap items-end gap-2">
      {PLACES.map(([of, label]) => (
        <div key={of} className="w-24">
          <TextField
            label={`${label}, °${habits().degrees}`}
            value={texts[of] ?? ''}
            onChange={(text) => setTexts({ ...texts, [of]: text })}
            isNumber
          />
        </div>
      ))}
      <button type="button" className="action" disabled={read.length === 0} onClick={keep}>
        Measured now
      </button>
    </div>
  );
}

/** What was foreseen against what was measured. */
function Against({ run, readings }: { run: Run; readings: readonly Reading[] }) {
  if (readings.length === 0) return null;
  return (
    <ul aria-label="Foreseen and measured">
      {readings.map((reading) => (
        <li key={`${reading.where} ${reading.hour}`} className="tabular-nums">
          After {reading.hour.toFixed(1)} h, {reading.where}: {degreesWords(reading.c)} measured,{' '}
          {degreesWords(courseAt(run.course, reading))} foreseen
        </li>
      ))}
    </ul>
  );
}

function useQuestion(batch: Batch, moulds: readonly Mould[]) {
  return useMemo(() => {
    const question = questionOfBatch(batch, moulds);
    const batters = question && heatBatters(question.formula, question.materials);
    if (!question || !batters) return null;
    const volumeMl = batters.reduce((sum, one) => sum + one.volumeMl, 0);
    return { question, ...filledShape(question.mould, volumeMl) };
  }, [batch, moulds]);
}

interface Props {
  id: string;
  writing: Writing;
  moulds: readonly Mould[];
}

function Warming({ id, writing: { batch, write }, moulds }: Props) {
  const asked = useQuestion(batch, moulds);
  const earlier = useWarmth(asked?.question.mould.id ?? null);
  const measured = useMemo(() => {
    const own = measuredBatch(batch, moulds);
    return [...earlier.filter((one) => one.batch !== id), ...(own ? [own] : [])];
  }, [earlier, batch, moulds, id]);
  const single = useMemo(() => moulds.find(({ isSingle }) => isSingle) ?? null, [moulds]);
  const heat = useHeat(asked?.question ?? null, measured, single);
  const readings = readingsOf(batch);
  return (
    <section aria-label="Warmth" className="sheet grid gap-2">
      <h2 className="text-lg">How it heats</h2>
      {asked ? (
        <>
          <HeatView heat={heat} shape={asked.shape} way={asked.question.around.way} readings={readings} />
          {heat.run && <Against run={heat.run} readings={readings} />}
        </>
      ) : (
        <p className="text-soft">Its mould is not on file any more, so its warmth is not reckoned.</p>
      )}
      <Measure write={write} />
    </section>
  );
}

/** How this pour heats while it waits for the knife, what was foreseen and what the thermometer says. */
export function HeatOfBatch(props: Props) {
  return props.writing.batch.state === 'poured' ? <Warming {...props} /> : null;
}
