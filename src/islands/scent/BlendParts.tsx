import { Trash2 } from 'lucide-react';
import type { MixPart } from '../../core/formula/mix';
import type { AssessedLimit } from '../../core/formula/answer';
import type { ScentDeskData, TryBar } from '../../core/records/scent';
import { NumberField } from '../../ui/ReadField';
import { Straightedge } from '../../ui/Straightedge';
import { VerdictMark } from '../../ui/VerdictMark';
import { grams, percent, VERDICT_WORDS } from '../../ui/words';
import { asMultiples, governingLimit, othersShare, subjectName } from '../worktable/view';
import type { Tried } from './reckoning';

interface Props {
  data: ScentDeskData;
  parts: MixPart[];
  tried: Tried | null;
  bars: readonly Pick<TryBar, 'id' | 'name'>[];
  barId: string;
  totalPct: number;
  onParts: (parts: MixPart[], key: string) => void;
  onBar: (id: string) => void;
  onTotal: (pct: number) => void;
}

const ignore = () => undefined;

function said(limit: AssessedLimit | null, nameOf: (id: string) => string): string {
  if (!limit) return 'No certificate on file';
  return `${subjectName(limit, nameOf)} ${percent(limit.highPct)} of ${percent(limit.maxPct)}`;
}

/** The oils by parts, each against the limit that governs it in the bar it is tried in. */
export function BlendParts({ data, parts, tried, bars, barId, totalPct, onParts, onBar, onTotal }: Props) {
  const total = parts.reduce((sum, part) => sum + part.parts, 0);
  const nameOf = (id: string) => data.scents.find(({ material }) => material.id === id)?.material.name ?? id;
  const set = (at: number, value: number) =>
    onParts(
      parts.map((part, index) => (index === at ? { ...part, parts: value } : part)),
      `parts ${parts[at]!.material}`,
    );
  const margin = (tried?.request.formula.marginPct ?? 10) / 100;
  return (
    <section aria-label="Parts" className="sheet">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-1 pb-1">
        <label>
          <span className="eyebrow block">Tried in</span>
          <select className="field" value={barId} onChange={(event) => onBar(event.target.value)}>
            {bars.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <NumberField
          label="In all"
          unit="% of fats"
          value={totalPct}
          least={0.01}
          most={20}
          onChange={onTotal}
          onFault={ignore}
        />
        {tried && (
          <p role="status" className="ml-auto flex items-center gap-2">
            <VerdictMark verdict={tried.assessment.verdict} size={20} />
            <strong className="font-display text-lg">{VERDICT_WORDS[tried.assessment.verdict]}</strong>
          </p>
        )}
      </div>
      <div className="blend-row load-head" aria-hidden="true">
        <span>Oil</span>
        <span>Parts</span>
        <span>Holds</span>
        <span>Against what binds it closest, the upright rule</span>
      </div>
      <ul>
        {parts.map((part, index) => {
          const line = `oil ${part.material}`;
          const assessed = tried?.assessment.lines.find(({ id }) => id === line);
          const limit = tried && assessed ? governingLimit(tried.assessment, line) : null;
          return (
            <li key={part.material} className="blend-row">
              <span className="font-medium">{nameOf(part.material)}</span>
              <NumberField
                label={`Parts of ${nameOf(part.material)}`}
                unit=""
                isLabelHidden
                value={part.parts}
                least={0}
                most={100_000}
                onChange={(value) => set(index, value)}
                onFault={ignore}
              />
              <span className="font-narrow leading-tight text-soft tabular-nums">
                {total > 0 && percent((100 * part.parts) / total)}
                {assessed && ` · ${grams(assessed.massG)} · ${percent(assessed.pctCured)} cured`}
                <br />
                <span className="text-ink">{said(limit, nameOf)}</span>
              </span>
              <Straightedge
                load={limit ? asMultiples(limit) : undefined}
                othersShare={limit ? othersShare(limit, line) : 0}
                margin={margin}
                label={said(limit, nameOf)}
              />
              <button
                type="button"
                className="icon-action"
                aria-label={`Leave out ${nameOf(part.material)}`}
                onClick={() =>
                  onParts(
                    parts.filter((_, at) => at !== index),
                    `without ${part.material}`,
                  )
                }
              >
                <Trash2 size={15} aria-hidden="true" />
              </button>
            </li>
          );
        })}
      </ul>
      <label className="mt-2 block">
        <span className="sr-only">Add an oil</span>
        <select
          className="field w-64"
          value=""
          onChange={(event) =>
            onParts([...parts, { material: event.target.value, parts: 1 }], `with ${event.target.value}`)
          }
        >
          <option value="">add an oil from the cupboard</option>
          {data.scents
            .filter(({ material }) => !parts.some((part) => part.material === material.id))
            .map(({ material }) => (
              <option key={material.id} value={material.id}>
                {material.name}
              </option>
            ))}
        </select>
      </label>
    </section>
  );
}
