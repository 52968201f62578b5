import { useMemo, useState } from 'react';
import type { AssessedLimit, Assessment } from '../../core/formula/answer';
import { binds } from '../../core/loads/limits';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { dayInWords, percent, VERDICT_WORDS } from '../../ui/words';
import { useTable } from './context';
import { applyTrial, daysOfChange, NOTHING_TRIED, type Trial } from './trial';
import { asMultiples, subjectName } from './view';

const MOST_SHOWN = 5;
const MOST_LOAD_PCT = 250;

interface SliderProps {
  label: string;
  value: number;
  least: number;
  most: number;
  step: number;
  shown: string;
  onChange: (value: number) => void;
}

function Slider({ label, value, least, most, step, shown, onChange }: SliderProps) {
  return (
    <label className="grid grid-cols-[7rem_1fr_5.5rem] items-center gap-2">
      <span>{label}</span>
      <input
        type="range"
        className="accent-ultra"
        min={least}
        max={most}
        step={step}
        value={value}
        aria-valuetext={shown}
        onChange={(event) => onChange(Number(event.target.value))}
      />
      <span className="text-right font-narrow tabular-nums">{shown}</span>
    </label>
  );
}

const sameRow = (a: AssessedLimit, b: AssessedLimit) => a.id === b.id && a.market === b.market;

/** The limits worth looking at: each subject once, those closest to their limit in either case first. */
function tellingRows(now: Assessment, then: Assessment) {
  const seen = new Set<string>();
  const rows = then.limits.filter(({ force }) => binds(force));
  return rows
    .filter(({ subject, maxPct }) => {
      const key = `${subject.type} ${subject.id} ${maxPct}`;
      if (seen.has(key)) return false;
      seen.add(key);
      return true;
    })
    .slice(0, MOST_SHOWN)
    .map((row) => ({ row, before: now.limits.find((other) => sameRow(other, row)) ?? null }));
}

function Outcome({ now, then, margin }: { now: Assessment; then: Assessment; margin: number }) {
  const { materialName } = useTable();
  return (
    <>
      <p role="status" className="mt-3 flex items-center gap-2">
        <VerdictMark verdict={now.verdict} size={16} />
        {VERDICT_WORDS[now.verdict]}
        <span aria-hidden="true">→</span>
        <span className="sr-only">would become</span>
        <VerdictMark verdict={then.verdict} size={22} />
        <strong className="font-display text-lg">{VERDICT_WORDS[then.verdict]}</strong>
        <span className="text-soft">
          {then.markets
            .map(({ market, verdict }) => `${market} ${VERDICT_WORDS[verdict].toLowerCase()}`)
            .join(' · ')}
        </span>
      </p>
      <ul>
        {tellingRows(now, then).map(({ row, before }) => (
          <li key={`${row.id} ${row.market}`} className="whatif-row">
            <span className="leading-tight">
              {subjectName(row, materialName)}
              <br />
              <span className="font-narrow text-[0.9rem] text-soft tabular-nums">
                {before ? percent(before.highPct) : 'none'} → {percent(row.highPct)} of {percent(row.maxPct)}
              </span>
            </span>
            <Straightedge
              load={asMultiples(row)}
              margin={margin}
              label={`${subjectName(row, materialName)}: ${VERDICT_WORDS[row.verdict]}`}
            />
          </li>
        ))}
      </ul>
    </>
  );
}

/** Slides the cure, the superfat, one load or the day, and shows which verdicts move; nothing is changed until taken. */
export function WhatIfPanel() {
  const { data, formula, assessment, materialName, reckon, change, onDate } = useTable();
  const scents = formula.lines.filter(({ stage }) => stage !== 'fats' && stage !== 'liquid');
  const [trial, setTrial] = useState<Trial>({ ...NOTHING_TRIED, line: scents[0]?.id ?? '' });
  const tried = useMemo(() => applyTrial(formula, trial), [formula, trial]);
  const day = trial.day ?? onDate;
  const then = useMemo(() => reckon(tried, day), [reckon, tried, day]);
  const set = (part: Partial<Trial>) => setTrial((all) => ({ ...all, ...part }));
  const line = formula.lines.find(({ id }) => id === trial.line);
  const byRatio = formula.cure?.massRatio != null;
  const cured =
    trial.cured ?? (byRatio ? formula.cure!.massRatio! * 100 : (formula.cure?.residualWaterPct ?? 8));
  const changes = daysOfChange(data.rules, onDate);
  const isTried = tried !== formula || trial.day !== null;
  return (
    <section aria-label="What if" className="py-2">
      <div className="grid gap-1.5">
        <Slider
          label={byRatio ? 'Cured weighs' : 'Water left'}
          value={cured}
          least={byRatio ? 65 : 0}
          most={byRatio ? 100 : 25}
          step={0.5}
          shown={byRatio ? `${cured} % of pour` : `${cured} %`}
          onChange={(value) => set({ cured: value })}
        />
        {formula.alkali.superfatPct != null && (
          <Slider
            label="Superfat"
            value={trial.superfat ?? formula.alkali.superfatPct}
            least={0}
            most={25}
            step={0.5}
            shown={`${trial.superfat ?? formula.alkali.superfatPct} %`}
            onChange={(value) => set({ superfat: value })}
          />
        )}
        {line && (
          <>
            <Slider
              label="Load"
              value={trial.load ?? 100}
              least={0}
              most={MOST_LOAD_PCT}
              step={1}
              shown={`${trial.load ?? 100} % of now`}
              onChange={(value) => set({ load: value })}
            />
            <label className="grid grid-cols-[7rem_1fr] items-center gap-2">
              <span className="text-soft">of</span>
              <select
                className="field"
                value={trial.line}
                onChange={(event) => set({ line: event.target.value, load: null })}
              >
                {scents.map(({ id, material }) => (
                  <option key={id} value={id}>
                    {materialName(material)}
                  </option>
                ))}
              </select>
            </label>
          </>
        )}
        <label className="grid grid-cols-[7rem_1fr] items-center gap-2">
          <span>Rules as of</span>
          <select
            className="field"
            value={trial.day ?? ''}
            onChange={(event) => set({ day: event.target.value || null })}
          >
            <option value="">{dayInWords(onDate)}</option>
            {changes.map((change) => (
              <option key={change} value={change}>
                {dayInWords(change)}
              </option>
            ))}
          </select>
        </label>
      </div>
      {then ? (
        <Outcome now={assessment} then={then} margin={(tried.marginPct ?? 10) / 100} />
      ) : (
        <p role="alert" className="mt-2 text-madder">
          That does not make a batch. Slide back a little.
        </p>
      )}
      <div className="mt-2 flex gap-3">
        <button
          type="button"
          className="action"
          disabled={tried === formula || !then}
          onClick={() => {
            change(tried, `what if ${Date.now()}`);
            set(NOTHING_TRIED);
          }}
        >
          Put this on the table
        </button>
        <button type="button" className="action" disabled={!isTried} onClick={() => set(NOTHING_TRIED)}>
          Back to what is
        </button>
      </div>
    </section>
  );
}
