import { useMemo, useState } from 'react';
import type { AssessedLimit, Assessment } from '../../core/formula/answer';
import type { Line } from '../../core/formula/types';
import { binds } from '../../core/loads/limits';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { ADVICE_WORDS, dayInWords, percent, VERDICT_WORDS } from '../../ui/words';
import { newStep } from '../../ui/step';
import { useTable } from './context';
import { applyTrial, daysOfChange, NOTHING_TRIED, type Trial } from './trial';
import { asMultiples, subjectName } from './view';
import linesStyles from './lines.module.css';

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

/**
 * The limits worth looking at: those the line that is tried feeds, advice too, then those that bind; each subject
 * once, those closest to their limit first.
 */
function tellingRows(now: Assessment, then: Assessment, line: string | null) {
  const seen = new Set<string>();
  const feeds = ({ contributors }: AssessedLimit) => contributors.some((one) => one.line === line);
  const rows = [
    ...then.limits.filter(feeds),
    ...then.limits.filter((limit) => binds(limit.force) && !feeds(limit)),
  ];
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

interface OutcomeProps {
  now: Assessment;
  then: Assessment;
  margin: number;
  /** The line whose load is tried. */
  line: string | null;
}

function Outcome({ now, then, margin, line }: OutcomeProps) {
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
        {tellingRows(now, then, line).map(({ row, before }) => (
          <li key={`${row.id} ${row.market}`} className={linesStyles.whatifRow}>
            <span className="leading-tight">
              {subjectName(row, materialName)}
              <br />
              <span className="font-narrow text-[0.9rem] text-soft tabular-nums">
                {before ? percent(before.highPct) : 'none'} → {percent(row.highPct)} of {percent(row.maxPct)}
                {!binds(row.force) && ' advised'}
              </span>
            </span>
            <Straightedge
              load={asMultiples(row)}
              margin={margin}
              isAdvice={!binds(row.force)}
              label={`${subjectName(row, materialName)}: ${(binds(row.force) ? VERDICT_WORDS : ADVICE_WORDS)[row.verdict]}`}
            />
          </li>
        ))}
      </ul>
    </>
  );
}

interface TrialProps {
  trial: Trial;
  set: (part: Partial<Trial>) => void;
}

function CureSlider({ trial, set }: TrialProps) {
  const { cure } = useTable().formula;
  const byRatio = cure?.massRatio != null;
  const cured = trial.cured ?? (byRatio ? cure.massRatio! * 100 : (cure?.residualWaterPct ?? 8));
  return (
    <Slider
      label={byRatio ? 'Cured weighs' : 'Water in the cured bar'}
      value={cured}
      least={byRatio ? 65 : 0}
      most={byRatio ? 100 : 25}
      step={0.5}
      shown={byRatio ? `${cured} % of pour` : `${cured} %`}
      onChange={(value) => set({ cured: value })}
    />
  );
}

function SuperfatSlider({ trial, set }: TrialProps) {
  const { superfatPct } = useTable().formula.alkali;
  if (superfatPct == null) return null;
  const tried = trial.superfat ?? superfatPct;
  return (
    <Slider
      label="Superfat"
      value={tried}
      least={0}
      most={25}
      step={0.5}
      shown={`${tried} %`}
      onChange={(value) => set({ superfat: value })}
    />
  );
}

function LoadSlider({ trial, set, loads }: TrialProps & { loads: readonly Line[] }) {
  const { materialName } = useTable();
  if (loads.length === 0) return null;
  return (
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
          {loads.map(({ id, material }) => (
            <option key={id} value={id}>
              {materialName(material)}
            </option>
          ))}
        </select>
      </label>
    </>
  );
}

function RulesDay({ trial, set }: TrialProps) {
  const { data, onDate } = useTable();
  return (
    <label className="grid grid-cols-[7rem_1fr] items-center gap-2">
      <span>Rules as of</span>
      <select
        className="field"
        value={trial.day ?? ''}
        onChange={(event) => set({ day: event.target.value || null })}
      >
        <option value="">{dayInWords(onDate)}</option>
        {daysOfChange(data.rules, onDate).map((change) => (
          <option key={change} value={change}>
            {dayInWords(change)}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Slides the cure, the superfat, one load or the day, and shows which verdicts move; nothing is changed until taken. */
export function WhatIfPanel() {
  const { formula, assessment, reckon, change, onDate } = useTable();
  const loads = formula.lines.filter(({ stage }) => stage !== 'fats' && stage !== 'liquid');
  const [trial, setTrial] = useState<Trial>({ ...NOTHING_TRIED, line: loads[0]?.id ?? '' });
  const tried = useMemo(() => applyTrial(formula, trial), [formula, trial]);
  const day = trial.day ?? onDate;
  const then = useMemo(() => reckon(tried, day), [reckon, tried, day]);
  const set = (part: Partial<Trial>) => setTrial((all) => ({ ...all, ...part }));
  const isTried = tried !== formula || trial.day !== null;
  const take = () => {
    change(tried, newStep('what if'));
    set(NOTHING_TRIED);
  };
  return (
    <section aria-label="Slide and see" className="py-2">
      <div className="grid gap-1.5">
        <CureSlider trial={trial} set={set} />
        <SuperfatSlider trial={trial} set={set} />
        <LoadSlider trial={trial} set={set} loads={loads} />
        <RulesDay trial={trial} set={set} />
      </div>
      {then ? (
        <Outcome
          now={assessment}
          then={then}
          margin={(tried.marginPct ?? 10) / 100}
          line={trial.load === null ? null : trial.line}
        />
      ) : (
        <p role="alert" className="mt-2 text-madder">
          That does not make a batch. Slide back a little.
        </p>
      )}
      <div className="mt-2 flex gap-3">
        <button type="button" className="action" disabled={tried === formula || !then} onClick={take}>
          Put this on the table
        </button>
        <button type="button" className="action" disabled={!isTried} onClick={() => set(NOTHING_TRIED)}>
          Back to what is
        </button>
      </div>
    </section>
  );
}
